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

/** Lays a board's schematic out in a worker; null until it is there. */
export function useSchematicLayout(board: Board): {
  readonly layout: SchematicLayout | null;
  readonly islands: readonly IslandFinding[];
  readonly failed: boolean;
} {
  const map = useMemo(() => recogniseStages(board), [board]);
  const graph = useMemo(() => schematicGraph(board, map), [board, map]);
  const [layout, setLayout] = useState<SchematicLayout | null>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    let stale = false;
    engine ??= new ELK({ workerUrl: '/elk-worker.min.js' });
    layOut(graph, engine)
      .then((done) => {
        if (!stale) setLayout(done);
      })
      .catch(() => {
        if (!stale) setFailed(true);
      });
    return () => {
      stale = true;
    };
  }, [graph]);
  return { layout, islands: map.islands, failed };
}
