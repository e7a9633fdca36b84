import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { flatten } from '../device';
import type { Complex } from '../linear';
import { kept } from '../problem';
import { normalCdf } from '../quantity';
import {
  LEAST_CYCLES,
  RING_LIMIT,
  SIGNAL_NOISE,
  SmallSignal,
  coreAcross,
  countedCycles,
  cyclesSigma,
  isCoreKnown,
  leastCycles,
  ringAcross,
  swingMargin,
} from '../signal';
import type { Ring } from '../signal';
import { fileUnder } from './dictionaryEntries';
import type { Predicted } from './experiment';
import type { Hypothesis } from './hypotheses';
import type { OutcomeSpread } from './outcome';
import { pointKey } from './posterior';
import type { ProbePoint } from './probePoint';
import { placeOn } from './scale';
import type { OutcomeScale } from './scale';
import { SignalBoards } from './signalBoards';

/** Where a ring tester is held. */
export interface RingPoint extends ProbePoint {
  readonly mode: 'ring';
}

/** Cycles are told by their logarithm. */
const SCALE: OutcomeScale = {
  kind: 'logarithmic',
  span: Math.log(RING_LIMIT + 1),
  limit: Math.log(RING_LIMIT + 1),
  noise: { ...SIGNAL_NOISE.ring, floorTo: Infinity },
};

/** What hardly swings is not held to tell anything. */
const LEAST_MARGIN = Math.log(2);
/** Where nothing is noted of a core, what else slows the ring is hardly known better: it may last so many times as long. */
const LONGER = 2;

/** Where a ring tester tells something: of the windings on one core those that ring longest. */
export function ringPoints(board: Board): readonly RingPoint[] {
  const small = new SmallSignal(flatten(board));
  return small.devices.flatMap(({ model, owners }) => {
    if (model.kind !== 'windings') return [];
    const windings = owners.map((o) => board.parts[o]!).filter((p) => p.kind === 'inductor' && p.fitted);
    let best: { readonly point: RingPoint; readonly cycles: number } | null = null;
    for (const { nets } of new Set(windings)) {
      const [red, black] = nets as readonly [string, string];
      const ring = ringAcross(small, red, black);
      const cycles = swingMargin(ring) < LEAST_MARGIN ? 0 : countedCycles(ring);
      if (cycles >= Math.max(LEAST_CYCLES, best?.cycles ?? 0)) best = { point: { mode: 'ring', red, black }, cycles };
    }
    return best ? [best.point] : [];
  });
}

/** Frequencies about that of the sound ring at which a fault that changes none of what the tester meets leaves the ring alone. */
const LOOKED_AT = [0.25, 1, 4] as const;
/** About here, rad/s, where nothing rings on the sound board. */
const NO_RING_OMEGA = 2 * Math.PI * 30e3;
/** It meets the same where no part of the admittance moves by more than this share. */
const SAME_SHARE = 0.03;
/** Cycles closer than this are one. */
const SAME_CYCLES = 0.05;

/** What a ring tester shows between two nets of the board under each hypothesis; yields between them. */
export function* predictRing(
  board: Board,
  hypotheses: readonly Hypothesis[],
  { red, black }: Pick<ProbePoint, 'red' | 'black'>,
): Generator<number, Predicted> {
  const rings = ringsOf(board, red, black);
  const { sound } = rings;
  const known = isCoreKnown(coreAcross(board, red, black));
  const draft = {
    raws: [countedCycles(sound)],
    spreads: [ringOutcome(sound, known)],
    classOf: new Uint16Array(hypotheses.length),
  };
  for (let h = 1; h < hypotheses.length; h++) {
    const ring = rings.of(hypotheses[h]!);
    if (ring !== 'as sound')
      draft.classOf[h] = fileUnder(draft, countedCycles(ring), ringOutcome(ring, known), SAME_CYCLES);
    yield h;
  }
  return { mode: 'ring', red, black, scale: SCALE, settle: 0, ...draft };
}

/** The rings of all hypotheses between two nets, worked out once each: a dictionary that grows asks for them again and again. */
class Rings {
  readonly sound: Ring | null;
  private readonly looked: readonly { readonly boards: SignalBoards; readonly met: Complex | null }[];
  private readonly leads: readonly [string, string];
  private readonly found = new Map<string, Ring | null | 'as sound'>();

