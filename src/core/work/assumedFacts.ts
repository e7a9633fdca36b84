import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { findDividers } from '../operate';
import type { Part } from '../part';

/** What a controller with an optocoupler at its feedback pin does, where no data sheet tells. */
const OPTO_LAW = { fbPullup: 10_000, fbRail: 5, fbOffset: 1, fbDivide: 3 } as const;
const USUAL_SENSE = 0.8;
/** Volts of a part's own supply. */
const USUAL_OWN = 5.2;
const USUAL_REFERENCE = 2.5;
/** Supply pin of a part that starts through a resistor: starts and stops at, draws before and at work. */
const RESISTOR_STARTED = { vccStart: 15, vccStop: 9, iStart: 30e-6, iRun: 2e-3 } as const;
/** A resistor from a high rail to a supply pin is at least this: it starts and does not feed. */
const START_OHMS = 20e3;

/**
 * Data-sheet facts of an integrated circuit as one assumes them from what stands around it: every one of them gives way to
 * a fact that is told. roles: indices of its pins by role; told: its facts.
 */
export function assumedFacts(
  board: Board,
  part: Part,
  roles: Readonly<Record<string, readonly number[]>>,
  told: Readonly<Record<string, number>> | undefined,
): Readonly<Record<string, number>> {
  const assumed: Record<string, number> = {};
  const at = (role: string): string | undefined => {
    const index = roles[role]?.[0];
    return index === undefined ? undefined : netKey(part.nets[index]!);
  };
  const [fb, cs, vcc, ground] = [at('FB'), at('CS'), at('VCC'), at('GND')];
  if (fb !== undefined && told?.['fbRef'] === undefined && told?.['fbOffset'] === undefined)
    Object.assign(assumed, loopOf(board, fb, ground));
  if (cs !== undefined && (roles['GATE'] !== undefined || roles['DRAIN'] !== undefined)) assumed['csMax'] = USUAL_SENSE;
  if (vcc !== undefined && startsThroughResistor(board, vcc)) Object.assign(assumed, RESISTOR_STARTED);
  if (told?.['vccOut'] === undefined && told?.['vccStart'] === undefined && roles['VIN'] && roles['VCC'])
    assumed['vccOut'] = USUAL_OWN;
  for (const [role, volts] of [['VOUT', 5]] as const)
    if (!told && roles[role] !== undefined && roles['GATE'] !== undefined) assumed['vRef'] = volts;
  return assumed;
}

/** The law of a feedback pin: an optocoupler that pulls it down, or a divider that it holds at a reference. */
function loopOf(board: Board, fb: string, ground: string | undefined): Readonly<Record<string, number>> {
  const pulled = board.parts.some(
    (p) => p.kind === 'opto' && p.fitted && netKey(p.nets[2]!) === fb && netKey(p.nets[3]!) === ground,
  );
  if (pulled) return OPTO_LAW;
  // A unit makes what is printed on it: that tells the reference that its divider is made for.
  const divider = findDividers(board).find((d) => netKey(d.tap) === fb && d.vRef !== null);
  if (divider?.vRef) return { fbRef: divider.vRef };
  return { fbRef: USUAL_REFERENCE };
}

function startsThroughResistor(board: Board, vcc: string): boolean {
  return board.parts.some(
    (p) => p.kind === 'resistor' && p.fitted && p.value >= START_OHMS && p.nets.some((n) => netKey(n) === vcc),
  );
}
