import type { PowerPath } from '../stages';
import { POWER_ORDER } from './flow';
import type { Scene } from './scene';

/** Nets that carry the power, by key. */
export function powerNets({ input, outputs }: PowerPath): ReadonlySet<string> {
  return new Set([...input, ...outputs.flat()].flatMap((pole) => [...pole]));
}

/** Where on the power's way each stage stands: its place in its order; -1 for one that only hangs on it. */
export function powerRanks({ stages, nets }: Pick<Scene, 'stages' | 'nets'>, path: PowerPath): readonly number[] {
  const input = new Set(path.input.flatMap((pole) => [...pole]));
  const output = new Set(path.outputs.flatMap(([rail]) => [...rail]));
  const reaches = (symbols: readonly number[], keys: ReadonlySet<string>): boolean =>
    nets.some((n) => keys.has(n.key) && n.sign === null && n.pins.some(([i]) => symbols.includes(i)));
  return stages.map(({ kind, symbols }) =>
    kind === 'connector' && reaches(symbols, input) && !reaches(symbols, output)
      ? 0
      : POWER_ORDER.findIndex((k) => k === kind),
  );
}

/** Stages that follow each other on the power's way, as pairs of their indices: the way never leads back over the barrier. */
export function orderedPairs(
  { stages, symbols, parted }: Pick<Scene, 'stages' | 'symbols' | 'parted'>,
  ranks: readonly number[],
): readonly (readonly [number, number])[] {
  const present = [...new Set(ranks.filter((r) => r >= 0))].sort((a, b) => a - b);
  const of = (rank: number): readonly number[] => ranks.flatMap((r, i) => (r === rank ? [i] : []));
  const place = (k: number): number =>
    Math.min(...stages[k]!.body.map((i) => ['left', 'barrier', 'right'].indexOf(symbols[i]!.side)));
  return present
    .slice(1)
    .flatMap((rank, i) => of(present[i]!).flatMap((a) => of(rank).map((b) => [a, b] as const)))
    .filter(([a, b]) => !parted || place(a) <= place(b));
}

/** For each two-pin symbol the others of its stage on the same two nets. */
export function twins(scene: Scene): readonly (readonly number[])[] {
  const netsOf = scene.symbols.map((): string[] => []);
  scene.nets.forEach((net) => net.pins.forEach(([i]) => netsOf[i]!.push(net.key)));
  const key = scene.symbols.map((s, i) =>
    s.members[0]!.refs.length === 1 && s.members.length === 1 && netsOf[i]!.length === 2
      ? `${s.stages[0]} ${[...netsOf[i]!].sort().join(' ')}`
      : '',
  );
  return key.map((k, i) => (k === '' ? [] : key.flatMap((other, j) => (j !== i && other === k ? [j] : []))));
}
