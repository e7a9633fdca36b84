import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { drawParts, probe, solverFor } from '../meter';
import { seededRandom } from '../quantity';
import type { DcSolver } from '../solve';
import type { ProbePoint } from './probePoint';
import { coordinate } from './outcome';
import type { OutcomeSpread } from './outcome';

const DRAWS = 16;
const SEED = 20;

/**
 * Tells points whose reading a prediction can stand for from those that hang on the spread of the parts: a gate
 * that leakage or the meter lifts near its threshold makes a reading jump. Drawn boards are made once, seeded.
 */
export class SteadyPoints {
  private boards: DcSolver[] | null = null;

  constructor(private readonly board: Board) {}

  /**
   * Whether drawn healthy boards read within the predicted spread; only diode tests on channels can fail.
   * start: voltages of the nominal board at this reading.
   */
  steady(point: ProbePoint, solver: DcSolver, spread: OutcomeSpread, start: Float64Array | undefined): boolean {
    const red = solver.network.nodeOfNet.get(netKey(point.red))!;
    if (point.mode !== 'diode' || spread.mean < 1 || !gateNearThreshold(solver, red, start)) return true;
    this.boards ??= Array.from({ length: DRAWS }, (_, k) =>
      solverFor(this.board, [], drawParts(seededRandom(SEED + k))),
    );
    let off = 0;
    for (const drawn of this.boards) {
      const { nodeOfNet } = drawn.network;
      const computed = probe(drawn, 'diode', nodeOfNet.get(netKey(point.red))!, nodeOfNet.get(netKey(point.black))!, {
        anySolution: true,
        readingOnly: true,
        start,
      });
      if (!computed.ok) continue;
      if (off > 1) return false;
      const overload = computed.value.reading.kind === 'overload';
      if (overload ? spread.overload < 0.05 : spread.overload > 0.95) off++;
      else if (!overload && Math.abs(coordinate('diode', computed.value.raw) - spread.mean) > 4 * spread.sigma) off++;
    }
    return off <= 1;
  }
}

/** A threshold lies this far below its nominal value at the very least: four sigma of 15 %. */
const LOWEST_THRESHOLD = 0.4;

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
