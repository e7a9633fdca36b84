import { netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Part } from '../part';
import type { StageMap } from '../stages';
import type { Pose } from './form';
import { pose } from './form';
import {
  bridgeForm,
  connectorForm,
  facingForm,
  icForm,
  icSides,
  regulatorForm,
  standingForm,
  standingPoses,
  tall,
  tallMirrored,
  transformerForm,
  twoPinForm,
  twoPinPoses,
} from './forms';
import type { IcSides, StandingWinding } from './forms';
import { symbolKind } from './kinds';
import type { SheetSide, SheetSides } from './sheetSides';

/** What it costs a part that crosses the barrier to stand elsewhere. */
const OFF_THE_BARRIER = 60;

/** A transformer's windings on their sides of the core; on the barrier where they are of both sides. */
export function transformer(
  windings: readonly Part[],
  level: (net: string) => number,
  sides: SheetSides,
): [readonly Pose[], SheetSide] {
  const stand = (part: Part): StandingWinding => ({ part, down: level(part.nets[0]!) < level(part.nets[1]!) });
  const leftOf = windings.filter((w) => sides.of(w.nets) === 'left');
  const rightOf = windings.filter((w) => sides.of(w.nets) === 'right');
  const across = leftOf.length > 0 && rightOf.length > 0;
  const [left, right] = across ? [leftOf, rightOf] : [windings.slice(0, 1), windings.slice(1)];
  const rest = windings.filter((w) => !left.includes(w) && !right.includes(w));
  const form = transformerForm(inTaps([...left, ...rest]).map(stand), inTaps(right).map(stand));
  const poses = [tall(form, 2, 3, 1), ...(across ? [] : [tallMirrored(form, 2, 3, 1)])];
  return [poses, across ? 'barrier' : sides.of(windings.flatMap((w) => w.nets))];
}

/** Windings that share a net next to each other. */
function inTaps(windings: readonly Part[]): readonly Part[] {
  const rest = [...windings];
  const sorted: Part[] = [];
  while (rest.length > 0) {
    const nets = new Set(sorted.at(-1)?.nets.map(netKey));
    const next = Math.max(
      0,
      rest.findIndex((w) => w.nets.some((n) => nets.has(netKey(n)))),
    );
    sorted.push(...rest.splice(next, 1));
  }
  return sorted;
}

/** How the symbol of a part may stand. */
export function posesOf(
  board: Board,
  map: StageMap,
  part: Part,
  side: SheetSide,
  sides: SheetSides,
  before?: IcSides,
): readonly Pose[] {
  const kind = symbolKind(board, part);
  switch (part.kind) {
    case 'mosfet':
    case 'bjt':
    case 'triac':
    case 'shunt-reference':
      return standingPoses(standingForm(part, kind));
    case 'regulator': {
      const form = regulatorForm(part);
      const at = { cols: 1, rows: 1, x: 1, y: 1 };
      return [pose(form, 0, false, at), pose(form, 0, true, at, 3)];
    }
    case 'opto':
    case 'relay': {
      const form = facingForm(part, kind);
      const poses = [tall(form, 2, 3, 1), tallMirrored(form, 2, 3, 1)];
      if (side !== 'barrier') return poses;
      return [sides.of(part.nets.slice(0, 2)) === 'right' ? poses[1]! : poses[0]!];
    }
    case 'bridge': {
      const form = bridgeForm(part);
      return [tall(form, 1, 2, 2)];
    }
    case 'connector': {
      const lines = part.nets.length === 2 && sides.isAlternating(part);
      const form = connectorForm(part, lines);
      return [tall(form, 1, 2, 1), tallMirrored(form, 1, 2, 1)];
    }
    case 'ic': {
      if (kind !== 'ic') return twoPins(part, kind, side, sides);
      const roles = part.nets.map((_, i) => map.pins[part.ref]?.[i]?.role ?? 'UNKNOWN');
      const all = before ? Object.values(before).flat().length : -1;
      const form = icForm(part, before && all === part.nets.length ? before : icSides(roles));
      return [tall(form, form.width > 17 ? 3 : 2, 1, 1, 2)];
    }
    default:
      return twoPins(part, kind, side, sides);
  }
}

/** A part with two pins: it lies or stands; across the barrier where it crosses it. */
function twoPins(part: Part, kind: string, side: SheetSide, sides: SheetSides): readonly Pose[] {
  const form = twoPinForm(part, kind);
  if (side !== 'barrier') return twoPinPoses(form);
  const turned = sides.of([part.nets[0]!]) === 'right';
  const across = pose(form, turned ? 2 : 0, false, { cols: 2, rows: 1, x: 6, y: 2 });
  // Where it stood before the barrier was known it may stay.
  return [across, ...twoPinPoses(form).map((p) => ({ ...p, cost: OFF_THE_BARRIER }))];
}
