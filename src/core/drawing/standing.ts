import type { Side } from './drawing';
import { CELL_HEIGHT, CELL_WIDTH } from './form';
import type { IcSides } from './forms';
import { sheetOf } from './placement';
import type { Placement } from './placement';
import type { Scene } from './scene';
import type { Standing, Stood } from './remembered';
import { Sheet } from './sheet';

/** More new blocks than this share are a new drawing. */
const MOST_NEW = 0.4;

/** The cell that so many steps lead into. */
const cell = (steps: number, size: number): number => Math.floor(steps / size);

export function standingOf(scene: Scene, p: Placement): Standing {
  const places: Record<string, Stood> = {};
  scene.symbols.forEach((s, i) =>
    s.poses[p.pose[i]!]!.parts.forEach((part, m) => {
      const sides = s.members[m]!.kind === 'ic' ? sidesNow(scene, p, i) : null;
      places[s.members[m]!.refs[0]!] = {
        col: p.col[i]! + cell(part.x, CELL_WIDTH),
        row: p.row[i]! + cell(part.y, CELL_HEIGHT),
        turn: part.turn,
        flip: part.flip,
        ...(sides ? { sides } : {}),
      };
    }),
  );
  return { cols: p.cols, rows: p.rows, barrier: p.barrier, places };
}

/** The sides that an IC's pins are at, in their order there. */
function sidesNow(scene: Scene, p: Placement, i: number): IcSides {
  const { pins } = scene.symbols[i]!.poses[p.pose[i]!]!;
  const at = (side: Side): readonly number[] =>
    pins
      .map((pin, k) => ({ pin: pin.pin, seat: pins[p.seats[i]?.[k] ?? k]! }))
      .filter(({ seat }) => seat.side === side)
      .sort((a, b) => a.seat.y - b.seat.y || a.seat.x - b.seat.x)
      .map(({ pin }) => pin);
  return { up: at('up'), down: at('down'), left: at('left'), right: at('right') };
}

/** A sheet of so many rows with what stood on it before, the rest fitted in; null where too much of it is new. */
export function standingOn(scene: Scene, before: Standing, rows: number): Placement | 'no room' | null {
  const p = sheetOf(scene, before.cols, rows, before.barrier);
  const sheet = new Sheet(scene, p, 1);
  const known = scene.symbols.map((s) => s.members.map((m) => before.places[m.refs[0]!]));
  const unlike = (list: readonly number[], whole: boolean): readonly number[] =>
    list.filter((i) => !known[i]![0] || !standAsBefore(scene, sheet, i, known[i]!, whole));
  const fresh = unlike([...known.keys()], true);
  // What has another shape now stands as near to how it stood as there is room.
  const left = unlike(fresh, false);
  if (left.length > Math.max(2, MOST_NEW * scene.symbols.length)) return null;
  for (const i of left) {
    const [x, y] = besides(scene, p, i, known[i]!);
    if (!sheet.nearest(i, x, y)) return 'no room';
  }
  // What stood somewhere stays near there; the best place is looked for only for what is new.
  const unknown = left.filter((i) => known[i]!.every((stood) => !stood));
  if (unknown.length > 0) sheet.fit(unknown);
  return p;
}

/** Puts a block where its first member stood, as it was turned. */
function standAsBefore(
  scene: Scene,
  sheet: Sheet,
  i: number,
  known: readonly (Stood | undefined)[],
  whole: boolean,
): boolean {
  const { poses } = scene.symbols[i]!;
  const [first] = known as [Stood];
  const order = poses
    .map((pose, k) => ({
      k,
      pose,
      alike: pose.parts.filter((part, m) => {
        const stood = known[m];
        if (!stood || part.turn !== stood.turn || part.flip !== stood.flip) return false;
        const [dx, dy] = [stood.col - first.col, stood.row - first.row];
        return (
          cell(part.x, CELL_WIDTH) - cell(pose.parts[0]!.x, CELL_WIDTH) === dx &&
          cell(part.y, CELL_HEIGHT) - cell(pose.parts[0]!.y, CELL_HEIGHT) === dy
        );
      }).length,
    }))
    .sort((a, b) => b.alike - a.alike);
  for (const { k, pose, alike } of order) {
    if (whole && alike < pose.parts.length) continue;
    const lead = pose.parts[0]!;
    if (sheet.stand(i, first.col - cell(lead.x, CELL_WIDTH), first.row - cell(lead.y, CELL_HEIGHT), k)) return true;
  }
  return false;
}

/** The middle of what a block is joined to and of where it stood, among what stands already. */
function besides(
  scene: Scene,
  p: Placement,
  i: number,
  known: readonly (Stood | undefined)[],
): readonly [number, number] {
  const own = known.find((stood) => stood !== undefined);
  if (own) return [own.col, own.row];
  const near = scene.nets
    .filter((n) => n.sign === null && n.pins.some(([s]) => s === i))
    .flatMap((n) => n.pins.map(([s]) => s))
    .filter((s) => s !== i && p.col[s]! >= 0);
  if (near.length === 0) return [p.cols / 2, p.rows - 1];
  const mean = (list: Int16Array): number => near.reduce((sum, s) => sum + list[s]!, 0) / near.length;
  return [mean(p.col), mean(p.row)];
}
