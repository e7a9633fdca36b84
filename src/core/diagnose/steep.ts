import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { flatten } from '../device';
import type { Fault } from '../fault';
import { probe, solverFor, workshopMeter } from '../meter';
import type { ComputedReading } from '../meter';
import { MISTAKEN, coordinate, mistakeChance } from './outcome';
import type { OutcomeMode, OutcomeSpread } from './outcome';
import type { ColdPoint } from './probePoint';

/** How far the junction's draw is moved, in its sigmas, to see what the reading does. */
const ASKED = [-2.5, -1.5, -0.8, -0.3, 0.3, 0.8, 1.5, 2.5] as const;
/** Where along the draw the ways lie in which it may come out, in sigmas. */
const WAYS = Array.from({ length: 13 }, (_, i) => -3 + i / 2);
/** A closer look is worth its time where the tangent leaves it open whether a sound board may read so, within these factors. */
const OPEN_FROM = 1 / 3;
const OPEN_TO = 10;

/**
 * A reading that follows what a junction lets through more than in proportion: on the edge of a range, or where its saturation
 * current hardly carries the meter's. That goes on for a little way only, while the tangent would have it go on for ever: where it
 * decides whether a sound board may read so, boards with that junction drawn otherwise are asked, and the spread is theirs.
 *
 * faults    what is broken; healthy: what a sound board shows; spread: what the tangent says.
 * Null where the tangent will do.
 */
export function steepOutcome(
  board: Board,
  faults: readonly Fault[],
  { mode, red, black }: ColdPoint,
  { raw, main }: Pick<ComputedReading, 'raw' | 'main'>,
  healthy: OutcomeSpread,
  spread: OutcomeSpread,
): OutcomeSpread | null {
  if (mode === 'diode' || !main || !(raw > 0)) return null;
  const most = main.effects.reduce((best, e, i) => (Math.abs(e) > Math.abs(main.effects[best]!) ? i : best), 0);
  const [effect, sigma] = [Math.abs(main.effects[most]!) / (raw + 1), main.spreads?.[most] ?? Infinity];
  if (!(effect > sigma)) return null;
  const mistaken = mistakeChance(healthy, spread);
  if (mistaken < OPEN_FROM * MISTAKEN || mistaken > OPEN_TO * MISTAKEN) return null;
  const drawn = main.draws[most]!;
  const device = flatten(board).devices.find(
    ({ model, draws }) => (model.kind === 'junction' || model.kind === 'transistor') && draws[0] === drawn,
  );
  if (!device) return null;
  const limit = coordinate(mode, workshopMeter().ohmsOverload);
  const shown = (z: number): number => {
    const factor = Math.exp(sigma * z);
    const solver = solverFor(board, faults, (owner, _part, property) =>
      owner === device.name && property === 'saturation' ? factor : 1,
    );
    const { nodeOfNet } = solver.network;
    const read = probe(solver, mode, nodeOfNet.get(netKey(red))!, nodeOfNet.get(netKey(black))!, { readingOnly: true });
    return read.ok ? Math.min(coordinate(mode, read.value.raw), limit) : limit;
  };
  const known = [...ASKED.map((z) => [z, shown(z)] as const), [0, coordinate(mode, raw)] as const].sort(
    (a, b) => a[0] - b[0],
  );
  const own = spread.modes?.[0] ?? spread;
  const rest = Math.sqrt(Math.max(own.sigma ** 2 - effect ** 2, LEAST_REST ** 2));
  const places = WAYS.map((z) => along(known, z));
  const total = WAYS.reduce((sum, z) => sum + Math.exp(-0.5 * z * z), 0);
  const modes = WAYS.map((z, i): OutcomeMode => {
    const gap = Math.abs((places[i + 1] ?? places[i]!) - (places[i - 1] ?? places[i]!)) / 4;
    return { mean: places[i]!, sigma: Math.hypot(rest, gap), weight: Math.exp(-0.5 * z * z) / total };
  });
  const mean = modes.reduce((sum, m) => sum + m.weight * m.mean, 0);
  const variance = modes.reduce((sum, m) => sum + m.weight * ((m.mean - mean) ** 2 + m.sigma ** 2), 0);
  const beyond = modes.reduce((sum, m) => (m.mean >= limit ? sum + m.weight : sum), 0);
  return { mean, sigma: Math.sqrt(variance), overload: beyond, modes, beyond };
}

const LEAST_REST = 0.015;

/** Between two known places in a straight line, beyond them on along the last. */
function along(known: readonly (readonly [z: number, x: number])[], z: number): number {
  const after = known.findIndex(([at]) => at >= z);
  const next = after < 0 ? known.length - 1 : Math.max(after, 1);
  const [[z0, x0], [z1, x1]] = [known[next - 1]!, known[next]!];
  return x0 + ((x1 - x0) * (z - z0)) / (z1 - z0);
}
