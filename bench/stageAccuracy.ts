import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { Part } from '@/core/part';
import { seededRandom } from '@/core/quantity';
import { recogniseStages } from '@/core/stages';
import type { StageMap } from '@/core/stages';

/** The labels of an example board: the stage of every part, and other kinds that count as right too. */
export interface StageLabels {
  readonly topology: string;
  readonly stages: readonly { readonly kind: string; readonly parts: readonly string[] }[];
  readonly alt: Readonly<Record<string, readonly string[]>>;
  readonly pins: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly pins_alt?: Readonly<Record<string, Readonly<Record<string, readonly string[]>>>>;
}

export interface StageScore {
  readonly right: number;
  readonly wrong: readonly { readonly ref: string; readonly expected: string; readonly found: string | null }[];
  readonly f1: number;
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

export const DISTURBANCES = ['renamed', 'shuffled', 'split', 'thinned', 'four diodes'] as const;
export type Disturbance = (typeof DISTURBANCES)[number];

interface Labelled {
  readonly board: Board;
  readonly labels: StageLabels;
}

/** One disturbed variant of a board, its labels following: seeded, the same every time. */
export function disturb({ board, labels }: Labelled, kind: Disturbance, seed: number): Labelled {
  const random = seededRandom(1000 * DISTURBANCES.indexOf(kind) + seed);
  switch (kind) {
    case 'renamed':
      return renamed(board, labels, random);
    case 'shuffled':
      return {
        board: {
          ...board,
          parts: shuffled(board.parts, random),
          couplings: shuffled(board.couplings, random),
          layout: [],
        },
        labels,
      };
    case 'split':
      return split(board, labels, random);
    case 'thinned':
      return thinned(board, labels, random);
    case 'four diodes':
      return fourDiodes(renamed(board, labels, random));
  }
}

function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const out = [...list];
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [out[i], out[j]] = [out[j]!, out[i]!];
  }
  return out;
}

function renamed(board: Board, labels: StageLabels, random: () => number): Labelled {
  const names = new Map<string, string>();
  const fresh = (prefix: string): string => `${prefix}${Math.floor(random() * 1e9).toString(36)}`;
  const net = (name: string): string => {
    if (netKey(name) === 'nc') return name;
    if (!names.has(netKey(name))) names.set(netKey(name), fresh('n'));
    return names.get(netKey(name))!;
  };
  const refs = new Map(board.parts.map((p) => [p.ref.toLowerCase(), fresh('P')]));
  const ref = (name: string): string => refs.get(name.toLowerCase())!;
  const parts = board.parts.map((p) => ({ ...p, ref: ref(p.ref), nets: p.nets.map(net) }));
  const couplings = board.couplings.map((k) => ({
    ...k,
    name: fresh('K'),
    first: ref(k.first),
    second: ref(k.second),
  }));
  return {
    board: { ...board, parts, couplings, layout: [] },
    labels: relabel(labels, (r) => [ref(r)]),
  };
}

function relabel(labels: StageLabels, to: (ref: string) => readonly string[]): StageLabels {
  const keyed = <T>(record: Readonly<Record<string, T>> | undefined): Record<string, T> =>
    Object.fromEntries(Object.entries(record ?? {}).flatMap(([ref, v]) => to(ref).map((r) => [r, v] as const)));
  return {
    topology: labels.topology,
    stages: labels.stages.map((s) => ({ kind: s.kind, parts: s.parts.flatMap(to) })),
    alt: keyed(labels.alt),
    pins: keyed(labels.pins),
    pins_alt: keyed(labels.pins_alt),
  };
}

/** A quarter of the resistors, capacitors, diodes and fuses become two, in series or in parallel. */
function split(board: Board, labels: StageLabels, random: () => number): Labelled {
  const twins = new Map<string, string>();
  const parts = board.parts.flatMap((p): readonly Part[] => {
    const splits = ['resistor', 'capacitor', 'diode', 'fuse'].includes(p.kind) && p.fitted && random() < 0.25;
    if (!splits) return [p];
    const twin = `${p.ref}_2`;
    twins.set(p.ref, twin);
    const series = random() < 0.5;
    const scale = p.kind === 'capacitor' ? (series ? 2 : 0.5) : series ? 0.5 : 2;
    const value = 'value' in p ? { value: p.value * scale, valueText: String(p.value * scale) } : {};
    const [a, b] = p.nets as [string, string];
    const mid = series ? `${p.ref}_mid` : null;
    return [
      { ...p, ...value, nets: [a, mid ?? b] },
      { ...p, ...value, ref: twin, nets: [mid ?? a, b] },
    ] as readonly Part[];
  });
  return {
    board: { ...board, parts, layout: [] },
    labels: relabel(labels, (r) => (twins.has(r) ? [r, twins.get(r)!] : [r])),
  };
}

