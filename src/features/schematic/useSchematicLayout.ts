'use client';
import ELK from 'elkjs/lib/elk-api.js';
import type { ElkExtendedEdge, ElkNode } from 'elkjs/lib/elk-api.js';
import { useEffect, useMemo, useState } from 'react';
import type { Board } from '@/core/circuit';
import { schematicGraph } from '@/core/schematic';
import type { SchematicGraph } from '@/core/schematic';

interface Point {
  readonly x: number;
  readonly y: number;
}

/** A laid-out schematic: where each symbol stands and how each wire runs, pixels. */
export interface SchematicLayout {
  readonly graph: SchematicGraph;
  readonly width: number;
  readonly height: number;
  readonly at: ReadonlyMap<string, Point>;
  readonly wires: ReadonlyMap<string, readonly Point[]>;
}

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.layered.spacing.nodeNodeBetweenLayers': '46',
  'elk.spacing.nodeNode': '36',
  'elk.spacing.edgeNode': '14',
  'elk.spacing.edgeEdge': '8',
  'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
  'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
  'elk.separateConnectedComponents': 'true',
  'elk.spacing.componentComponent': '40',
  'elk.aspectRatio': '2.4',
} as const;

/** Room that a symbol's label and stub names take around it, pixels. */
const LABEL_TOP = 18;
export const STUB = 34;

let engine: InstanceType<typeof ELK> | null = null;

/** Lays a board's schematic out in a worker; null until it is there. */
export function useSchematicLayout(board: Board): {
  readonly layout: SchematicLayout | null;
  readonly failed: boolean;
} {
  const graph = useMemo(() => schematicGraph(board), [board]);
  const [layout, setLayout] = useState<SchematicLayout | null>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    let stale = false;
    engine ??= new ELK({ workerUrl: '/elk-worker.min.js' });
    engine
      .layout(toElk(graph))
      .then((done) => {
        if (!stale) setLayout(fromElk(graph, done));
      })
      .catch(() => {
        if (!stale) setFailed(true);
      });
    return () => {
      stale = true;
    };
  }, [graph]);
  return { layout, failed };
}

function toElk(graph: SchematicGraph): ElkNode {
  const children = graph.symbols.map((s): ElkNode => {
    const west = s.ports.some((p) => p.side === 'west' && p.stub !== null) ? STUB : 0;
    const east = s.ports.some((p) => p.side === 'east' && p.stub !== null) ? STUB : 0;
    return {
      id: s.ref,
      width: s.width + west + east,
      height: s.height + LABEL_TOP,
      layoutOptions: { 'elk.portConstraints': 'FIXED_POS' },
      ports: s.ports.map((p) => ({
        id: p.id,
        width: 0,
        height: 0,
        x: p.side === 'west' ? 0 : s.width + west + east,
        y: p.y + LABEL_TOP,
        layoutOptions: { 'elk.port.side': p.side === 'west' ? 'WEST' : 'EAST' },
      })),
    };
  });
  const edges = graph.wires.map((w): ElkExtendedEdge => ({ id: w.id, sources: [w.from], targets: [w.to] }));
  return { id: 'root', layoutOptions: { ...OPTIONS }, children, edges };
}

function fromElk(graph: SchematicGraph, done: ElkNode): SchematicLayout {
  const west = new Map(
    graph.symbols.map((s) => [s.ref, s.ports.some((p) => p.side === 'west' && p.stub !== null) ? STUB : 0]),
  );
  const at = new Map(
    (done.children ?? []).map((c) => [c.id, { x: (c.x ?? 0) + west.get(c.id)!, y: (c.y ?? 0) + LABEL_TOP }]),
  );
  const wires = new Map(
    ((done.edges ?? []) as ElkExtendedEdge[]).map((e) => {
      const [section] = e.sections ?? [];
      return [e.id, section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : []] as const;
    }),
  );
  return { graph, width: done.width ?? 0, height: done.height ?? 0, at, wires };
}
