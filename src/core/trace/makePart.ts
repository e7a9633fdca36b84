import { pinNames } from '../circuit';
import type { BLOCK_PINS } from '../circuit';
import type { KeyText, Model, Part, PartKind } from '../part';
import { decodeMarking } from '../marking';
import type { MarkKind, RankedReading } from '../marking';
import { NUMERIC_KEYS, netlistNumber, netlistText } from '../netlist';
import { parseQuantity } from '../quantity';
import { BASES } from '../quantity';
import type { Basis, Unit } from '../quantity';
import type { Fact } from './fact';
import { genericModel } from './genericModels';

type PartFact = Extract<Fact, { kind: 'part' }>;

/** What a part of each kind is taken to be while nothing is printed on it. */
const ASSUMED: Partial<Record<PartKind, { readonly value: number; readonly unit: Unit }>> = {
  resistor: { value: 10e3, unit: 'ohm' },
  capacitor: { value: 100e-9, unit: 'F' },
  inductor: { value: 1e-3, unit: 'H' },
};
const MARKS: Partial<Record<PartKind, readonly MarkKind[]>> = {
  resistor: ['resistor'],
  capacitor: ['capacitor'],
  inductor: ['inductor'],
  diode: ['diode', 'schottky', 'zener', 'tvs'],
  bridge: ['bridge'],
  mosfet: ['mosfet', 'igbt'],
  bjt: ['mosfet', 'igbt'],
  regulator: ['regulator'],
  ntc: ['ntc'],
  mov: ['mov'],
  fuse: ['fuse'],
};
const BASE_KEYS = new Set(['mark', 'basis', 'vr', 'ir', 'pr', 'tol', 'fit']);

/** A part as a line of the shorthand says it, its nets to be filled in; with the model that it needs, if any. */
export interface MadePart {
  readonly part: Part;
  readonly model: Model | null;
}

/**
 * Makes or changes a part from a line: what is printed is decoded (`seen`), what is missing keeps what was known
 * before, or is assumed. `pins` is how many pins it has; their nets are empty names here.
 */
export function makePart(fact: PartFact, before: Part | undefined, pins: number): MadePart {
  const kind = settleKind(fact, before);
  const reading = readingOf(kind, fact.mark);
  const said = fact.keys.find((k) => k.key === 'is')?.text;
  const chosen = said === undefined ? null : netlistNumber(said);
  const typed = chosen ?? (fact.mark === null ? null : typedValue(kind, fact.mark));
  const known = fact.mark !== null;
  const word = fact.keys.find((k) => k.key === 'basis')?.text;
  const stated = BASES.find((b) => b === word);
  const basis: Basis = stated ?? (known ? 'seen' : before ? before.basis : fact.keys.length > 0 ? 'seen' : 'assumed');
  const sameKind = before?.kind === kind ? before : undefined;
  const keys = mergeKeys(sameKind?.keys ?? [], [...ratingKeys(reading), ...typedKeys(fact, typed !== null)], basis);
  const numbers: Record<string, number> = { ...sameKind?.numbers };
  for (const { key, text } of keys) {
    const figure = text.endsWith('%') ? netlistNumber(text.slice(0, -1)) : netlistNumber(text);
    if (figure !== null && NUMERIC_KEYS.has(key)) numbers[key] = text.endsWith('%') ? figure / 100 : figure;
  }
  const nets = Array.from({ length: pins }, (_, i) => sameKind?.nets[i] ?? `${fact.ref}.${i + 1}`);
  const common = { ref: fact.ref, nets, keys, numbers, fitted: true, basis };
  switch (kind) {
    case 'resistor':
    case 'capacitor':
    case 'inductor': {
      const value =
        typed ??
        reading?.value ??
        turnsValue(keys) ??
        (sameKind && 'value' in sameKind ? sameKind.value : ASSUMED[kind]!.value);
      return { part: { ...common, kind, value, valueText: netlistText(value) }, model: null };
    }
    case 'diode':
    case 'bjt':
    case 'mosfet': {
      const type = fact.keys.find((k) => k.key === 'type')?.text ?? null;
      if (fact.mark === null && type === null && sameKind && 'model' in sameKind)
        return { part: { ...common, kind, model: sameKind.model }, model: null };
      const model = genericModel(kind, fact.mark, kind === 'mosfet' && reading?.kind === 'igbt' ? 'igbt' : type);
      return { part: { ...common, kind, model: model.name }, model };
    }
    case 'ic': {
      const name = (fact.mark ?? (sameKind?.kind === 'ic' ? sameKind.subcircuit : `UNKNOWN-${fact.ref}`)).replace(
        /\s+/gu,
        '-',
      );
      return { part: { ...common, kind, subcircuit: name }, model: null };
    }
    case 'voltage-source':
    case 'current-source':
      return { part: { ...common, kind, value: 0, valueText: '0' }, model: null };
    default:
      return {
        part: { ...common, kind, ...blockNumbers(kind, keys, numbers, typed ?? reading?.value ?? null) },
        model: null,
      };
  }
}

