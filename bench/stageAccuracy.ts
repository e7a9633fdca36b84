import { seededRandom } from '@/core/quantity';
import { recogniseStages } from '@/core/stages';
import { ALL_BOARDS, exampleBoard, exampleLabels } from './exampleBoards';
import { sameTopology, scorePins, scoreStages } from './stageLabels';
import type { Labelled } from './stageLabels';
import { CHANGES, changed, stranger } from './strangers';
import type { Change } from './strangers';

/** An example board as its netlist tells it, without its nameplate, and its labels. */
export function labelledBoard(name: string): Labelled {
  const { title, parts, couplings, models, subcircuits, layout } = exampleBoard(name);
  return { board: { title, parts, couplings, models, subcircuits, layout }, labels: exampleLabels(name) };
}

/** Scores of a board as it is and under each change alone: mean and worst F1 over the seeds, topologies that were right. */
export function stageAccuracy(labelled: Labelled, seeds: number) {
  const map = recogniseStages(labelled.board);
  const disturbed = Object.fromEntries(
    (Object.keys(CHANGES) as Change[]).map((change) => {
      const runs = Array.from({ length: seeds }, (_, seed) => score(changed(labelled, change, seed)));
      const mean = runs.reduce((s, r) => s + r.f1, 0) / runs.length;
      return [
        change,
        { mean, worst: Math.min(...runs.map((r) => r.f1)), topologies: runs.filter((r) => r.topology).length },
      ];
    }),
  ) as Record<Change, { mean: number; worst: number; topologies: number }>;
  const pins = scorePins(map, labelled.labels);
  return {
    f1: scoreStages(map, labelled.labels).f1,
    topology: map.topology,
    pins: { right: pins.right, of: pins.of },
    disturbed,
  };
}

function score({ board, labels }: Labelled) {
  const map = recogniseStages(board);
  return {
    f1: scoreStages(map, labels).f1,
    topology: sameTopology(map.topology, labels),
    confidence: map.topologyConfidence,
  };
}

/** How strangers are recognised: topologies right, mean F1, that of the worst tenth; per change how often it was there when a topology was wrong. */
export function strangersRead(count: number, missing: number, names: readonly string[] = ALL_BOARDS) {
  const bases = names.map(labelledBoard);
  const random = seededRandom(2);
  const runs = Array.from({ length: count }, (_, seed) => {
    const name = Math.floor(random() * bases.length);
    const { made, changes } = stranger(bases[name]!, seed, missing);
    return { name: names[name]!, changes, ...score(made) };
  });
  const f1 = runs.map((r) => r.f1).sort((a, b) => a - b);
  const mean = (list: readonly number[]): number => list.reduce((s, x) => s + x, 0) / Math.max(1, list.length);
  return {
    topology: runs.filter((r) => r.topology).length / count,
    f1: mean(f1),
    worstTenth: mean(f1.slice(0, Math.ceil(count / 10))),
    calibration: Array.from({ length: 10 }, (_, tenth) => {
      const own = runs.filter((r) => Math.min(9, Math.floor(r.confidence * 10)) === tenth);
      return {
        count: own.length,
        stated: mean(own.map((r) => r.confidence)),
        right: own.filter((r) => r.topology).length / Math.max(1, own.length),
      };
    }),
    byChange: (Object.keys(CHANGES) as Change[]).map((change) => {
      const own = runs.filter((r) => r.changes.includes(change));
      return {
        change,
        count: own.length,
        wrong: own.filter((r) => !r.topology).length,
        f1: mean(own.map((r) => r.f1)),
      };
    }),
    byBoard: names.map((name) => {
      const own = runs.filter((r) => r.name === name);
      return { name, count: own.length, wrong: own.filter((r) => !r.topology).length, f1: mean(own.map((r) => r.f1)) };
    }),
  };
}
