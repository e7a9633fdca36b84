import type { Board, LayoutItem, Nameplate, Subcircuit } from '@/core/circuit';
import type { Model, Part } from '@/core/part';
import type { BoardJson, PartJson } from './boardJson';

/** A board as plain JSON, for a file, a request or a column. */
export function boardToJson(board: Board): BoardJson {
  const plain = (part: Part): PartJson => structuredClone(part) as PartJson;
  return {
    format: 'rough-lantern-board',
    version: 1,
    title: board.title,
    parts: board.parts.map(plain),
    couplings: board.couplings.map((c) => ({ ...c })),
    models: [...board.models.values()].map((m) => ({ ...m, numbers: { ...m.numbers } })),
    subcircuits: [...board.subcircuits.values()].map((s) => ({
      name: s.name,
      pins: [...s.pins],
      parts: s.parts.map(plain),
      couplings: s.couplings.map((c) => ({ ...c })),
      written: [...s.written],
    })),
    layout: board.layout.map((l) => ({ ...l })),
    ...(board.nameplate === undefined ? {} : { nameplate: structuredClone(board.nameplate) as BoardJson['nameplate'] }),
    ...(board.facts === undefined ? {} : { facts: structuredClone(board.facts) as BoardJson['facts'] }),
  };
}

/** A board from its checked JSON. */
export function boardFromJson(json: BoardJson): Board {
  const keyed = <T extends { readonly name: string }>(list: readonly T[]): ReadonlyMap<string, T> =>
    new Map(list.map((item) => [item.name.toLowerCase(), item]));
  return {
    title: json.title,
    parts: json.parts as readonly Part[],
    couplings: json.couplings,
    models: keyed(json.models as readonly Model[]),
    subcircuits: keyed(json.subcircuits as readonly Subcircuit[]),
    layout: json.layout as readonly LayoutItem[],
    ...(json.nameplate === undefined ? {} : { nameplate: json.nameplate as Nameplate }),
    ...(json.facts === undefined ? {} : { facts: json.facts }),
  };
}
