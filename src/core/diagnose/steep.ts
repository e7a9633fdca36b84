import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { flatten } from '../device';
import type { Fault } from '../fault';
import { AT_LIMIT_VOLTS, probe, solverFor, workshopMeter } from '../meter';
import type { ComputedReading } from '../meter';
import type { DcSolver } from '../solve';
import { normalCdf } from '../quantity';
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
  const [steered] = mode === 'diode' ? [] : steerings(raw, main);
  if (!steered || !(steered.effect > steered.sigma)) return null;
  const mistaken = mistakeChance(healthy, spread);
  if (mistaken < OPEN_FROM * MISTAKEN || mistaken > OPEN_TO * MISTAKEN) return null;
  const shown = new DrawnOtherwise(board, faults).shown({ mode, red, black }, steered);
  return shown && asAsked(shown, coordinate(mode, raw), steered, spread);
}

/**
 * The same for a sound board where the meter shows megohms or nothing: a junction that hardly carries the meter's current as it
 * should be carries all of it on a board whose saturation current is a little more.
 *
 * Null where the tangent will do.
 */
export function bentOutcome(
  board: Board,
  point: ColdPoint,
  { raw, main, amps }: Pick<ComputedReading, 'raw' | 'main' | 'amps'>,
  spread: OutcomeSpread,
): OutcomeSpread | null {
  if (point.mode === 'diode' || !(raw > LEAST_BENT_OHMS) || !Number.isFinite(raw)) return null;
  const at = Math.min(coordinate(point.mode, raw), mostOf(point.mode));
  // At its limit the source's volts hide what the board takes of its current.
  const below = workshopMeter().diodeLimitVolts - raw * amps;
  const hidden = below < AT_LIMIT_VOLTS && below > TAKEN_VOLTS;
  for (const steered of steerings(raw, main)) {
    if (steered.sigma < LEAST_SIGMA || (steered.effect < LEAST_FELT && !hidden)) continue;
    const shown = soundOnes(board).shown(point, steered);
    if (shown && Math.abs(at - shown(BENT_AT) - BENT_AT * steered.effect) > BENT_BY)
      return asAsked(shown, at, steered, spread);
  }
  return null;
}

/** Ohm from which a sound board is looked at more closely; how widely its junction spreads, and what it does to the log of the reading. */
const LEAST_BENT_OHMS = 2e6;
const LEAST_SIGMA = 0.3;
const LEAST_FELT = 0.02;
/** So far below its limit the source stands when the board takes a sixth of its current: it gives way by e in 5 mV. */
const TAKEN_VOLTS = 0.9e-3;
/** So many sigmas up it is looked at, and so far from the tangent the reading must lie there, in its log. */
const BENT_AT = 2;
const BENT_BY = 0.4;

/** A draw that steers a reading: its number, what one sigma of it does to the log of the reading, and that sigma. */
interface Steering {
  readonly drawn: number;
  readonly effect: number;
  readonly sigma: number;
}

function steerings(raw: number, main: ComputedReading['main']): readonly Steering[] {
  if (!main || !(raw > 0)) return [];
  return main.draws
    .map((drawn, i): Steering => {
      return { drawn, effect: Math.abs(main.effects[i]!) / (raw + 1), sigma: main.spreads?.[i] ?? Infinity };
    })
    .sort((a, b) => b.effect - a.effect);
}

/** The coordinate beyond which the meter shows nothing on any board, however its parts are drawn: so far over its limit in its log. */
function mostOf(mode: ColdPoint['mode']): number {
  return coordinate(mode, workshopMeter().ohmsOverload) + FAR_OVER;
}
const FAR_OVER = 2;

/** Boards with one junction drawn otherwise, each made once: many readings ask the same ones. */
class DrawnOtherwise {
  /** Names of junctions and transistors by the number of their saturation's draw. */
  private readonly names: ReadonlyMap<number, string>;
  private readonly solvers = new Map<string, DcSolver>();

  constructor(
    private readonly board: Board,
    private readonly faults: readonly Fault[],
  ) {
    const { devices } = flatten(board);
    const drawn = devices.filter(({ model }) => model.kind === 'junction' || model.kind === 'transistor');
    this.names = new Map(drawn.map(({ name, draws }) => [draws[0]!, name]));
  }

  /** What boards read whose junction is drawn so many sigmas otherwise; null where the draw is no junction's. */
  shown({ mode, red, black }: ColdPoint, { drawn, sigma }: Steering): ((z: number) => number) | null {
    const name = this.names.get(drawn);
    if (name === undefined) return null;
    const most = mostOf(mode);
    return (z) => {
      const solver = this.solver(name, z, sigma);
      const { nodeOfNet } = solver.network;
      const read = probe(solver, mode, nodeOfNet.get(netKey(red))!, nodeOfNet.get(netKey(black))!, {
        readingOnly: true,
      });
      return read.ok ? Math.min(coordinate(mode, read.value.raw), most) : most;
    };
  }

  private solver(name: string, z: number, sigma: number): DcSolver {
    const key = `${name} ${z}`;
    const made =
      this.solvers.get(key) ??
      solverFor(this.board, this.faults, (owner, _part, property) =>
        owner === name && property === 'saturation' ? Math.exp(sigma * z) : 1,
      );
    this.solvers.set(key, made);
    return made;
  }
}

const sound = new WeakMap<Board, DrawnOtherwise>();

/** Those of a sound board. */
function soundOnes(board: Board): DrawnOtherwise {
  const made = sound.get(board) ?? new DrawnOtherwise(board, []);
  sound.set(board, made);
  return made;
}

/** The spread that the asked boards tell; at: the coordinate as it should be. */
function asAsked(shown: (z: number) => number, at: number, { effect }: Steering, spread: OutcomeSpread): OutcomeSpread {
  const limit = coordinate('ohms', workshopMeter().ohmsOverload);
  const known = [...ASKED.map((z) => [z, shown(z)] as const), [0, at] as const].sort((a, b) => a[0] - b[0]);
  const own = spread.modes?.[0] ?? spread;
  const rest = Math.sqrt(Math.max(own.sigma ** 2 - effect ** 2, LEAST_REST ** 2));
  const places = WAYS.map((z) => along(known, z));
  const total = WAYS.reduce((sum, z) => sum + Math.exp(-0.5 * z * z), 0);
  const ways = WAYS.map((z, i): OutcomeMode => {
    const gap = Math.abs((places[i + 1] ?? places[i]!) - (places[i - 1] ?? places[i]!)) / 4;
    return { mean: places[i]!, sigma: Math.hypot(rest, gap), weight: Math.exp(-0.5 * z * z) / total };
  });
  const mean = ways.reduce((sum, m) => sum + m.weight * m.mean, 0);
  const variance = ways.reduce((sum, m) => sum + m.weight * ((m.mean - mean) ** 2 + m.sigma ** 2), 0);
  const over = ways.map((m) => normalCdf((m.mean - limit) / m.sigma));
  const beyond = ways.reduce((sum, m, i) => sum + m.weight * over[i]!, 0);
  // Of the figures, those that show none have no share.
  const modes = ways.map((m, i) => ({ ...m, weight: (m.weight * (1 - over[i]!)) / Math.max(1 - beyond, 1e-12) }));
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
