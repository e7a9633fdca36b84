import type { Part } from '../part';
import type { PinRole } from '../stages';
import type { Form, FormPin, Pose } from './form';
import { CELL_HEIGHT, pose } from './form';
import type { Side } from './drawing';

const pin = (ref: string, index: number, x: number, y: number, side: Side): FormPin => ({
  ref,
  pin: index,
  x,
  y,
  side,
});

const ONE = { cols: 1, rows: 1 } as const;
/** A transistor or what else carries its current down the page and is told what to do from the side. */
const LYING_COST = 14;

/** A two-pin part: it lies from left to right. */
export function twoPinForm(part: Part, kind: string): Form {
  return {
    kind,
    width: 4,
    height: 2,
    pins: [pin(part.ref, 0, 0, 1, 'left'), pin(part.ref, 1, 4, 1, 'right')],
  };
}

export function twoPinPoses(form: Form): readonly Pose[] {
  return [
    pose(form, 0, false, { ...ONE, x: 1, y: 2 }),
    pose(form, 1, false, { ...ONE, x: 2, y: 1 }),
    pose(form, 2, false, { ...ONE, x: 1, y: 2 }),
    pose(form, 3, false, { ...ONE, x: 2, y: 1 }),
  ];
}

/** Pins of a part that stands: top, side, bottom, by their place in its list of nets. */
const STANDING: Readonly<Record<string, readonly [number, number, number]>> = {
  mosfet: [0, 1, 2],
  bjt: [0, 1, 2],
  triac: [0, 2, 1],
  'shunt-reference': [2, 0, 1],
};

export function standingForm(part: Part, kind: string): Form {
  const [top, side, bottom] = STANDING[part.kind]!;
  return {
    kind,
    width: 4,
    height: 4,
    pins: [pin(part.ref, top, 2, 0, 'up'), pin(part.ref, side, 0, 2, 'left'), pin(part.ref, bottom, 2, 4, 'down')].sort(
      (a, b) => a.pin - b.pin,
    ),
  };
}

export function standingPoses(form: Form): readonly Pose[] {
  const at = { ...ONE, x: 1, y: 1 };
  return [
    pose(form, 0, false, at),
    pose(form, 0, true, at, 0.5),
    pose(form, 2, true, at),
    pose(form, 2, false, at, 0.5),
    pose(form, 1, false, at, LYING_COST),
    pose(form, 1, true, at, LYING_COST),
    pose(form, 3, false, at, LYING_COST),
    pose(form, 3, true, at, LYING_COST),
  ];
}

/** In at the left, out at the right, its return below. */
export function regulatorForm(part: Part): Form {
  const pins = [pin(part.ref, 0, 0, 2, 'left'), pin(part.ref, 1, 2, 4, 'down'), pin(part.ref, 2, 4, 2, 'right')];
  return { kind: 'regulator', width: 4, height: 4, pins };
}

/** Two things that face each other over a gap: an opto, a relay. */
export function facingForm(part: Part, kind: string): Form {
  const pins = [
    pin(part.ref, 0, 0, 0, 'left'),
    pin(part.ref, 1, 0, 4, 'left'),
    pin(part.ref, 2, 10, 0, 'right'),
    pin(part.ref, 3, 10, 4, 'right'),
  ];
  return { kind, width: 10, height: 4, pins };
}

/** Steps between the two lines of an inlet: a part between them stands there. */
const LINES_APART = 2 * CELL_HEIGHT;

/** Both lines in at the left, plus and minus out at the right. */
export function bridgeForm(part: Part): Form {
  const pins = [
    pin(part.ref, 0, 0, 1, 'left'),
    pin(part.ref, 1, 0, 1 + LINES_APART, 'left'),
    pin(part.ref, 2, 6, 1, 'right'),
    pin(part.ref, 3, 6, 1 + LINES_APART, 'right'),
  ];
  return { kind: 'bridge', width: 6, height: 2 + LINES_APART, pins };
}

/** Windings that carry a line each: one below the other, from left to right. */
export function chokeForm(windings: readonly Part[], kind: string): Form {
  const apart = windings.length === 2 ? LINES_APART : CELL_HEIGHT;
  const pins = windings.flatMap((w, i) => [
    pin(w.ref, 0, 0, 1 + i * apart, 'left'),
    pin(w.ref, 1, 4, 1 + i * apart, 'right'),
  ]);
  return { kind, width: 4, height: 2 + (windings.length - 1) * apart, pins };
}

/** A winding of a transformer; `down`: its first end at the bottom. */
export interface StandingWinding {
  readonly part: Part;
  readonly down: boolean;
}

