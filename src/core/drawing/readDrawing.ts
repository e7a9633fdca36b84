import { netKey, NOT_CONNECTED } from '../circuit';
import type { Board } from '../circuit';
import { findPowerPath } from '../stages';
import type { StageMap } from '../stages';
import { joinBlocks } from './blocks';
import type { Pose } from './form';
import { chokeForm, tall, tallMirrored } from './forms';
import { POWER_ORDER } from './flow';
import { symbolKind } from './kinds';
import { netLevels, signNets } from './levels';
import { orderedPairs, powerNets, powerRanks } from './neighbours';
import { posesOf, transformer } from './poses';
import { sheetSides } from './sheetSides';
import type { Scene, SceneNet, SceneSymbol } from './scene';
import type { SheetSide } from './sheetSides';
import type { Standing } from './remembered';

/** What is to be drawn of a board: one symbol a part, one for the windings of a core. */
export function readDrawing(board: Board, map: StageMap, before?: Standing): Scene {
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
    symbols.push({ members: [{ refs, kind }], poses, side, stages, seats: seatsOf(map, refs[0]!, kind, poses[0]!) });
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
    add(
      [part.ref],
      symbolKind(board, part),
      posesOf(board, map, part, side, sides, before?.places[part.ref]?.sides),
      side,
    );
  }
  const blocks = joinBlocks(board, symbols, signs, levels, before);
  const path = findPowerPath(board);
  const nets = netsOf(board, blocks, signs, levels, powerNets(path));
  const stages = stagesOf(map, blocks);
  const ranks = powerRanks({ stages, nets }, path);
  const { parted } = sides;
  return {
    board,
    map,
    symbols: blocks,
    nets,
    stages,
    order: orderedPairs({ stages, symbols: blocks, parted }, ranks),
    along: ranks.map((r) => (r < 0 ? 0.5 : r / POWER_ORDER.length)),
    parted,
  };
}

/** Pins of an IC at its sides: those of one side among each other, and what nothing is known of among all. */
function seatsOf(map: StageMap, ref: string, kind: string, pose: Pose): readonly (readonly number[])[] {
  if (kind !== 'ic') return [];
  const at = (side: string): readonly number[] => pose.pins.flatMap((p, k) => (p.side === side ? [k] : []));
  const unknown = (k: number): boolean =>
    ['UNKNOWN', 'NC', undefined].includes(map.pins[ref]?.[pose.pins[k]!.pin]?.role);
  const [left, right] = [at('left'), at('right')];
  return [left, right, [...left, ...right].filter(unknown)].filter((g) => g.length > 1);
}

function netsOf(
  board: Board,
  symbols: readonly SceneSymbol[],
  signs: ReadonlyMap<string, number>,
  levels: ReadonlyMap<string, number>,
  power: ReadonlySet<string>,
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
  // In an order of their own, whatever that of the parts and pins.
  const order = (i: number, k: number): string => symbols[i]!.poses[0]!.pins.map((p) => `${p.ref} ${p.pin}`)[k]!;
  const sorted = [...pins].sort(([a], [b]) => (a < b ? -1 : 1));
  for (const [, { list }] of sorted) list.sort((a, b) => (order(...a) < order(...b) ? -1 : 1));
  return sorted.flatMap(([key, { name, list }]) =>
    key === netKey(NOT_CONNECTED)
      ? []
      : [
          {
            key,
            name,
            pins: list,
            sign: signs.get(key) ?? null,
            level: levels.get(key) ?? 0.5,
            isPower: power.has(key),
          },
        ],
  );
}

function stagesOf(map: StageMap, symbols: readonly SceneSymbol[]): Scene['stages'] {
  return map.stages.flatMap(({ kind, parts }, i) => {
    const own = symbols.flatMap((s, k) =>
      s.stages.includes(i) && s.members.some((m) => m.refs.some((r) => parts.includes(r))) ? [k] : [],
    );
    const says = own.filter((k) => (symbols[k]!.side === 'barrier') === (kind === 'transformer'));
    return own.length === 0 ? [] : [{ kind, symbols: own, body: says.length > 0 ? says : own }];
  });
}
