import ELK from 'elkjs/lib/elk.bundled.js';
import type { Board } from '@/core/circuit';
import { schematicGraph } from '@/core/schematic';
import { recogniseStages } from '@/core/stages';
import { layOut } from '@/features/schematic/elkLayout';

const elk = new ELK();

/** Milliseconds to recognise a board's stages and lay its schematic out, the best of three. */
export async function layoutMs(board: Board): Promise<number> {
  let best = Infinity;
  for (let round = 0; round < 3; round++) {
    const since = performance.now();
    // A copy each time: what is recognised of a board is kept.
    const fresh = { ...board };
    await layOut(schematicGraph(fresh, recogniseStages(fresh)), elk);
    best = Math.min(best, performance.now() - since);
  }
  return best;
}
