import { netKey, pinNames } from '../circuit';
import type { Board } from '../circuit';
import { partFigure, isFuse } from '../part';
import type { Part } from '../part';
import { formatFault, parseFault } from '../fault';
import type { Fault } from '../fault';
import { invariant } from '../problem';
import { netlistText } from '../netlist';
import { complaintFactors } from './complaint';
import type { KnownSigns } from './complaint';
import { failureKind } from './failureKind';
import { FAULT_MODES } from './faultModes';
import type { FailureKind } from './faultModes';
import { LINKED_FAULTS } from './linkedFaults';
import { takenFaults, triggerRole } from './partRoles';
import { findPowerPath, shortsPower } from '../stages';
import type { PowerPath } from '../stages';
import { KIND_WEIGHTS, NONE_WEIGHT, SYMPTOM_FACTORS } from './priors';
import type { Symptom } from './priors';
import { referencePin } from './probePairs';

/**
 * One thing that may be wrong with the board: nothing, a single fault, or a linked set.
 *
 * label        faults in the contract's notation joined by `+`; `none` for nothing.
 * weight       prior weight, not normalised.
 * short        whether it is a short in the supply's path (`input`) or across an output.
 */
export interface Hypothesis {
  readonly label: string;
  readonly faults: readonly Fault[];
  readonly weight: number;
  readonly short: 'input' | 'output' | null;
  readonly why: string;
}

interface Draft {
  readonly part: Part;
  readonly kind: FailureKind;
  readonly fault: Fault;
  readonly share: number;
  readonly why: string;
}

/**
 * All hypotheses about a board: `none` first, single faults by kind of part, then linked ones.
 *
 * symptoms  reweigh them; at most a few.
 * known     what the unit would show with each fault, as far as it was worked out: weighs in place of the table by kind.
 */
export function listHypotheses(
  board: Board,
  symptoms: readonly Symptom[] = [],
  known: KnownSigns = new Map(),
): readonly Hypothesis[] {
  const path = findPowerPath(board);
  const singles = singleFaults(board);
  const kindTotals = new Map<FailureKind, number>();
  for (const d of singles) kindTotals.set(d.kind, (kindTotals.get(d.kind) ?? 0) + d.share);
  const out: Hypothesis[] = [
    { label: 'none', faults: [], weight: NONE_WEIGHT, short: null, why: 'nothing on this board is broken' },
  ];
  const kinds = new Map<string, readonly [FailureKind, boolean]>();
  for (const d of singles) {
    const short = shortsPower(board, path, d.part, d.fault);
    const weight = (KIND_WEIGHTS[d.kind].weight * d.share) / kindTotals.get(d.kind)!;
    const label = formatFault(d.fault);
    const made: Hypothesis = { label, faults: [d.fault], weight, short, why: d.why };
    const linked = linkedFaults(board, path, d.part, made);
    const kept = linked.length > 0 ? weight * 0.3 : weight;
    const linkedTotal = linked.reduce((sum, h) => sum + h.weight, 0);
    kinds.set(label, [d.kind, isFuse(d.part)]);
    out.push({ ...made, weight: kept });
    for (const h of linked) {
      kinds.set(h.label, [d.kind, true]);
      out.push({ ...h, weight: (0.7 * weight * h.weight) / linkedTotal });
    }
  }
  if (symptoms.length === 0) return out;
  const factors = complaintFactors(out, symptoms, known);
  return out.map((h) => {
    const computed = factors.get(h.label);
    if (computed !== undefined) return { ...h, weight: h.weight * computed };
    const kind = kinds.get(h.label);
    return kind ? weigh(h, kind[0], kind[1], symptoms) : h;
  });
}

function weigh(h: Hypothesis, kind: FailureKind, fuseOpen: boolean, symptoms: readonly Symptom[]): Hypothesis {
  let weight = h.weight;
  for (const symptom of symptoms) {
    const factors = SYMPTOM_FACTORS[symptom];
    weight *= factors[kind] ?? 1;
    if (h.short === 'input') weight *= factors.powerShort ?? 1;
    if (fuseOpen) weight *= factors.fuseOpen ?? 1;
  }
  return { ...h, weight };
}

