import { METER_LIMIT_VOLTS, TOUCH_LIMIT_JOULES, TOUCH_LIMIT_VOLTS } from './stores';
import type { EnergyStore } from './stores';

/** Proof readings hold this long. */
export const PROOF_MINUTES = 15;
/** Capacitors regain charge: read again after this many minutes. */
export const REGAIN_MINUTES = 2;

export type HazardState = 'LIVE' | 'CHARGED' | 'NOT PROVED' | 'DISCHARGED';

/** A source of energy of a job and whether it is isolated. */
export interface SourceState {
  readonly name: string;
  readonly isolatedBy: string | null;
}

/** A reading of DC volts at a store. `at` in milliseconds since 1970; meterProved: on a known source before and after. */
export interface ProofReading {
  readonly boardId: string;
  readonly storeKey: string;
  readonly volts: number;
  readonly at: number;
  readonly by: string;
  readonly meterProved: boolean;
}

/** One store with its last proof, judged now. */
export interface StoreState {
  readonly store: EnergyStore;
  readonly proof: ProofReading | null;
  readonly state: 'not-proved' | 'expired' | 'charged' | 'touch' | 'discharged';
}

/**
 * The hazard of a job now.
 *
 * state     the word on every screen. meterSafe: every proof-needing store reads below 0.2 V, so that ohms and diode
 *           test may be used. expiresAt: when the first proof runs out, milliseconds; null when nothing is proved.
 * reason    one sentence why the state is what it is.
 */
export interface Hazard {
  readonly state: HazardState;
  readonly meterSafe: boolean;
  readonly stores: readonly StoreState[];
  readonly expiresAt: number | null;
  readonly reason: string;
}

/**
 * Judges the hazard from what was written down. Proofs count only when taken after the last thing that could have
 * charged a store again (`chargedAgainAt`: power applied, battery reconnected, something else fitted there).
 *
 * now  milliseconds since 1970, given by the caller.
 */
export function judgeHazard(
  sources: readonly SourceState[],
  stores: readonly EnergyStore[],
  proofs: readonly ProofReading[],
  chargedAgainAt: number | null,
  now: number,
): Hazard {
  const states = stores.map((store) => storeState(store, proofs, chargedAgainAt, now));
  const needed = states.filter((s) => s.store.proof);
  const valid = needed.filter((s) => s.state !== 'not-proved' && s.state !== 'expired');
  const expiresAt = valid.length > 0 ? Math.min(...valid.map((s) => s.proof!.at)) + PROOF_MINUTES * 60_000 : null;
  const live = sources.find((s) => s.isolatedBy === null);
  const meterSafe = live === undefined && needed.every((s) => s.state === 'discharged');
  const common = { meterSafe, stores: states, expiresAt };
  if (live) return { ...common, state: 'LIVE', reason: `${live.name} is not isolated yet.` };
  const charged = needed.find((s) => s.state === 'charged');
  if (charged) {
    return {
      ...common,
      state: 'CHARGED',
      reason: `${charged.store.refs[0]} read ${charged.proof!.volts} V: discharge it and read again.`,
    };
  }
  const open = needed.find((s) => s.state === 'not-proved' || s.state === 'expired');
  if (open) return { ...common, state: 'NOT PROVED', reason: openReason(open) };
  const touch = needed.find((s) => s.state === 'touch');
  return {
    ...common,
    state: 'DISCHARGED',
    reason: touch
      ? `${touch.store.refs[0]} is low enough to touch, not for ohms or diode test (below 0.2 V).`
      : 'Every store was read below 0.2 V.',
  };
}

function openReason({ store, state }: StoreState): string {
  const volts = Math.round(store.volts.nominal);
  if (state === 'expired') return `The proof of ${store.refs[0]} is older than ${PROOF_MINUTES} minutes.`;
  return `${store.refs[0]} may still be at ${volts} V however long it has stood: nothing here is sure to empty it.`;
}

function storeState(
  store: EnergyStore,
  proofs: readonly ProofReading[],
  chargedAgainAt: number | null,
  now: number,
): StoreState {
  const own = proofs.filter((p) => p.boardId === store.boardId && p.storeKey === store.key && p.meterProved);
  const proof = own.reduce<ProofReading | null>((last, p) => (last === null || p.at >= last.at ? p : last), null);
  if (!proof || (chargedAgainAt !== null && proof.at <= chargedAgainAt))
    return { store, proof: null, state: 'not-proved' };
  if (now - proof.at > PROOF_MINUTES * 60_000) return { store, proof, state: 'expired' };
  const volts = Math.abs(proof.volts);
  const joules = (store.farads * volts * volts) / 2;
  if (volts >= TOUCH_LIMIT_VOLTS || joules >= TOUCH_LIMIT_JOULES) return { store, proof, state: 'charged' };
  return { store, proof, state: volts < METER_LIMIT_VOLTS ? 'discharged' : 'touch' };
}
