import { assertNever } from '../problem';
import { netKey, pinsOnNet } from './board';
import type { Board } from './board';
import { isElectrolytic, marking, partFigure, safetyClass } from '../part';
import type { Part } from '../part';

/**
 * Where a lead goes on the real board, in words.
 *
 * ease   0 is easiest (connector); higher is harder. basis `assumed` parts make an assumed place.
 */
export interface Place {
  readonly ref: string;
  readonly pin: number;
  readonly words: string;
  readonly ease: number;
  readonly assumed: boolean;
}

const LEGS: Readonly<Record<string, readonly string[]>> = {
  bridge: ['first AC leg', 'second AC leg', 'plus leg', 'minus leg'],
  opto: ['pin 1, LED anode', 'pin 2, LED cathode', 'collector pin', 'emitter pin'],
  'shunt-reference': ['reference leg', 'anode leg', 'cathode leg'],
  regulator: ['input leg', 'ground leg or tab', 'output leg'],
  relay: ['coil pin', 'other coil pin', 'common contact', 'normally open contact'],
  triac: ['MT2, middle leg or tab', 'MT1 leg', 'gate leg'],
  bjt: ['collector leg', 'base leg', 'emitter leg'],
  mosfet: ['drain, middle leg or tab', 'gate leg', 'source leg'],
};

/** All places where a net can be touched, easiest first. */
export function placesOnNet(board: Board, net: string): readonly Place[] {
  return pinsOnNet(board, net)
    .map(({ part, pin }) => ({
      ref: part.ref,
      pin,
      words: `${part.ref} ${placeWords(board, part, pin)}`,
      ease: part.fitted ? ease(part) : 9,
      assumed: part.basis === 'assumed',
    }))
    .sort((a, b) => a.ease - b.ease);
}

/** The easiest place of a net in words; its name where no pin is on it. */
export function easiestPlace(board: Board, net: string): string {
  return placesOnNet(board, net)[0]?.words ?? net;
}

/** Ease of reaching a part's pins: connector, electrolytic leg, tab or big leg, through-hole end, small part, IC pin. */
function ease(part: Part): number {
  switch (part.kind) {
    case 'connector':
      return 0;
    case 'capacitor':
      return isElectrolytic(part) ? 1 : safetyClass(part) !== null ? 2 : 6;
    case 'fuse':
    case 'bridge':
    case 'mov':
    case 'ntc':
    case 'relay':
    case 'switch':
    case 'lamp':
      return 2;
    case 'mosfet':
    case 'triac':
    case 'regulator':
      return 3;
    case 'inductor':
    case 'diode':
      return 4;
    case 'resistor':
      return (partFigure(part, 'ratedWatts') ?? 0) >= 0.25 ? 4 : 6;
    case 'opto':
    case 'bjt':
    case 'shunt-reference':
      return 5;
    case 'ic':
      return 7;
    case 'voltage-source':
    case 'current-source':
      return 8;
    default:
      return assertNever(part);
  }
}

function placeWords(board: Board, part: Part, pin: number): string {
  const mark = marking(part);
  const legs = LEGS[part.kind];
  if (legs) return legs[pin] ?? `pin ${pin + 1}`;
  switch (part.kind) {
    case 'connector':
      return `pin ${pin + 1}${mark ? ` (${mark})` : ''}`;
    case 'ic':
      return `pin ${pin + 1}`;
    case 'diode':
      return pin === 0 ? 'anode' : 'cathode, banded end';
    case 'capacitor':
      if (isElectrolytic(part)) return `${pin === 0 ? 'plus' : 'minus'}${bigness(board, part)}`;
      return end(board, part, pin);
    default:
      return end(board, part, pin);
  }
}

function bigness(board: Board, part: Part): string {
  const energy = (p: Part): number => (p.kind === 'capacitor' ? p.value * (partFigure(p, 'ratedVolts') ?? 0) ** 2 : 0);
  const biggest = board.parts.reduce((a, b) => (energy(b) > energy(a) ? b : a));
  return biggest.ref === part.ref ? ' (big capacitor)' : '';
}

/** Tells the two ends of a part apart by the most notable part that the end runs to. */
function end(board: Board, part: Part, pin: number): string {
  const near = pinsOnNet(board, part.nets[pin]!)
    .map((p) => p.part)
    .filter(
      (p) => p.ref !== part.ref && p.nets.filter((n) => part.nets.some((m) => netKey(m) === netKey(n))).length === 1,
    )
    .sort((a, b) => notable(a) - notable(b))[0];
  return near ? `end towards ${near.ref}` : pin === 0 ? 'first end' : 'second end';
}

function notable(part: Part): number {
  return (
    { connector: 0, fuse: 1, bridge: 1, mosfet: 2, ic: 2, opto: 3, bjt: 3, inductor: 4 }[part.kind as string] ??
    5 + ease(part)
  );
}