/** A Q whose marking is a MOSFET's is one; otherwise the kind said or known before. */
function settleKind(fact: PartFact, before: Part | undefined): PartKind {
  const said = (fact.kindSaid ? fact.partKind : (before?.kind ?? fact.partKind)) ?? 'ic';
  if (said !== 'bjt' || fact.mark === null) return said;
  const found = readingOf('mosfet', fact.mark);
  return found ? 'mosfet' : said;
}

function readingOf(kind: PartKind, mark: string | null): RankedReading | undefined {
  const kinds = MARKS[kind];
  return mark === null || !kinds ? undefined : readingsOf(mark).find((r) => kinds.includes(r.kind));
}

const decoded = new Map<string, readonly RankedReading[]>();
const MOST_DECODED = 5000;

/** A board is derived again with every fact: its markings are read once. */
function readingsOf(mark: string): readonly RankedReading[] {
  const known = decoded.get(mark) ?? decodeMarking(mark);
  if (decoded.size >= MOST_DECODED) decoded.clear();
  decoded.set(mark, known);
  return known;
}

const UNITS: Partial<Record<PartKind, Unit>> = {
  resistor: 'ohm',
  capacitor: 'F',
  inductor: 'H',
  ntc: 'ohm',
  lamp: 'ohm',
  relay: 'ohm',
};

/** Beyond this a figure is no farads or henries. */
const LARGEST: Partial<Record<Unit, number>> = { F: 100, H: 1000 };

/** A value written out (`4k7`, `180uF 450V`, `22u`), as against a code printed on the part (`103`). */
function typedValue(kind: PartKind, mark: string): number | null {
  const unit = UNITS[kind];
  const [first = ''] = mark.split(/[\s/]+/u);
  if (unit === undefined || /^\d+$/u.test(first)) return null;
  // `104K` on a capacitor is a code with its tolerance; there are no kilofarads.
  if ((unit === 'F' || unit === 'H') && /^\d{3}[A-Z]$/iu.test(first)) return null;
  const read = parseQuantity(first);
  if (!read.ok || (read.value.unit !== null && read.value.unit !== unit)) return null;
  return read.value.value <= (LARGEST[unit] ?? Infinity) ? read.value.value : null;
}

