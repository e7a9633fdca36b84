import { planChange, withFacts } from '@/core/modify';
import { readNetlist } from '@/core/netlist';
import { invariant } from '@/core/problem';
import { deriveRow, judgeSweep, lightestRow } from '@/core/sweep';
import { DOCK_MODULE } from '@/demo/boards/dockModule';
import { readSweepText } from '@/wire/csv';

const ROWS = 5000;

/** Median of several runs, milliseconds. */
function median(run: () => void): number {
  const times = Array.from({ length: 9 }, () => {
    const from = performance.now();
    run();
    return performance.now() - from;
  });
  return times.sort((a, b) => a - b)[4]!;
}

/** Time to read, derive and judge a sweep of 5,000 rows, and to work one modification out, milliseconds. */
export function sweepTime(): { readonly readMs: number; readonly judgeMs: number; readonly planMs: number } {
  const lines = Array.from({ length: ROWS }, (_, i) => `${12 + i / ROWS},${0.5 + i / 1e4},${5 - i / 1e5},${i / 2500}`);
  const text = `vin,iin,vout,iout\n${lines.join('\n')}\n`;
  const { rows } = readSweepText(text, 'iout');
  const claimed = { column: 'vout', value: 5, tolerance: 0.05 } as const;
  const setup = { title: 'bench', setBy: 'iout', claimed, sagLimit: 0.05, efficiency: 0.9 } as const;
  const read = readNetlist(DOCK_MODULE);
  invariant(read.ok, 'the demo board reads');
  const board = withFacts(read.value.board, ['U1 FB ref 1.22 V']).board;
  const change = { kind: 'output-voltage', rail: 'OUT+', return: 'GND', tap: 'FB', vRef: 1.22, vTarget: 6.2 } as const;
  return {
    readMs: median(() => void readSweepText(text, 'iout')),
    judgeMs: median(() => {
      judgeSweep(setup, rows);
      const light = lightestRow(rows);
      for (const row of rows) deriveRow(row, light);
    }),
    planMs: median(() => {
      // A board of its own each time: nothing recognised before is used again.
      planChange({ ...board }, { ...change, modify: 'bottom', series: 'E24' });
    }),
  };
}
