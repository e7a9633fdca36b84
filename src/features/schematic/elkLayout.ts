import type { ElkExtendedEdge, ElkNode } from 'elkjs/lib/elk-api.js';
import { arrangeRooms } from '@/core/schematic';
import type { BarrierLine, NetFlag, PlacedRoom, SchematicGraph, SchematicRoom, SymbolBox } from '@/core/schematic';

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A laid-out schematic, pixels: rooms, symbols (their boxes' corners), flags and wires. */
export interface SchematicLayout {
  readonly graph: SchematicGraph;
  readonly symbols: readonly SymbolBox[];
  readonly flags: readonly NetFlag[];
  readonly rooms: readonly PlacedRoom[];
  readonly barrier: readonly BarrierLine[];
  readonly width: number;
  readonly top: number;
  readonly height: number;
  readonly at: ReadonlyMap<string, Point>;
  readonly wires: ReadonlyMap<string, readonly Point[]>;
}

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.layered.spacing.nodeNodeBetweenLayers': '26',
  'elk.spacing.nodeNode': '14',
  'elk.spacing.edgeNode': '10',
  'elk.spacing.edgeEdge': '7',
  'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
  'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
  'elk.separateConnectedComponents': 'true',
  'elk.spacing.componentComponent': '14',
  'elk.aspectRatio': '1.6',
  'elk.padding': '[top=30,left=12,bottom=12,right=12]',
} as const;

/** Width that the rooms' rows keep to, pixels. */
export const SHEET_WIDTH = 1500;

/** One thing that lays a graph out: elkjs in a worker, or in a test. */
export interface LayoutEngine {
  layout(graph: ElkNode): Promise<ElkNode>;
}

/** Lays each room out by itself, then the rooms in rows: what changes in one room leaves the others as they are. */
export async function layOut(graph: SchematicGraph, engine: LayoutEngine): Promise<SchematicLayout> {
  const done = await Promise.all(graph.rooms.map((room) => engine.layout(roomGraph(room))));
  const arranged = arrangeRooms(
    graph.rooms.map((room, i) => ({
      id: room.id,
      row: room.row,
      island: room.island,
      width: Math.max(done[i]!.width ?? 0, 30 + 8 * room.kind.length),
      height: done[i]!.height ?? 0,
    })),
    SHEET_WIDTH,
  );
  const at = new Map<string, Point>();
  const wires = new Map<string, readonly Point[]>();
  graph.rooms.forEach((room, i) => {
    const corner = arranged.rooms.find((r) => r.id === room.id)!;
    const margins = new Map(room.symbols.map((s) => [s.ref, s.margin]));
    for (const child of done[i]!.children ?? []) {
      const margin = margins.get(child.id) ?? { west: 0, top: 0 };
      at.set(child.id, { x: corner.x + (child.x ?? 0) + margin.west, y: corner.y + (child.y ?? 0) + margin.top });
    }
    for (const edge of (done[i]!.edges ?? []) as ElkExtendedEdge[]) {
      const [section] = edge.sections ?? [];
      const points = section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : [];
      wires.set(
        edge.id,
        points.map((p) => ({ x: corner.x + p.x, y: corner.y + p.y })),
      );
    }
  });
  return {
    graph,
    symbols: graph.rooms.flatMap((r) => r.symbols),
    flags: graph.rooms.flatMap((r) => r.flags),
    rooms: arranged.rooms,
    barrier: arranged.barrier,
    width: arranged.width,
    top: arranged.top,
    height: arranged.height,
    at,
    wires,
  };
}

function roomGraph(room: SchematicRoom): ElkNode {
  const symbols = room.symbols.map((s): ElkNode => {
    const { west, east, top } = s.margin;
    return {
      id: s.ref,
      width: s.width + west + east,
      height: s.height + top,
      layoutOptions: { 'elk.portConstraints': 'FIXED_POS' },
      ports: s.ports.map((p) => ({
        id: p.id,
        width: 0,
        height: 0,
        x: p.side === 'west' ? 0 : s.width + west + east,
        y: p.y + top,
        layoutOptions: { 'elk.port.side': p.side === 'west' ? 'WEST' : 'EAST' },
      })),
    };
  });
  const flags = room.flags.map((f): ElkNode => ({ id: f.id, width: f.width, height: f.height }));
  const edges = room.wires.map((w): ElkExtendedEdge => ({ id: w.id, sources: [w.from], targets: [w.to] }));
  return { id: room.id, layoutOptions: { ...OPTIONS }, children: [...symbols, ...flags], edges };
}
