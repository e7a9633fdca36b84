import { netKey, NOT_CONNECTED } from '../circuit';
import type { Board } from '../circuit';
import type { Part } from '../part';
import type { StageKind, StageMap } from '../stages';
import type { Pose } from './form';
import { pose } from './form';
import {
  bridgeForm,
  chokeForm,
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
import type { StandingWinding } from './forms';
import { symbolKind } from './kinds';
import { netLevels, signNets } from './levels';
import { sheetSides } from './sheetSides';
import type { SheetSide } from './sheetSides';

/** A symbol to be placed: what it stands for, how it may stand, where on the sheet it belongs. */
export interface SceneSymbol {
  readonly refs: readonly string[];
  readonly kind: string;
  readonly poses: readonly Pose[];
  readonly side: SheetSide;
  /** Indices of the stages its parts belong to; empty for what has none. */
  readonly stages: readonly number[];
}

/** A net to be drawn: its pins as numbers of symbol and pin of that symbol. */
export interface SceneNet {
  readonly key: string;
  readonly name: string;
  readonly pins: readonly (readonly [number, number])[];
  /** The island whose reference it is; null for a net of wires. */
  readonly sign: number | null;
  readonly level: number;
}

/** A board as symbols and nets. */
export interface Scene {
  readonly board: Board;
  readonly map: StageMap;
  readonly symbols: readonly SceneSymbol[];
  readonly nets: readonly SceneNet[];
  readonly stages: readonly { readonly kind: StageKind | 'unplaced'; readonly symbols: readonly number[] }[];
  /** Whether the sheet is parted by a barrier. */
  readonly parted: boolean;
}

/** What is to be drawn of a board: one symbol a part, one for the windings of a core. */
export function readDrawing(board: Board, map: StageMap): Scene {
  const signs = signNets(board, map);
  const levels = netLevels(board, map, signs);
  const sides = sheetSides(board, map);
  const stageOf = new Map(map.stages.flatMap((s, i) => s.parts.map((ref) => [ref, i] as const)));
  const byRef = new Map(board.parts.map((p) => [p.ref, p]));
  const level = (net: string): number => levels.get(netKey(net)) ?? 0.5;
  const symbols: SceneSymbol[] = [];
  const joined = new Set<string>();
  const add = (refs: readonly string[], kind: string, poses: readonly Pose[], side: SheetSide): void => {
    const stages = [...new Set(refs.flatMap((ref) => stageOf.get(ref) ?? []))];
    symbols.push({ refs, kind, poses, side, stages });
  };
  for (const core of map.cores) {
    const windings = core.refs.flatMap((ref) => byRef.get(ref) ?? []);
    if (windings.length < 2) continue;
    windings.forEach((w) => joined.add(w.ref));
    const line = core.purpose === 'common-mode' || core.purpose === 'output-choke';
    if (line) {
      const kind = core.purpose === 'common-mode' ? 'common-mode-choke' : 'coupled-choke';
      const form = chokeForm(windings, kind);
      const side = sides.of(windings.flatMap((w) => w.nets));
      add(core.refs, kind, [tall(form, 1, 1, 2), tallMirrored(form, 1, 1, 2)], side);
      continue;
    }
    add(core.refs, 'transformer', ...transformer(windings, level, sides));
  }
  for (const part of board.parts) {
    if (joined.has(part.ref)) continue;
    const side = sides.of(part.nets);
    add([part.ref], symbolKind(board, part), posesOf(board, map, part, side, sides), side);
  }
  return {
    board,
    map,
    symbols,
    nets: netsOf(board, symbols, signs, levels),
    stages: stagesOf(map, symbols),
    parted: sides.parted,
  };
}

function transformer(
  windings: readonly Part[],
  level: (net: string) => number,
  sides: ReturnType<typeof sheetSides>,
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

function posesOf(
  board: Board,
  map: StageMap,
  part: Part,
  side: SheetSide,
  sides: ReturnType<typeof sheetSides>,
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
      const roles = part.nets.map((_, i) => map.pins[part.ref]?.[i]?.role ?? 'UNKNOWN');
      const form = icForm(part, icSides(roles));
      return [tall(form, 2, 1, 1, 1)];
    }
    default: {
      const form = twoPinForm(part, kind);
      if (side !== 'barrier') return twoPinPoses(form);
      const turned = sides.of([part.nets[0]!]) === 'right';
      return [pose(form, turned ? 2 : 0, false, { cols: 2, rows: 1, x: 6, y: 2 })];
    }
  }
}

function netsOf(
  board: Board,
  symbols: readonly SceneSymbol[],
  signs: ReadonlyMap<string, number>,
  levels: ReadonlyMap<string, number>,
): readonly SceneNet[] {
  const parts = new Map(board.parts.map((p) => [p.ref, p]));
  const pins = new Map<string, { name: string; list: [number, number][] }>();
  symbols.forEach((s, i) =>
    s.poses[0]!.pins.forEach((p, k) => {
      const name = parts.get(p.ref)!.nets[p.pin]!;
      const known = pins.get(netKey(name)) ?? { name, list: [] };
      known.list.push([i, k]);
      pins.set(netKey(name), known);
    }),
  );
  return [...pins].flatMap(([key, { name, list }]) =>
    key === netKey(NOT_CONNECTED)
      ? []
      : [{ key, name, pins: list, sign: signs.get(key) ?? null, level: levels.get(key) ?? 0.5 }],
  );
}

function stagesOf(map: StageMap, symbols: readonly SceneSymbol[]): Scene['stages'] {
  return map.stages.flatMap(({ kind, parts }, i) => {
    const own = symbols.flatMap((s, k) => (s.stages.includes(i) && s.refs.some((r) => parts.includes(r)) ? [k] : []));
    return own.length === 0 ? [] : [{ kind, symbols: own }];
  });
}