/** A transformer: windings on both sides of its core. */
export function transformerForm(left: readonly StandingWinding[], right: readonly StandingWinding[]): Form {
  const rows = Math.max(left.length, right.length, 1);
  const column = (list: readonly StandingWinding[], x: number, side: Side): readonly FormPin[] =>
    list.flatMap(({ part, down }, i) => {
      const top = CELL_HEIGHT * (i + Math.floor((rows - list.length) / 2));
      return [pin(part.ref, 0, x, top + (down ? 4 : 0), side), pin(part.ref, 1, x, top + (down ? 0 : 4), side)];
    });
  return {
    kind: 'transformer',
    width: 10,
    height: CELL_HEIGHT * (rows - 1) + 4,
    pins: [...column(left, 0, 'left'), ...column(right, 10, 'right')],
  };
}

/** Pins one below the other, out at the right. */
export function connectorForm(part: Part, lines: boolean): Form {
  const step = lines ? LINES_APART : part.nets.length <= 4 ? CELL_HEIGHT : 2;
  return {
    kind: 'connector',
    width: 4,
    height: 4 + (part.nets.length - 1) * step,
    pins: part.nets.map((_, i) => pin(part.ref, i, 4, 2 + i * step, 'right')),
  };
}

/** Where each pin of an IC stands, from top to bottom and from left to right. */
export interface IcSides {
  readonly up: readonly number[];
  readonly down: readonly number[];
  readonly left: readonly number[];
  readonly right: readonly number[];
}

const ABOVE: readonly PinRole[] = ['VCC', 'VIN', 'HV', 'DRAIN'];
const OUTPUTS: readonly PinRole[] = ['BST', 'GATE', 'SW', 'VOUT', 'SOURCE', 'CS'];
const INPUTS: readonly PinRole[] = ['EN', 'RT', 'FB', 'COMP', 'UNKNOWN', 'NC'];

/** Supply on top, ground below, what it is told at the left, what it drives at the right. */
export function icSides(roles: readonly PinRole[]): IcSides {
  const by = (list: readonly PinRole[]): readonly number[] =>
    list.flatMap((role) => roles.flatMap((r, i) => (r === role ? [i] : [])));
  const left = [...by(INPUTS)];
  const right = [...by(OUTPUTS)];
  // Nobody knows what they are: both sides alike.
  const unknown = by(['UNKNOWN', 'NC']);
  while (left.length > right.length + 1 && left.some((i) => unknown.includes(i))) {
    const i = left.findLastIndex((p) => unknown.includes(p));
    right.push(...left.splice(i, 1));
  }
  const up = by(ABOVE);
  return { up: up.slice(0, 3), down: by(['GND']), left, right: [...up.slice(3), ...right] };
}

const IC_WIDTH = 10;
/** From one pin at the top or the foot to the next: what is written at it has room. */
const IC_PITCH = 4;
/** Steps from its top to the first pin at its side, and from the last to its foot: room for the names of those above. */
const IC_SHOULDER = 2;
/** Sides with more pins than this have them closer together. */
const ROOMY_PINS = 4;
const CLOSE_STEP = 3;

export function icForm(part: Part, sides: IcSides): Form {
  const most = Math.max(sides.left.length, sides.right.length, 1);
  const step = most <= ROOMY_PINS ? CELL_HEIGHT : CLOSE_STEP;
  const height = (most - 1) * step + 2 * IC_SHOULDER;
  const width = Math.max(IC_WIDTH, IC_PITCH * Math.max(sides.up.length, sides.down.length));
  const along = (list: readonly number[], y: number, side: Side): readonly FormPin[] =>
    list.map((i, k) => pin(part.ref, i, 2 + IC_PITCH * k, y, side));
  const down = (list: readonly number[], x: number, side: Side): readonly FormPin[] =>
    list.map((i, k) => pin(part.ref, i, x, IC_SHOULDER + step * k, side));
  const pins = [
    ...along(sides.up, 0, 'up'),
    ...along(sides.down, height, 'down'),
    ...down(sides.left, 0, 'left'),
    ...down(sides.right, width, 'right'),
  ];
  return { kind: 'ic', width, height, pins };
}

/** A tall form from so many steps below its block's corner; the block takes the rows it needs. */
export function tall(form: Form, cols: number, x: number, y: number, more = 0): Pose {
  return pose(form, 0, false, { cols, rows: Math.ceil((y + form.height + more) / CELL_HEIGHT), x, y });
}

/** The same, mirrored. */
export function tallMirrored(form: Form, cols: number, x: number, y: number, more = 0): Pose {
  return pose(form, 0, true, { cols, rows: Math.ceil((y + form.height + more) / CELL_HEIGHT), x, y });
}
