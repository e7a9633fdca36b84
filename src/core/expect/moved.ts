import type { AlivePoint } from '../work';

/** A point that reads otherwise than before: what it showed and what it shows, V or Hz. */
export interface Moved {
  readonly point: AlivePoint;
  readonly from: number;
  readonly to: number;
}

/** A change of less than this share of what a point showed, and these volts, is none. */
const SHARE = 0.02;
const LEAST = 0.03;

/** Less than this is nothing to a meter. */
const NOTHING = 5e-3;
const shown = (value: number): number => (Math.abs(value) < NOTHING ? 0 : value);

/** The points that read otherwise, the most moved first. */
export function movedPoints(before: readonly AlivePoint[], now: readonly AlivePoint[]): readonly Moved[] {
  const key = (p: AlivePoint): string => `${p.mode} ${p.red} ${p.black}`;
  const then = new Map(before.map((p) => [key(p), p.reading.value]));
  const share = ({ from, to }: Moved): number => Math.abs(to - from) / Math.max(Math.abs(from), Math.abs(to), 0.5);
  return now
    .flatMap((point): Moved[] => {
      const [from, to] = [then.get(key(point)) ?? null, point.reading.value];
      if (from === null || to === null) return [];
      return Math.abs(to - from) > SHARE * Math.abs(from) + LEAST ? [{ point, from: shown(from), to: shown(to) }] : [];
    })
    .sort((a, b) => share(b) - share(a));
}
