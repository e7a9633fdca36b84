import { findPart } from '../circuit';
import type { Board } from '../circuit';
import { formatQuantity } from '../quantity';
import { assertNever } from '../problem';
import type { Fault } from './fault';
import { parseFault } from './parseFault';

const PIN_WORDS: Readonly<Record<string, string>> = {
  d: 'drain',
  g: 'gate',
  s: 'source',
  c: 'collector',
  b: 'base',
  e: 'emitter',
  a: 'anode',
  k: 'cathode',
  ac1: 'first AC leg',
  ac2: 'second AC leg',
  plus: 'plus',
  minus: 'minus',
  com: 'common',
  no: 'contact',
};

/** A fault, or several joined by `+`, in the trade's words: `M1 shorted drain to source, and F1 open`. */
export function faultWords(board: Board, label: string): string {
  if (label === 'none') return 'nothing these readings can see';
  const words = label.split('+').map((text) => {
    const parsed = parseFault(board, text);
    return parsed.ok ? single(board, parsed.value) : text;
  });
  return words.length < 2 ? (words[0] ?? label) : `${words.slice(0, -1).join(', ')}, and ${words.at(-1)}`;
}

function single(board: Board, fault: Fault): string {
  const part = findPart(board, fault.ref);
  const pins = 'pins' in fault && fault.pins ? ` ${fault.pins.map((p) => pinWords(p)).join(' to ')}` : '';
  switch (fault.kind) {
    case 'open':
      return fault.pin === undefined ? `${fault.ref} open` : `${fault.ref} ${pinWords(fault.pin)} open`;
    case 'short':
      return `${fault.ref} shorted${pins}`;
    case 'leak':
      return `${fault.ref} leaking${pins}`;
    case 'esr':
      return `${fault.ref} dried out`;
    case 'value': {
      const unit = part?.kind === 'capacitor' ? 'F' : part?.kind === 'inductor' ? 'H' : 'ohm';
      const was = part && 'value' in part ? part.value : 0;
      return `${fault.ref} ${fault.value > was ? 'gone high' : 'gone low'}, to about ${formatQuantity(fault.value, unit, 2)}`;
    }
    default:
      return assertNever(fault);
  }
}

function pinWords(pin: string): string {
  return PIN_WORDS[pin] ?? (/^\d+$/u.test(pin) ? `pin ${pin}` : pin);
}
