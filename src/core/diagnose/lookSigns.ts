import { findPart } from '../circuit';
import type { Board } from '../circuit';
import { recogniseStages } from '../stages';
import type { StageKind } from '../stages';
import type { Hypothesis } from './hypotheses';

export type Severity = 'note' | 'doubt' | 'fault' | 'danger';

/** One sign of the inspection: what is seen, how grave it usually is, and where it is looked for. */
export interface LookSign {
  readonly words: string;
  readonly severity: Severity;
  readonly stages: readonly StageKind[];
  /** A sign about a part's safety or workmanship says little about what is broken. */
  readonly speaksOfFault: boolean;
}

const sign = (words: string, severity: Severity, stages: readonly StageKind[], speaksOfFault = true): LookSign => ({
  words,
  severity,
  stages,
  speaksOfFault,
});

/** What is looked for on a board, the checklist of *Look*. */
export const LOOK_SIGNS: readonly LookSign[] = [
  sign('bulged or burst', 'fault', ['bulk', 'output-filter', 'aux-supply']),
  sign('charred or burnt', 'fault', [
    'switch',
    'clamp',
    'current-sense',
    'startup',
    'mains-input',
    'pfc',
    'inverter-bridge',
  ]),
  sign('cracked joint', 'doubt', ['connector', 'transformer', 'switch', 'mains-input']),
  sign('cracked body', 'fault', ['surge', 'inrush', 'switch', 'pfc', 'clamp']),
  sign('discoloured wire or board', 'doubt', ['output-rectifier', 'switch', 'discharge', 'startup']),
  sign('fuse glass blackened', 'fault', ['mains-input', 'protection']),
  sign('insects or their remains', 'note', ['mains-input', 'controller'], false),
  sign('moisture or corrosion', 'doubt', ['controller', 'feedback', 'connector', 'sensing']),
  sign('electrolytic next to a hot part', 'doubt', ['aux-supply', 'output-filter']),
  sign('looks counterfeit', 'doubt', ['switch', 'bulk', 'controller', 'output-filter']),
  sign('repaired before', 'doubt', ['switch', 'controller', 'feedback']),
  sign('strain relief missing', 'danger', ['mains-input', 'connector'], false),
  sign('thin spacing at the barrier', 'danger', ['barrier', 'transformer', 'feedback'], false),
  sign('metal of the case not earthed', 'danger', ['mains-input', 'emi-filter'], false),
  sign('outlet without a fuse', 'danger', ['connector', 'output-filter'], false),
  sign('a phase or leg that nothing senses', 'danger', ['sensing', 'current-sense', 'inverter-bridge'], false),
];

/** How many times likelier each severity makes a fault of the part that it was seen on. */
export const SEVERITY_FACTORS: Readonly<Record<Severity, number>> = { note: 1.5, doubt: 3, fault: 10, danger: 3 };
/** The parts of a stage that a finding names without naming a part share this. */
const STAGE_FACTOR = 2;

/** A finding of *Look* as the ledger holds it: a place in words, with designators or a stage's name in it. */
export interface Finding {
  readonly place: string;
  readonly severity: Severity;
  readonly words: string;
}

/**
 * How findings change the odds: a factor for each hypothesis, by the parts that the findings name. A finding that
 * names a stage alone speaks for all its parts, more weakly; one about safety alone changes nothing.
 */
export function lookFactors(
  board: Board,
  hypotheses: readonly Hypothesis[],
  findings: readonly Finding[],
): Float64Array {
  const factor = new Map<string, number>();
  const raise = (ref: string, by: number): void =>
    void factor.set(ref.toLowerCase(), Math.min(30, (factor.get(ref.toLowerCase()) ?? 1) * by));
  const told = findings.filter((f) => LOOK_SIGNS.find((s) => s.words === f.words)?.speaksOfFault ?? true);
  const stages = told.length === 0 ? [] : recogniseStages(board).stages;
  for (const { place, severity } of told) {
    const refs = [
      ...new Set((place.match(/[A-Za-z]+\d+[A-Za-z]*/gu) ?? []).flatMap((word) => findPart(board, word)?.ref ?? [])),
    ];
    for (const ref of refs) raise(ref, SEVERITY_FACTORS[severity]);
    if (refs.length > 0) continue;
    const named = stages.filter((s) => place.toLowerCase().includes(s.kind.replaceAll('-', ' ')));
    for (const ref of named.flatMap((s) => s.parts)) raise(ref, STAGE_FACTOR);
  }
  return Float64Array.from(hypotheses, (h) =>
    Math.max(1, ...h.faults.map((f) => factor.get(f.ref.toLowerCase()) ?? 1)),
  );
}
