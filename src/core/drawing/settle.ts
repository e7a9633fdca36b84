import { emptySheet, trimmed } from './placement';
import type { Placement } from './placement';
import type { Scene } from './scene';
import { Sheet } from './sheet';
import { standingOn } from './standing';
import type { Standing } from './remembered';

/** Tries for each symbol. */
const TRIES = 900;

/** Places every symbol: first along the power's way, then by small changes that shorten and straighten the wires. */
export function settle(scene: Scene, attempt = 1): Placement {
  for (let more = 0; ; more += MORE_ROWS) {
    const p = emptySheet(scene, attempt, more);
    const sheet = new Sheet(scene, p, attempt);
    // Large symbols on the barrier may need a taller sheet than all of them together.
    if (!sheet.begin()) continue;
    sheet.anneal(TRIES * scene.symbols.length);
    return trimmed(scene, p);
  }
}

/** Rows that a sheet gets at its foot where there is no room left, and how often. */
const MORE_ROWS = 4;
const GROWS = 4;

/**
 * Leaves every symbol where it stood on the sheet before, and finds room for those that are new. Null where too much is new
 * for that: then the whole is better placed anew.
 */
export function resettle(scene: Scene, before: Standing): Placement | null {
  if (before.barrier < 0 && scene.parted) return null;
  for (let more = 0; more <= GROWS * MORE_ROWS; more += MORE_ROWS) {
    const found = standingOn(scene, before, before.rows + more);
    if (found === 'no room') continue;
    return found;
  }
  return null;
}