function typedKeys(fact: PartFact, typed: boolean): readonly KeyText[] {
  const keys: KeyText[] = fact.mark === null ? [] : [{ key: 'mark', text: fact.mark.replace(/"/gu, '″') }];
  const volts =
    typed && !fact.keys.some((k) => k.key === 'vr')
      ? /[\s/](\d+(?:\.\d+)?)\s*V\b/iu.exec(fact.mark ?? '')?.[1]
      : undefined;
  if (volts !== undefined) keys.push({ key: 'vr', text: volts });
  if (fact.core !== null) keys.push({ key: 'pkg', text: fact.core });
  const turns = fact.core === null ? undefined : /^(\d+)t$/iu.exec(fact.mark ?? '')?.[1];
  if (turns !== undefined) keys.push({ key: 'turns', text: turns });
  // Somebody said what the value is: its marking is no riddle any more.
  if (fact.keys.some((k) => k.key === 'is')) keys.push({ key: 'said', text: 'value' });
  return [...keys, ...fact.keys.filter((k) => k.key !== 'is' && k.key !== 'basis')];
}

/** Inductance per turn squared of a middling core, for windings of which only the turns are known: 250 nH. */
const TURN_HENRIES = 250e-9;

function turnsValue(keys: readonly KeyText[]): number | null {
  const turns = Number(keys.find((k) => k.key === 'turns')?.text ?? NaN);
  return Number.isFinite(turns) && turns > 0 ? TURN_HENRIES * turns * turns : null;
}

function ratingKeys(reading: RankedReading | undefined): readonly KeyText[] {
  if (!reading) return [];
  const keys: KeyText[] = [];
  if (reading.tolerance !== null)
    keys.push({ key: 'tol', text: `${Number((reading.tolerance * 100).toPrecision(3))}%` });
  if (reading.voltage !== null) keys.push({ key: 'vr', text: netlistText(reading.voltage) });
  if (reading.current !== null) keys.push({ key: 'ir', text: netlistText(reading.current) });
  if (reading.kind === 'zener' || reading.kind === 'tvs')
    keys.push({ key: 'pr', text: reading.kind === 'tvs' ? '5' : '0.5' });
  return keys;
}

function mergeKeys(before: readonly KeyText[], after: readonly KeyText[], basis: Basis): readonly KeyText[] {
  const merged = new Map(before.map((k) => [k.key.toLowerCase(), k] as const));
  for (const k of after) merged.set(k.key.toLowerCase(), k);
  merged.delete('fit');
  merged.set('basis', { key: 'basis', text: basis });
  const order = [...merged.values()];
  return [...order.filter((k) => BASE_KEYS.has(k.key)), ...order.filter((k) => !BASE_KEYS.has(k.key))];
}

/** Ohms that a block part must have: of an NTC, a lamp, a relay's coil. */
function blockNumbers(
  kind: keyof typeof BLOCK_PINS,
  keys: readonly KeyText[],
  numbers: Readonly<Record<string, number>>,
  value: number | null,
): Pick<Part, 'keys' | 'numbers'> {
  const needed = (
    { ntc: ['r25', 5], lamp: ['r', 1000], relay: ['rcoil', 300], fuse: ['ir', null] } as Partial<
      Record<string, readonly [string, number | null]>
    >
  )[kind];
  if (!needed) return { keys, numbers };
  const [key, fallback] = needed;
  const figure = value ?? numbers[key] ?? fallback;
  if (figure === null) return { keys, numbers };
  return {
    keys: [...keys.filter((k) => k.key !== key), { key, text: netlistText(figure) }],
    numbers: { ...numbers, [key]: figure },
  };
}

/** The number of a pin by any of its names; -1 when the part has none. */
export function pinNumber(part: Part, name: string | number): number {
  if (typeof name === 'number') return name <= part.nets.length ? name - 1 : -1;
  const names = pinNames(part).map((n) => n.toLowerCase());
  const wanted = name.toLowerCase();
  const own = names.indexOf(wanted);
  if (own >= 0) return own;
  const short: Readonly<Record<string, readonly string[]>> = {
    '+': ['plus'],
    plus: ['1'],
    minus: ['2'],
    c: ['d', 'c'],
    e: ['s', 'e'],
  };
  const other = short[wanted]?.map((n) => names.indexOf(n)).find((i) => i >= 0);
  if (other !== undefined) return other;
  const index = Number(wanted);
  return Number.isInteger(index) && index >= 1 && index <= part.nets.length ? index - 1 : -1;
}
