import { isElectrolytic, partFigure } from '../part';
import { findPart } from '../circuit';
import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { supplyOf } from '../operate';
import { partWatts, wattsByPart } from '../work';
import type { Hypothesis } from './hypotheses';
import { faultyUnit, taken, works } from './faultyUnit';
import type { FaultyUnit } from './faultyUnit';
import { weighSingles } from './weighSingles';

/** What was seen, heard or felt on a unit under power, without a part. */
export const PLAIN_OBSERVATIONS = [
  'hiccup-ticking',
  'lamp-dark',
  'lamp-dim',
  'lamp-bright',
  'lamp-pulses',
  'weak-beep',
  'smoke',
  'works-unloaded',
  'works-cold',
  'works-warm',
  'sags-at-load',
] as const;

/** One of them, a part that is hot or cold, or how a status light blinks. */
export type Observed =
  | { readonly kind: (typeof PLAIN_OBSERVATIONS)[number] }
  | { readonly kind: 'hot' | 'cold'; readonly ref: string }
  | { readonly kind: 'status-light'; readonly pattern: string };

/** Reads a key such as `hot:R5` or `lamp-dim`; null for one that is none, or a part that is not on the board. */
export function readObserved(board: Board, key: string): Observed | null {
  const plain = PLAIN_OBSERVATIONS.find((k) => k === key.toLowerCase());
  if (plain) return { kind: plain };
  const [head = '', ...rest] = key.split(':');
  const tail = rest.join(':').trim();
  if (head.toLowerCase() === 'status-light' && tail !== '') return { kind: 'status-light', pattern: tail };
  const part = findPart(board, tail);
  const kind = (['hot', 'cold'] as const).find((k) => k === head.toLowerCase());
  return kind && part ? { kind, ref: part.ref } : null;
}

/** How likely each is to be seen where the unit as computed would show it, and where it would not. */
const [SHOWN, NOT] = [0.85, 0.06];
/** Where nothing is computed of it. */
const UNSAID = 0.3;
/** Watts from which a part is felt, and how much more than sound is hot; less than this share of sound is cold. */
const FELT_WATTS = 0.25;
const HOTTER = 2.5;
const COLDER = 0.3;
/** Times its printed watts at which a part smokes. */
const SMOKES = 3;
/** Share of its sound power that a unit must take to light the limiter's lamp a little; more than this many times makes it bright. */
const DIM = 0.3;
const BRIGHT = 3;

/**
 * Hypotheses weighed by what was seen under power: every fault's unit worked out without load and at full load from the sound
 * one, and asked whether it would show that. seconds, clock: as for `weighSingles`.
 */
export function weighObserved(
  board: Board,
  hypotheses: readonly Hypothesis[],
  observed: readonly Observed[],
  seconds: number,
  clock: () => number,
): readonly Hypothesis[] {
  const source = supplyOf(board).nominal;
  // Of a unit that nobody knows what to feed with nothing can be worked out.
  if (observed.length === 0 || source === null) return hypotheses;
  const sound = faultyUnit(board, source, [], null);
  return weighSingles(hypotheses, seconds, clock, (faults) => {
    const unit = faults.length === 0 ? sound : faultyUnit(board, source, faults, sound);
    // Of a unit that has no steady state nothing is said.
    if (![unit.idle, unit.loaded].every((r) => r.operation.found)) return null;
    return observed.reduce((sum, o) => sum + Math.log(likelihood(board, o, unit, sound, faults)), 0);
  });
}

const saidOr = (shows: boolean | null): number => (shows === null ? UNSAID : shows ? SHOWN : NOT);

function likelihood(board: Board, o: Observed, unit: FaultyUnit, sound: FaultyUnit, faults: readonly Fault[]): number {
  const { loaded, idle } = unit;
  const { unitState, destroys } = loaded.operation;
  switch (o.kind) {
    case 'hiccup-ticking':
    case 'weak-beep':
    case 'lamp-pulses':
      return saidOr(unitState === 'hiccup');
    case 'lamp-bright':
      return saidOr(destroys.length > 0 || taken(loaded) > BRIGHT * taken(sound.loaded));
    case 'lamp-dark':
      return saidOr(destroys.length === 0 && taken(loaded) < DIM * taken(sound.loaded));
    case 'lamp-dim': {
      const share = taken(loaded) / Math.max(taken(sound.loaded), 1e-6);
      return saidOr(destroys.length === 0 && share >= DIM && share <= BRIGHT);
    }
    case 'works-unloaded':
      return saidOr(works(idle, sound.idle) && !works(loaded, sound.loaded));
    case 'sags-at-load':
      return saidOr(works(idle, sound.idle) && !works(loaded, sound.loaded) && unitState !== 'off');
    case 'smoke': {
      const heat = wattsByPart(loaded.operation);
      const burns = board.parts.some(
        (p) => (heat.get(p.ref) ?? 0) > SMOKES * (partFigure(p, 'ratedWatts') ?? Infinity),
      );
      return saidOr(burns || destroys.length > 0);
    }
    case 'hot':
    case 'cold': {
      const [now, then] = [unit, sound].map((u) => partWatts(u.loaded.operation, o.ref)) as [number, number];
      if (o.kind === 'hot') return saidOr(now > FELT_WATTS && now > HOTTER * then);
      return then > FELT_WATTS ? saidOr(now < COLDER * then) : UNSAID;
    }
    case 'works-warm':
      return saidOr(faults.some((f) => dries(board, f)));
    case 'works-cold':
      return saidOr(faults.some((f) => f.kind === 'open' || f.kind === 'leak'));
    case 'status-light':
      return UNSAID;
  }
}

/** An electrolytic that has dried works again when it is warm. */
function dries(board: Board, fault: Fault): boolean {
  const part = 'ref' in fault ? findPart(board, fault.ref) : undefined;
  return part !== undefined && isElectrolytic(part) && (fault.kind === 'esr' || fault.kind === 'value');
}
