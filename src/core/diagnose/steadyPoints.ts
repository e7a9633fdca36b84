import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { partSigma } from '../device';
import type { PartDraw } from '../device';
import { drawParts, probe, solverFor } from '../meter';
import { seededRandom } from '../quantity';
import type { DcSolver } from '../solve';
import type { ProbePoint } from './probePoint';
import { coordinate } from './outcome';
import type { OutcomeSpread } from './outcome';

/** Drawn boards that a doubtful point is asked of, and on how many of them it may jump. */
const DRAWS = 64;
const MOST_OFF = 2;
/**
 * A point that stood still on this many, the first of which are far off to one side, is asked no further: one in ten
 * jumping, it passes once in twenty times.
 */
const ENOUGH = 34;
/** How far off the first ones are, in sigmas: their thresholds and their junctions' saturation currents, all alike. */
const FAR_OFF: readonly (readonly [threshold: number, saturation: number])[] = [
  [-1.8, 0],
  [0, 1.8],
  [0, -1.8],
  [-1.3, 1.3],
  [-1.3, -1.3],
];
const SEED = 20;

/**
 * Tells points whose reading a prediction can stand for from those that hang on the spread of the parts: a gate
 * that leakage or the meter lifts near its threshold makes a reading jump. Drawn boards are made once, seeded.
 */
export class SteadyPoints {
  private readonly boards: DcSolver[] = [];

  constructor(private readonly board: Board) {}

  /** Whether drawn healthy boards read within the predicted spread. */
  steady(point: ProbePoint, solver: DcSolver, spread: OutcomeSpread, start: Float64Array | undefined): boolean {
    if (!mayJump(point, solver, spread, start)) return true;
    let off = 0;
    for (let k = 0; k < DRAWS && off <= MOST_OFF; k++) {
      if (k === ENOUGH && off === 0) return true;
      if (jumps(this.drawn(k), point, spread, start)) off++;
    }
    return off <= MOST_OFF;
  }

  private drawn(k: number): DcSolver {
    const far = FAR_OFF[k];
    return (this.boards[k] ??= solverFor(this.board, [], far ? farOff(far) : drawParts(seededRandom(SEED + k))));
  }
}

/**
 * Whether a prediction may hang on the spread of the parts, as far as the nominal board tells: only diode tests on
 * channels do. start: voltages of that board at this reading.
 */
export function mayJump(
  point: ProbePoint,
  solver: DcSolver,
  spread: OutcomeSpread,
  start: Float64Array | undefined,
): boolean {
  const red = solver.network.nodeOfNet.get(netKey(point.red))!;
  return point.mode === 'diode' && spread.mean >= 1 && gateNearThreshold(solver, red, start);
}

function farOff([threshold, saturation]: readonly [number, number]): PartDraw {
  return (_owner, part, property) => {
    if (property === 'threshold') return 1 + threshold * partSigma(part, property);
    return property === 'saturation' ? Math.exp(saturation * partSigma(part, property)) : 1;
  };
}

/** Whether a board reads far outside what is predicted: every node settles, for what drives a gate is next to nothing. */
function jumps(drawn: DcSolver, point: ProbePoint, spread: OutcomeSpread, start: Float64Array | undefined): boolean {
  const { nodeOfNet } = drawn.network;
  const computed = probe(drawn, 'diode', nodeOfNet.get(netKey(point.red))!, nodeOfNet.get(netKey(point.black))!, {
    anySolution: true,
    start,
  });
  if (!computed.ok) return true;
  if (computed.value.reading.kind === 'overload') return spread.overload < 0.05;
  return spread.overload > 0.95 || Math.abs(coordinate('diode', computed.value.raw) - spread.mean) > 4 * spread.sigma;
}

/** One board in seven hundred has a threshold this far below its nominal value: three sigma of 15 %. */
const LOWEST_THRESHOLD = 0.55;

/** Whether some gate of the component stands where a drawn board's channel could begin to conduct; `volts` per node. */
function gateNearThreshold(solver: DcSolver, node: number, volts: Float64Array | undefined): boolean {
  const { component, channels, parameters } = solver.network;
  return channels.some(({ nodes: [d = 0, g = 0, s = 0], at }) => {
    const [polarity = 1, thresholdVolts = 0] = parameters.subarray(at, at + 2);
    if (component[d] !== component[node] || component[g] !== component[node] || g === s) return false;
    if (!volts) return true;
    // Source and drain change places where the voltage across them is reversed.
    const lower = polarity * Math.min(polarity * volts[s]!, polarity * volts[d]!);
    return polarity * (volts[g]! - lower) > LOWEST_THRESHOLD * thresholdVolts;
  });
}
