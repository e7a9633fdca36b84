import type { Board } from '../circuit';
import { anatomy } from './anatomy';
import type { Anatomy } from './anatomy';
import { findPowerSwitches } from './cells';
import { ClaimBook } from './claims';
import type { Scene } from './claims';
import { supposeMissing } from './completion';
import { findConverters } from './converters';
import type { AmplifierLoop } from './icClasses';
import type { Branch } from './partGraph';
import { findPinRoles, pinScenes } from './pinRoles';
import type { PinFinding } from './pinRoles';
import { findSecondaries } from './secondaries';
import { withSupposed } from './supposed';
import type { Half } from './supposed';

/** At most this many parts are supposed where nobody has traced them. */
const MOST_SUPPOSED = 6;

/** Switches and converters of a board, completed with what it must have and nobody has traced yet. */
function completed(board: Board): Half & { readonly missing: readonly string[] } {
  let now = board;
  const missing: string[] = [];
  for (;;) {
    const a = anatomy(now);
    const switches = findPowerSwitches(a);
    const half = { a, switches, converters: findConverters(a, switches) };
    const supposed = missing.length < MOST_SUPPOSED ? supposeMissing(half) : null;
    if (!supposed) return { ...half, missing };
    missing.push(supposed.words);
    now = withSupposed(now, supposed);
  }
}

export function readScene(board: Board): Scene {
  const { a, switches, converters, missing } = completed(board);
  const driven = new Set([
    ...converters.flatMap((c) => (c.core ? c.coils : [])),
    ...switches.driveCores.flatMap((c) => c.windings),
    ...pulsed(a),
  ]);
  const primaries = new Set(converters.flatMap((c) => [c.supply, ...c.nodes]));
  const cores = a.cores.filter((c) => c.purpose === 'transformer' && !switches.driveCores.includes(c));
  const power = new Set(converters.flatMap((c) => c.transistors));
  const secondaries = findSecondaries(a, cores, driven, primaries, power);
  const pins = new Map<Branch, readonly PinFinding[]>();
  const loops = new Map<Branch, readonly AmplifierLoop[]>();
  for (const scene of pinScenes(a, switches, converters, secondaries)) {
    pins.set(scene.ic, findPinRoles(scene));
    loops.set(scene.ic, scene.loops);
  }
  return { a, switches, converters, secondaries, pins, loops, missing, book: new ClaimBook() };
}

/** Windings that a thyristor pulses: driven too. */
function pulsed(a: Anatomy): readonly Branch[] {
  return a.graph.all('triac').flatMap((t) => a.graph.on(t.nets[0]!, 'inductor').map((p) => p.branch));
}