const OPTIONAL = ['surge', 'clamp', 'indicator', 'discharge'];

/** Optional stages left out, each with even odds; of two filters in a row the second. */
function thinned(board: Board, labels: StageLabels, random: () => number): Labelled {
  const gone = new Set(OPTIONAL.filter(() => random() < 0.5));
  const dropped = new Set(labels.stages.filter((s) => gone.has(s.kind)).flatMap((s) => s.parts));
  let parts: readonly Part[] = board.parts.filter((p) => !dropped.has(p.ref));
  if (random() < 0.5) {
    const second = secondFilter(board, labels);
    for (const ref of second) {
      const part = parts.find((p) => p.ref === ref);
      if (!part) continue;
      dropped.add(ref);
      const [keep, merge] = part.nets.map(netKey) as [string, string];
      const kept = part.nets[0]!;
      parts = parts
        .filter((p) => p.ref !== ref)
        .map((p) => ({ ...p, nets: p.nets.map((n) => (netKey(n) === merge || netKey(n) === keep ? kept : n)) }));
    }
  }
  const refs = new Set(parts.map((p) => p.ref.toLowerCase()));
  const couplings = board.couplings.filter((k) => refs.has(k.first.toLowerCase()) && refs.has(k.second.toLowerCase()));
  return {
    board: { ...board, parts, couplings, layout: [] },
    labels: relabel(labels, (r) => (dropped.has(r) ? [] : [r])),
  };
}

/** The chokes of the second filter of a kind: a second common-mode pair, or a lone choke between two output rails. */
function secondFilter(board: Board, labels: StageLabels): readonly string[] {
  const coupled = new Set(board.couplings.flatMap((k) => [k.first, k.second]));
  for (const kind of ['emi-filter', 'output-filter']) {
    const refs = labels.stages.filter((s) => s.kind === kind).flatMap((s) => s.parts);
    const chokes = board.parts.filter((p) => p.kind === 'inductor' && refs.includes(p.ref));
    const pairs = board.couplings.filter((k) => chokes.some((c) => c.ref === k.first));
    if (pairs.length >= 2) return [pairs[1]!.first, pairs[1]!.second];
    const small = chokes.filter((c) => !coupled.has(c.ref) && 'value' in c && c.value < 5e-6);
    if (small.length > 0) return [small[0]!.ref];
  }
  return [];
}

function fourDiodes({ board, labels }: Labelled): Labelled {
  const made = new Map<string, readonly string[]>();
  const parts = board.parts.flatMap((p): readonly Part[] => {
    if (p.kind !== 'bridge') return [p];
    const [ac1, ac2, plus, minus] = p.nets as [string, string, string, string];
    const pairs = [
      [ac1, plus],
      [ac2, plus],
      [minus, ac1],
      [minus, ac2],
    ] as const;
    made.set(
      p.ref,
      pairs.map((_, i) => `${p.ref}_${i + 1}`),
    );
    return pairs.map((nets, i) => ({ ...p, kind: 'diode', ref: `${p.ref}_${i + 1}`, nets, model: 'DBR' }) as Part);
  });
  return { board: { ...board, parts, layout: [] }, labels: relabel(labels, (r) => made.get(r) ?? [r]) };
}

/** Scores of a board undisturbed and under each disturbance: mean and worst F1 over the seeds. */
export function stageAccuracy(
  labelled: Labelled,
  seeds: number,
): {
  f1: number;
  topology: string;
  pins: { right: number; of: number };
  disturbed: Record<Disturbance, { mean: number; worst: number; topologies: number }>;
} {
  const map = recogniseStages(labelled.board);
  const disturbed = Object.fromEntries(
    DISTURBANCES.map((kind) => {
      const runs = Array.from({ length: seeds }, (_, seed) => {
        const variant = disturb(labelled, kind, seed);
        const found = recogniseStages(variant.board);
        return { f1: scoreStages(found, variant.labels).f1, topology: found.topology === labelled.labels.topology };
      });
      const mean = runs.reduce((s, r) => s + r.f1, 0) / runs.length;
      return [
        kind,
        { mean, worst: Math.min(...runs.map((r) => r.f1)), topologies: runs.filter((r) => r.topology).length },
      ];
    }),
  ) as Record<Disturbance, { mean: number; worst: number; topologies: number }>;
  const pins = scorePins(map, labelled.labels);
  return {
    f1: scoreStages(map, labelled.labels).f1,
    topology: map.topology,
    pins: { right: pins.right, of: pins.of },
    disturbed,
  };
}