  constructor(
    private readonly board: Board,
    red: string,
    black: string,
  ) {
    this.leads = [netKey(red), netKey(black)];
    this.sound = ringAcross(new SmallSignal(flatten(board)), red, black);
    const omega = this.sound?.omega ?? NO_RING_OMEGA;
    this.looked = LOOKED_AT.map((share) => {
      const boards = new SignalBoards(board, omega * share);
      return { boards, met: boards.with([]).impedance(...this.leads) ?? null };
    });
  }

  /** How it rings with these faults. */
  of({ label, faults }: Pick<Hypothesis, 'label' | 'faults'>): Ring | null | 'as sound' {
    const known = this.found.get(label);
    if (known !== undefined) return known;
    const same = this.looked.every(({ boards, met }) =>
      meetsTheSame(met, boards.with(faults).impedance(...this.leads) ?? null),
    );
    const made = same ? 'as sound' : ringAcross(new SmallSignal(flatten(this.board, faults)), ...this.leads);
    this.found.set(label, made);
    return made;
  }
}

const ringsOfBoard = new WeakMap<Board, Map<string, Rings>>();

const ringsOf = (board: Board, red: string, black: string): Rings =>
  kept(ringsOfBoard, board, pointKey({ mode: 'ring', red, black }), () => new Rings(board, red, black));

/** Whether two impedances, ohm, take alike: what they let swing and what they use up, each by itself. */
function meetsTheSame(a: Complex | null, b: Complex | null): boolean {
  if (a === null || b === null) return a === b;
  const [x, y] = [a, b].map(({ re, im }) => ({ re: re / (re * re + im * im), im: im / (re * re + im * im) }));
  return (
    Math.abs(x!.re - y!.re) <= SAME_SHARE * Math.abs(x!.re) &&
    Math.abs(x!.im - y!.im) <= SAME_SHARE * Math.hypot(x!.re, x!.im)
  );
}

/** How sharply it is told whether enough swings to be counted, one sigma of a log. */
const MARGIN_SIGMA = 0.15;
/** Ways in which what an unknown core takes is told. */
const CORE_STEPS = 6;

/**
 * How a ring comes out. What nobody noted of the core may take anything between nothing and what leaves a sound winding
 * `GOOD_CYCLES`.
 */
export function ringOutcome(ring: Ring | null, coreKnown: boolean): OutcomeSpread {
  const cycles = Math.min(countedCycles(ring), 10 * RING_LIMIT);
  const [least, most] = [leastCycles(cycles, coreKnown), coreKnown ? cycles : LONGER * cycles];
  const silent = cycles > 0 ? normalCdf(-swingMargin(ring) / MARGIN_SIGMA) : 0;
  const [low, high] = [placeOn(SCALE, least), placeOn(SCALE, most)];
  const steps = high > low ? CORE_STEPS : 1;
  const modes = Array.from({ length: steps }, (_, i) => {
    const mean = low + ((high - low) * (i + 0.5)) / steps;
    return { mean, sigma: Math.hypot(sigmaAt(mean), (high - low) / steps / 2), weight: (1 - silent) / steps };
  });
  if (silent > 1e-4) modes.push({ mean: 0, sigma: sigmaAt(0), weight: silent });
  const beyond = modes.reduce((sum, m) => sum + m.weight * normalCdf((m.mean - SCALE.limit) / m.sigma), 0);
  const [first] = modes;
  if (modes.length === 1) return { mean: first!.mean, sigma: first!.sigma, overload: beyond };
  const mean = modes.reduce((sum, m) => sum + m.weight * m.mean, 0);
  const sigma = Math.sqrt(modes.reduce((sum, m) => sum + m.weight * (m.sigma ** 2 + (m.mean - mean) ** 2), 0));
  return { mean, sigma, overload: beyond, modes, beyond };
}

/** One sigma in the coordinate of what the tester and the model leave of so many cycles. */
function sigmaAt(place: number): number {
  const cycles = Math.exp(place) - 1;
  return cyclesSigma(cycles) / (cycles + 1);
}
