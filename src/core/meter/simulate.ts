import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { gaussian, seededRandom } from '../quantity';
import type { Random } from '../quantity';
import { partSigma } from '../device';
import type { DrawnProperty, PartDraw } from '../device';
import type { Fault } from '../fault';
import { SignalReader, signalSigma } from '../signal';
import type { DcSolver } from '../solve';
import { meterSigma, probe } from './probe';
import { DEFAULT_METER } from './profile';
import type { MeterProfile } from './profile';
import { solverFor } from './readBoard';
import { isCold } from './reading';
import type { ColdMode, MeterReading, UnpoweredMode } from './reading';

/**
 * Draws every part of one real board from its spread (`netlist.md` section 3): values within their tolerance (two
 * sigma, truncated), junctions lognormal. A part keeps its draw: ask twice, get the same.
 */
export function drawParts(random: Random): PartDraw {
  const seed = Math.floor(random() * 2 ** 32);
  const drawn = new Map<string, number>();
  return (owner, part, property) => {
    const key = `${owner} ${property}`;
    const known = drawn.get(key);
    if (known !== undefined) return known;
    const sigma = partSigma(part, property);
    // Each property has numbers of its own: what else is drawn, and in which order, changes nothing about it.
    const own = seededRandom(seed ^ hashOf(key));
    const made = LOGNORMAL.has(property) ? Math.exp(sigma * gaussian(own)) : 1 + sigma * truncated(own, property);
    drawn.set(key, made);
    return made;
  };
}

/** A number from a text. Source: G. Fowler, L. C. Noll, K.-P. Vo, FNV-1a with 32 bits (1991). */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}

/** Drawn on a ratio scale, untruncated. */
const LOGNORMAL: ReadonlySet<DrawnProperty> = new Set(['saturation', 'gain', 'series']);

function truncated(random: Random, property: DrawnProperty): number {
  for (;;) {
    const z = gaussian(random);
    if (Math.abs(z) <= 2 || property === 'threshold') return Math.max(-5, z);
  }
}

/** A drawn board with faults in it, as the instruments of a bench would show it. */
export class SimulatedBoard {
  private readonly solver: DcSolver;
  private signal: SignalReader | null = null;

  constructor(
    private readonly board: Board,
    private readonly faults: readonly Fault[],
    private readonly draw: PartDraw,
  ) {
    this.solver = solverFor(board, faults, draw);
  }

  /** What is shown between two nets, the noise of the instrument on it. */
  read(
    mode: UnpoweredMode,
    red: string,
    black: string,
    random: Random,
    meter: MeterProfile = DEFAULT_METER,
  ): MeterReading {
    if (isCold(mode)) return simulateReading(this.solver, mode, red, black, random, meter);
    this.signal ??= new SignalReader(this.board, this.faults, this.draw);
    const figure = this.signal.read(mode, red, black);
    if (figure === null || figure === undefined) return { kind: 'overload' };
    const value = Math.max(0, figure + gaussian(random) * signalSigma(mode, figure));
    return { kind: 'figure', value: mode === 'ring' ? Math.round(value) : value };
  }
}

/** What a real meter would show on a drawn board: the computed reading with the meter's own noise on it. */
export function simulateReading(
  solver: DcSolver,
  mode: ColdMode,
  red: string,
  black: string,
  random: Random,
  meter: MeterProfile = DEFAULT_METER,
): MeterReading {
  const { nodeOfNet } = solver.network;
  const computed = probe(solver, mode, nodeOfNet.get(netKey(red))!, nodeOfNet.get(netKey(black))!);
  if (!computed.ok || computed.value.reading.kind === 'overload') return { kind: 'overload' };
  const value = computed.value.reading.value + gaussian(random) * meterSigma(mode, computed.value.reading.value, meter);
  const limit = mode === 'diode' ? meter.diodeOverloadVolts : meter.ohmsOverload;
  if (value >= limit) return { kind: 'overload' };
  return { kind: 'figure', value: mode === 'diode' ? value : Math.max(0, value) };
}
