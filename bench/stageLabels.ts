import type { Board } from '@/core/circuit';
import type { StageMap } from '@/core/stages';

/** The labels of a board: the stage of every part, and other kinds that count as right too. */
export interface StageLabels {
  readonly topology: string;
  readonly topology_alt?: readonly string[];
  readonly stages: readonly { readonly kind: string; readonly parts: readonly string[] }[];
  readonly alt: Readonly<Record<string, readonly string[]>>;
  readonly pins: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly pins_alt?: Readonly<Record<string, Readonly<Record<string, readonly string[]>>>>;
}

export interface Labelled {
  readonly board: Board;
  readonly labels: StageLabels;
}

export interface StageScore {
  readonly right: number;
  readonly wrong: readonly { readonly ref: string; readonly expected: string; readonly found: string | null }[];
  readonly f1: number;
}

/** Whether a topology is the one that is labelled, or one that counts as right too. */
export function sameTopology(topology: string, labels: StageLabels): boolean {
  return topology === labels.topology || (labels.topology_alt?.includes(topology) ?? false);
}

/** Micro-F1 over (part, stage kind): instances of a kind pooled, an unplaced part is a miss. */
export function scoreStages(map: StageMap, labels: StageLabels): StageScore {
  const found = new Map(map.stages.flatMap((s) => s.parts.map((ref) => [ref, s.kind] as const)));
  const wrong: { ref: string; expected: string; found: string | null }[] = [];
  let [right, extra, missed] = [0, 0, 0];
  for (const { kind, parts } of labels.stages) {
    for (const ref of parts) {
      const got = found.get(ref) ?? null;
      if (got === kind || (got !== null && labels.alt[ref]?.includes(got))) right++;
      else {
        missed++;
        if (got !== null) extra++;
        wrong.push({ ref, expected: kind, found: got });
      }
    }
  }
  return { right, wrong, f1: (2 * right) / (2 * right + extra + missed) };
}

/** Pins whose role is right, of those that are labelled with one. */
export function scorePins(map: StageMap, labels: StageLabels): { right: number; of: number; wrong: string[] } {
  let [right, of] = [0, 0];
  const wrong: string[] = [];
  for (const [ref, pins] of Object.entries(labels.pins)) {
    for (const [pin, role] of Object.entries(pins)) {
      if (role === 'UNKNOWN') continue;
      of++;
      const got = map.pins[ref]?.find((p) => p.pin === pin)?.role ?? 'missing';
      if (got === role || labels.pins_alt?.[ref]?.[pin]?.includes(got)) right++;
      else wrong.push(`${ref}.${pin} ${role} read as ${got}`);
    }
  }
  return { right, of, wrong };
}

/** Labels of a board whose parts have other names now, became several, or went. */
export function relabel(labels: StageLabels, to: (ref: string) => readonly string[]): StageLabels {
  const keyed = <T>(record: Readonly<Record<string, T>> | undefined): Record<string, T> =>
    Object.fromEntries(Object.entries(record ?? {}).flatMap(([ref, v]) => to(ref).map((r) => [r, v] as const)));
  return {
    ...labels,
    stages: labels.stages.map((s) => ({ kind: s.kind, parts: s.parts.flatMap(to) })),
    alt: keyed(labels.alt),
    pins: keyed(labels.pins),
    pins_alt: keyed(labels.pins_alt),
  };
}

/** The kind that a part is labelled with. */
export function kindOf(labels: StageLabels, ref: string): string | undefined {
  return labels.stages.find((s) => s.parts.includes(ref))?.kind;
}
