import { findPart, pinIndex, pinNames } from '../circuit';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { netlistNumber, netlistText } from '../netlist';
import { ok, refuse } from '../problem';
import type { Problem, Result } from '../problem';
import type { Fault } from './fault';

export type BadFault = Problem<'bad-fault', { readonly text: string }>;

const SHAPE = /^([^\s:.]+)(?:\.([^\s:]+))?:([a-z]+)(?:\(([^,()]+),([^,()]+)\))?(?:=(\S+))?$/iu;

/** Reads `REF:MODE`, `REF.PIN:open` or `REF:MODE=VALUE` and checks it against the board. Refuses with `bad-fault`. */
export function parseFault(board: Board, text: string): Result<Fault, BadFault> {
  const match = SHAPE.exec(text.trim());
  if (!match) return refuse(bad(text, 'is not written as a fault'));
  const [, refText = '', pin, modeText = '', p, q, valueText] = match;
  const part = findPart(board, refText);
  if (!part) return refuse(bad(text, `names ${refText}, which is not on this board`));
  if (!part.fitted) return refuse(bad(text, `names ${part.ref}, which is not fitted`));
  for (const name of [pin, p, q]) {
    if (name !== undefined && pinIndex(board, part, name.trim()) < 0) {
      return refuse(bad(text, `names pin ${name}, but ${part.ref} has ${pinNames(part).join(' ')}`));
    }
  }
  const number = valueText === undefined ? null : netlistNumber(valueText);
  if (valueText !== undefined && (number === null || number < 0))
    return refuse(bad(text, `has the value ${valueText}`));
  const pins = p !== undefined && q !== undefined ? ([p.trim(), q.trim()] as const) : undefined;
  return build(text, part, modeText.toLowerCase(), pin, pins, number);
}

function build(
  text: string,
  part: Part,
  mode: string,
  pin: string | undefined,
  pins: readonly [string, string] | undefined,
  number: number | null,
): Result<Fault, BadFault> {
  const ref = part.ref;
  if (pin !== undefined && mode !== 'open') return refuse(bad(text, 'names a pin, which only open can'));
  if (mode === 'open') return ok(pin === undefined ? { kind: 'open', ref } : { kind: 'open', ref, pin });
  if (mode === 'short') return ok(pins ? { kind: 'short', ref, pins } : { kind: 'short', ref });
  if (number === null) return refuse(bad(text, 'has no known mode, or lacks its value'));
  if (mode === 'value') {
    const drifts = part.kind === 'resistor' || part.kind === 'capacitor' || part.kind === 'inductor';
    return drifts ? ok({ kind: 'value', ref, value: number }) : refuse(bad(text, 'drifts, but only R, C and L can'));
  }
  if (mode === 'esr') {
    return part.kind === 'capacitor' ? ok({ kind: 'esr', ref, ohms: number }) : refuse(bad(text, 'is no capacitor'));
  }
  if (mode !== 'leak') return refuse(bad(text, `has the unknown mode ${mode}`));
  if (!pins && pinNames(part).length !== 2) return refuse(bad(text, 'must name the two leaking pins'));
  return ok(pins ? { kind: 'leak', ref, ohms: number, pins } : { kind: 'leak', ref, ohms: number });
}

/** Writes a fault in the notation of the contract. */
export function formatFault(fault: Fault): string {
  const head = fault.kind === 'open' && fault.pin !== undefined ? `${fault.ref}.${fault.pin}` : fault.ref;
  const pins = 'pins' in fault && fault.pins ? `(${fault.pins.join(',')})` : '';
  const value = fault.kind === 'value' ? fault.value : 'ohms' in fault ? fault.ohms : null;
  return `${head}:${fault.kind}${pins}${value === null ? '' : `=${netlistText(value)}`}`;
}

function bad(text: string, what: string): BadFault {
  return {
    code: 'bad-fault',
    sentence: `The fault “${text}” ${what}.`,
    remedy: 'Write REF:open, REF:short(p,q), REF:value=4.7k, REF:esr=1 or REF:leak=470.',
    details: { text },
  };
}

/** The faults of a label, joined by `+`, as far as they are faults of this board; words that name none are left out. */
export function parseFaults(board: Board, label: string): readonly Fault[] {
  return label.split('+').flatMap((text) => {
    const fault = parseFault(board, text);
    return fault.ok ? [fault.value] : [];
  });
}