function singleFaults(board: Board): readonly Draft[] {
  const out: Draft[] = [];
  for (const part of board.parts) {
    const kind = part.fitted ? failureKind(board, part) : null;
    if (kind === null) continue;
    for (const mode of FAULT_MODES[kind]) {
      const texts = modeTexts(board, part, mode.mode);
      for (const text of texts) {
        const parsed = parseFault(board, text);
        invariant(parsed.ok, `fault table makes ${text}`);
        out.push({ part, kind, fault: parsed.value, share: mode.share / texts.length, why: mode.why });
      }
    }
  }
  return out;
}

/** Spells a mode of the fault table out for one part. */
function modeTexts(board: Board, part: Part, mode: string): readonly string[] {
  const names = pinNames(part);
  const ref = part.ref;
  const scaled = /^value=x([\d.]+)$/u.exec(mode);
  if (scaled && 'value' in part)
    return part.value > 0 ? [`${ref}:value=${netlistText(part.value * Number(scaled[1]))}`] : [];
  if (mode === 'esr=x20') return [`${ref}:esr=${netlistText(Math.max(1, 20 * (partFigure(part, 'seriesOhms') ?? 0)))}`];
  const [head = '', rest = ''] = mode.split(':');
  if (head === 'PIN') return connectedPins(part).map((i) => `${ref}.${names[i]}:open`);
  if (head === 'REFPAIR') {
    const reference = referencePin(board, part);
    return pinPairs(part, (i, j) => i === reference || j === reference).map((pair) => withPins(ref, rest, pair));
  }
  if (head === 'PAIR') {
    const reference = part.kind === 'ic' ? referencePin(board, part) : -1;
    const near = (i: number, j: number): boolean => part.nets.length <= 8 || j - i === 1;
    return pinPairs(part, (i, j) => near(i, j) && i !== reference && j !== reference).map((pair) =>
      withPins(ref, rest, pair),
    );
  }
  if (rest !== '') return names.includes(head) ? [`${ref}.${head}:${rest}`] : [];
  return [`${ref}:${mode}`];
}

function connectedPins(part: Part): readonly number[] {
  return part.nets.flatMap((net, i) => (netKey(net) === 'nc' ? [] : [i]));
}

function pinPairs(part: Part, wanted: (i: number, j: number) => boolean): readonly (readonly [string, string])[] {
  const names = pinNames(part);
  const pins = connectedPins(part);
  return pins.flatMap((i) =>
    pins
      .filter((j) => j > i && wanted(i, j) && netKey(part.nets[i]!) !== netKey(part.nets[j]!))
      .map((j) => [names[i]!, names[j]!] as const),
  );
}

function withPins(ref: string, mode: string, [p, q]: readonly [string, string]): string {
  const [name = '', value] = mode.split('=');
  return `${ref}:${name}(${p},${q})${value === undefined ? '' : `=${value}`}`;
}

/** Combinations of a shorting fault with what it takes along: each alone, and each together with the fuse. */
function linkedFaults(board: Board, path: PowerPath, part: Part, single: Hypothesis): readonly Hypothesis[] {
  const fault = single.faults[0]!;
  const role = triggerRole(board, path, part);
  const rule = LINKED_FAULTS.find((r) => r.trigger === role);
  const shorts = fault.kind === 'short' && !(fault.pins && fault.pins.includes('g') && !fault.pins.includes('d'));
  if (!rule || !shorts) return [];
  const taken = rule.takes
    .map((t) => ({ ...t, faults: takenFaults(board, path, part, t.role, t.mode).filter((f) => f.ref !== part.ref) }))
    .filter((t) => t.faults.length > 0);
  const fuse = taken.find((t) => t.role === 'fuse');
  const out: Hypothesis[] = taken.map((t) => combine(single, t.faults, t.share));
  if (fuse) {
    for (const t of taken)
      if (t !== fuse) out.push(combine(single, [...fuse.faults, ...t.faults], fuse.share * t.share * 2));
  }
  // A hard one takes everything along.
  if (role === 'switch' && taken.length > 2)
    out.push(
      combine(
        single,
        taken.flatMap((t) => t.faults),
        ALL_TAKEN_SHARE,
      ),
    );
  return out;
}

/** Share of the cases in which all that may go along does. */
const ALL_TAKEN_SHARE = 0.08;

function combine(single: Hypothesis, more: readonly Fault[], share: number): Hypothesis {
  return {
    label: [single.label, ...more.map(formatFault)].join('+'),
    faults: [...single.faults, ...more],
    weight: share,
    short: single.short,
    why: `${single.why}; ${more.map((f) => f.ref).join(' and ')} went with it`,
  };
}
