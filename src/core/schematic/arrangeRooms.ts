import type { RoomRow } from './rooms';

/** A room that has been laid out inside: its size, pixels. */
export interface SizedRoom {
  readonly id: string;
  readonly row: RoomRow;
  readonly island: number;
  readonly width: number;
  readonly height: number;
}

export interface PlacedRoom {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Where the isolation runs: a vertical line in one row. */
export interface BarrierLine {
  readonly x: number;
  readonly top: number;
  readonly bottom: number;
}

export interface Arrangement {
  readonly rooms: readonly PlacedRoom[];
  readonly barrier: readonly BarrierLine[];
  readonly width: number;
  /** Where the sheet begins: above 0, where the path goes on from the storage. */
  readonly top: number;
  readonly height: number;
}

const ROWS: readonly RoomRow[] = ['control', 'input', 'power', 'feedback'];
/** Rows that stand above the sheet's origin and grow upwards. */
const UPPER: readonly RoomRow[] = ['control', 'input'];
const GAP = 18;
const BARRIER_GAP = 44;
/** Rooms grow in steps of this many pixels, so that a small change inside moves nothing outside. */
const STEP = 40;
const SLACK = 6;

/**
 * Places rooms in rows from left to right: control on top, the power path along the middle, feedback below; the
 * primary side first, the other islands after it with the barrier between. A row that is too long goes on below.
 *
 * most  the width to keep to, pixels.
 */
export function arrangeRooms(rooms: readonly SizedRoom[], most: number): Arrangement {
  const placed: PlacedRoom[] = [];
  const barrier: BarrierLine[] = [];
  let y = 0;
  let widest = 0;
  for (const row of ROWS) {
    const own = rooms.filter((r) => r.row === row);
    const islands = [...new Set(own.map((r) => r.island))].sort((a, b) => order(a) - order(b));
    let [x, top, height] = [0, y, 0];
    islands.forEach((island, i) => {
      if (i > 0) x += BARRIER_GAP - GAP;
      const lineAt = x - BARRIER_GAP / 2;
      let marked = i === 0 || island < 0;
      for (const room of own.filter((r) => r.island === island)) {
        const [w, h] = [stepped(room.width), stepped(room.height)];
        if (x > 0 && x + w > most) {
          [x, top, height] = [0, top + height + GAP, 0];
          marked = true;
        }
        if (!marked) {
          barrier.push({ x: lineAt, top, bottom: top + h });
          marked = true;
        }
        placed.push({ id: room.id, x, y: top, width: w, height: h });
        x += w + GAP;
        height = Math.max(height, h);
        widest = Math.max(widest, x - GAP);
      }
    });
    if (own.length > 0) y = top + height + GAP;
  }
  // The line between input and power stands still: what is above grows upwards, the rest downwards.
  const rowOf = new Map(rooms.map((r) => [r.id, r.row]));
  const middle = Math.min(y, ...placed.filter((p) => !UPPER.includes(rowOf.get(p.id)!)).map((p) => p.y));
  const top = placed.length === 0 ? 0 : -middle;
  return {
    rooms: placed.map((p) => ({ ...p, y: p.y + top })),
    barrier: barrier.map((b) => ({ ...b, top: b.top + top, bottom: b.bottom + top })),
    width: widest,
    top,
    height: Math.max(0, y - GAP),
  };
}

/** The island of most nets is the first, lone parts come last. */
function order(island: number): number {
  return island < 0 ? Infinity : island;
}

function stepped(pixels: number): number {
  return STEP * Math.ceil((pixels + SLACK) / STEP);
}
