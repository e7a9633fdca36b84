import { formatVolts, withMark } from '../quantity';
import type { EnergyStore } from './stores';
import { METER_LIMIT_VOLTS, TOUCH_LIMIT_JOULES, TOUCH_LIMIT_VOLTS, WET_TOUCH_LIMIT_VOLTS } from './limits';

/** Proof readings hold this long. */
export const PROOF_MINUTES = 15;
/** Capacitors regain charge: read again after this many minutes. */
export const REGAIN_MINUTES = 2;

/** UNKNOWN: this window has lost touch with the log; another bench may have changed it. */
export type HazardState = 'LIVE' | 'CHARGED' | 'NOT PROVED' | 'DISCHARGED' | 'UNKNOWN';

/**
 * A point in time, by two clocks: `at` by the wall clock, milliseconds since 1970, which may be set; `uptime` seconds
 * since the machine's start, which only runs forward, valid within one `boot`.
 */
export interface Moment {
  readonly at: number;
  readonly boot: string | null;
  readonly uptime: number | null;
}

/**
 * Seconds that have passed at least, by the clock that says more; Infinity where no clock can be trusted: no proof
 * lives longer because a clock was set back or a machine started anew.
 */
export function secondsSince(then: Moment, now: Moment): number {
  const sameBoot = then.boot !== null && then.boot === now.boot && then.uptime !== null && now.uptime !== null;
  if (!sameBoot) return Infinity;
  const steady = now.uptime! - then.uptime!;
  return steady < 0 ? Infinity : Math.max(steady, (now.at - then.at) / 1000);
}

/** A source of energy of a job and whether it is isolated. */
export interface SourceState {
  readonly name: string;
  readonly isolatedBy: string | null;
}

/** The reading of DC volts that stands for a store: the last one after all that could have charged it again. */
export interface ProofReading {
  readonly volts: number;
  readonly moment: Moment;
  readonly by: string;
  readonly meterProved: boolean;
}

/** One store with its last proof, judged now. `minutesLeft` of its proof; null without one. */
export interface StoreState {
  readonly store: EnergyStore;
  readonly proof: ProofReading | null;
  readonly state: 'not-proved' | 'expired' | 'charged' | 'touch' | 'discharged';
  readonly minutesLeft: number | null;
}

/**
 * The hazard of a job now.
 *
 * state     the word on every screen. meterSafe: every proof-needing store reads below 0.2 V, so that ohms and diode
 *           test may be used: just then it is DISCHARGED. touchVolts: the limit to touch that was used.
 * reason    one sentence why the state is what it is.
 */
export interface Hazard {
  readonly state: HazardState;
  readonly meterSafe: boolean;
  readonly stores: readonly StoreState[];
  readonly touchVolts: number;
  readonly reason: string;
}

/**
 * Judges the hazard from the stores and the reading that stands for each.
 *
 * proofOf  the reading that stands for a store, or null. wet: whether the bench is in the wet; null when nobody has
 *          said, and then the lower limit holds.
 */
export function judgeHazard(
  sources: readonly SourceState[],
  stores: readonly EnergyStore[],
  proofOf: (store: EnergyStore) => ProofReading | null,
  wet: boolean | null,
  now: Moment,
): Hazard {
  const touchVolts = wet === false ? TOUCH_LIMIT_VOLTS : WET_TOUCH_LIMIT_VOLTS;
  const states = stores.map((store) => storeState(store, proofOf(store), touchVolts, now));
  const needed = states.filter((s) => s.store.proof || s.state === 'charged' || s.state === 'touch');
  const live = sources.find((s) => s.isolatedBy === null);
  const meterSafe = live === undefined && needed.length > 0 && needed.every((s) => s.state === 'discharged');
  const common = { meterSafe, stores: states, touchVolts };
  if (live) return { ...common, state: 'LIVE', reason: `${live.name} is not isolated yet.` };
  const charged = needed.find((s) => s.state === 'charged');
  if (charged) {
    const reason = `${storeName(charged.store)} read ${formatVolts(charged.proof!.volts)}: discharge it and read again.`;
    return { ...common, state: 'CHARGED', reason };
  }
  const open = needed.find((s) => s.state === 'not-proved' || s.state === 'expired');
  const touch = needed.find((s) => s.state === 'touch');
  if (touch) {
    const place = wet === false ? 'in the dry' : wet ? 'in the wet' : 'even in the wet';
    const reason = `${storeName(touch.store)} read ${formatVolts(touch.proof!.volts)}: low enough to touch ${place}, not for ohms or diode test (below ${withMark('0.2')} V).`;
    return { ...common, state: 'CHARGED', reason: open ? `${reason} ${openReason(open)}` : reason };
  }
  if (open) return { ...common, state: 'NOT PROVED', reason: openReason(open) };
  if (!meterSafe) return { ...common, state: 'NOT PROVED', reason: 'Nothing has been read on this unit yet.' };
  return { ...common, state: 'DISCHARGED', reason: `Every store was read below ${withMark('0.2')} V.` };
}

/** A store as it is called in a sentence. */
export function storeName(store: EnergyStore): string {
  return store.refs[0] ?? 'What is not traced';
}

function openReason({ store, state }: StoreState): string {
  if (state === 'expired') return `The proof of ${storeName(store)} has run out: it holds ${PROOF_MINUTES} minutes.`;
  if (store.place !== null)
    return `What is not traced is not empty: no bulk store is found on the board. Read ${store.place}.`;
  const volts = Math.round(store.volts.nominal);
  return `${store.refs[0]} may still be at ${volts} V however long it has stood: nothing here is sure to empty it.`;
}

function storeState(store: EnergyStore, proof: ProofReading | null, touchVolts: number, now: Moment): StoreState {
  if (!proof) return { store, proof: null, state: 'not-proved', minutesLeft: null };
  const volts = Math.abs(proof.volts);
  const joules = (store.farads * volts * volts) / 2;
  const minutesLeft = PROOF_MINUTES - secondsSince(proof.moment, now) / 60;
  const old = !(minutesLeft > 0);
  const empty = volts < METER_LIMIT_VOLTS;
  // What was read high stays high until it is read low; that it may be touched holds as long as a proof does.
  if (volts >= touchVolts || joules >= TOUCH_LIMIT_JOULES || (old && !empty))
    return { store, proof, state: 'charged', minutesLeft: null };
  if (old) return { store, proof, state: 'expired', minutesLeft: null };
  return { store, proof, state: empty ? 'discharged' : 'touch', minutesLeft };
}
