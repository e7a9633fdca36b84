import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { Part } from '@/core/part';
import { relabel } from './stageLabels';
import type { Labelled, StageLabels } from './stageLabels';

export function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const out = [...list];
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [out[i], out[j]] = [out[j]!, out[i]!];
  }
  return out;
}

export function renamed(board: Board, labels: StageLabels, random: () => number): Labelled {
  const names = new Map<string, string>();
  const newName = (prefix: string): string => `${prefix}${Math.floor(random() * 1e9).toString(36)}`;
  const net = (name: string): string => {
    if (netKey(name) === 'nc') return name;
    if (!names.has(netKey(name))) names.set(netKey(name), newName('n'));
    return names.get(netKey(name))!;
  };
  const refs = new Map(board.parts.map((p) => [p.ref.toLowerCase(), newName('P')]));
  const ref = (name: string): string => refs.get(name.toLowerCase())!;
  const parts = board.parts.map((p) => ({ ...p, ref: ref(p.ref), nets: p.nets.map(net) }));
  const couplings = board.couplings.map((k) => ({
    ...k,
    name: newName('K'),
    first: ref(k.first),
    second: ref(k.second),
  }));
  return {
    board: { ...board, parts, couplings, layout: [] },
    labels: relabel(labels, (r) => [ref(r)]),
  };
}

/** A quarter of the resistors, capacitors, diodes and fuses become two, in series or in parallel. */
export function split(board: Board, labels: StageLabels, random: () => number): Labelled {
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
export function thinned(board: Board, labels: StageLabels, random: () => number): Labelled {
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

export function fourDiodes({ board, labels }: Labelled): Labelled {
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
