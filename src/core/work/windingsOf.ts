import type { Circuit } from '../device';

/** One winding: its core, its ends, its henries. */
export interface OneWinding {
  readonly core: number;
  readonly ends: readonly [number, number];
  readonly henries: number;
}

/** Every winding of a circuit; those on one core carry its number. */
export function windingsOf({ devices, parameters }: Circuit): readonly OneWinding[] {
  return devices.flatMap((d, core) => {
    if (d.model.kind !== 'windings') return [];
    const count = d.model.states;
    return Array.from({ length: count }, (_, k): OneWinding => ({
      core,
      ends: [d.nodes[2 * k]!, d.nodes[2 * k + 1]!],
      henries: parameters[d.at + count + k * count + k]!,
    }));
  });
}

/** Turns of one winding over those of another on its core: the root of their inductances. */
export function sqrtRatio(a: OneWinding, b: OneWinding): number {
  return Math.sqrt(a.henries / b.henries);
}
