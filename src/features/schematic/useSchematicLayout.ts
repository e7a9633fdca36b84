'use client';
import ELK from 'elkjs/lib/elk-api.js';
import { useEffect, useMemo, useState } from 'react';
import type { Board } from '@/core/circuit';
import { schematicGraph } from '@/core/schematic';
import { recogniseStages } from '@/core/stages';
import type { IslandFinding } from '@/core/stages';
import { layOut } from './elkLayout';
import type { SchematicLayout } from './elkLayout';

let engine: InstanceType<typeof ELK> | null = null;

/** A layout with the board that it is of: while another is being laid out, the drawing stays that of the old board. */
interface Drawn {
  readonly layout: SchematicLayout;
  readonly board: Board;
  readonly islands: readonly IslandFinding[];
}

/** Lays a board's schematic out in a worker; null until it is there. */
export function useSchematicLayout(board: Board): { readonly drawn: Drawn | null; readonly failed: boolean } {
  const map = useMemo(() => recogniseStages(board), [board]);
  const graph = useMemo(() => schematicGraph(board, map), [board, map]);
  const [drawn, setDrawn] = useState<Drawn | null>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    let stale = false;
    engine ??= new ELK({ workerUrl: '/elk-worker.min.js' });
    layOut(graph, engine)
      .then((layout) => {
        if (!stale) setDrawn({ layout, board, islands: map.islands });
      })
      .catch(() => {
        if (!stale) setFailed(true);
      });
    return () => {
      stale = true;
    };
  }, [graph, board, map]);
  return { drawn, failed };
}
