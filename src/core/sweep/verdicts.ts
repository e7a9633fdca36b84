import { formatQuantity, withMark } from '../quantity';
import { runSum } from '../sums';
import { SWEEP_COLUMNS, deriveRow, lightestRow } from './sweep';
import type { SweepRow, SweepSetup } from './sweep';

/** What a sweep shows; rows are counted from 0. `open`: not enough was read to say. */
export interface SweepVerdict {
  readonly what: 'claimed' | 'sag' | 'runaway' | 'efficiency';
  readonly verdict: 'ok' | 'over' | 'open';
  readonly words: string;
  readonly rows: readonly number[];
}

/** Output that rises by more than this share while the input falls by more than this share is a runaway. */
const RUNAWAY_SHARE = 0.02;
/** Measured efficiency may lie this much below the sum, which counts conduction only. */
const EFFICIENCY_GAP = 0.05;

/** Judges a sweep: claimed against measured, sag against its limit, runaway, efficiency against the sum. */
export function judgeSweep(setup: SweepSetup, rows: readonly SweepRow[]): readonly SweepVerdict[] {
  return [...claimed(setup, rows), ...sagging(setup, rows), runaway(rows), ...efficient(setup, rows)];
}

function claimed(setup: SweepSetup, rows: readonly SweepRow[]): readonly SweepVerdict[] {
  if (!setup.claimed) return [];
  const { column, value, tolerance } = setup.claimed;
  const { unit, words } = SWEEP_COLUMNS[column];
  let worst = -1;
  let far = -1;
  rows.forEach((row, i) => {
    const read = row[column];
    if (read === null) return;
    const off = Math.abs(read / value - 1);
    if (off > far) [worst, far] = [i, off];
  });
  const wanted = `${words} ${formatQuantity(value, unit, 4)} ± ${percent(tolerance)}`;
  if (worst < 0) return [{ what: 'claimed', verdict: 'open', words: `claimed ${wanted}: nothing read yet`, rows: [] }];
  const read = rows[worst]![column]!;
  const over = far > tolerance;
  return [
    {
      what: 'claimed',
      verdict: over ? 'over' : 'ok',
      words: `claimed ${wanted}: worst ${formatQuantity(read, unit, 4)} in row ${worst + 1}, ${percent(read / value - 1, true)}`,
      rows: over ? [worst] : [],
    },
  ];
}

function sagging(setup: SweepSetup, rows: readonly SweepRow[]): readonly SweepVerdict[] {
  const light = lightestRow(rows);
  let lowest = -1;
  rows.forEach((row, i) => {
    const loaded = row.iout !== null && light?.iout != null && row.iout > light.iout;
    if (loaded && row.vout !== null && (lowest < 0 || row.vout < rows[lowest]!.vout!)) lowest = i;
  });
  const row = rows[lowest];
  if (!light || !row) return [];
  const [vNominal, vMin] = [light.vout!, row.vout!];
  const iStep = row.iout! - light.iout!;
  if (vMin > vNominal || vNominal <= 0)
    return [{ what: 'sag', verdict: 'ok', words: 'no sag: the output does not fall under load', rows: [] }];
  const sum = runSum('sag', { vNominal, vMin: Math.max(0, vMin), iStep, limit: setup.sagLimit });
  if (!sum.ok) return [];
  const { sag, sourceR, verdict } = sum.value.results as { sag: number; sourceR: number; verdict: 'ok' | 'over' };
  return [
    {
      what: 'sag',
      verdict,
      words: `sags ${percent(sag)} at ${formatQuantity(row.iout!, 'A')} (limit ${percent(setup.sagLimit)}), source ${formatQuantity(sourceR, 'ohm')}`,
      rows: verdict === 'over' ? [lowest] : [],
    },
  ];
}

/** Output rising as the input falls: a loop that pulls the wrong way, or a reference that follows the input. */
function runaway(rows: readonly SweepRow[]): SweepVerdict {
  let lowest: { readonly vin: number; readonly vout: number; readonly row: number } | null = null;
  let last = Infinity;
  for (const [i, { vin, vout }] of rows.entries()) {
    if (vin === null || vout === null) continue;
    // A new stretch of falling input begins where the input rises again, and where the output was off.
    if (vin > last * (1 + RUNAWAY_SHARE / 4) || !lowest || lowest.vout <= 0) lowest = null;
    last = vin;
    if (lowest && vin < lowest.vin * (1 - RUNAWAY_SHARE) && vout > lowest.vout * (1 + RUNAWAY_SHARE)) {
      return {
        what: 'runaway',
        verdict: 'over',
        words: `runaway: from row ${lowest.row + 1} to ${i + 1} the input falls from ${formatQuantity(lowest.vin, 'V')} to ${formatQuantity(vin, 'V')} and the output rises from ${formatQuantity(lowest.vout, 'V')} to ${formatQuantity(vout, 'V')}`,
        rows: [lowest.row, i],
      };
    }
    if (!lowest || vout < lowest.vout) lowest = { vin, vout, row: i };
  }
  const pairs = rows.filter((r) => r.vin !== null && r.vout !== null).length;
  return pairs < 2
    ? { what: 'runaway', verdict: 'open', words: 'runaway: needs input and output volts of two rows', rows: [] }
    : { what: 'runaway', verdict: 'ok', words: 'no runaway: the output does not rise as the input falls', rows: [] };
}

function efficient(setup: SweepSetup, rows: readonly SweepRow[]): readonly SweepVerdict[] {
  if (setup.efficiency === null) return [];
  const wanted = setup.efficiency;
  let heaviest = -1;
  let most = 0;
  rows.forEach((row, i) => {
    const { efficiency, pout } = deriveRow(row, null);
    if (efficiency !== null && pout! > most) [heaviest, most] = [i, pout!];
  });
  if (heaviest < 0)
    return [{ what: 'efficiency', verdict: 'open', words: 'efficiency: needs all four of volts and amps', rows: [] }];
  const read = deriveRow(rows[heaviest]!, null).efficiency!;
  const over = read < wanted - EFFICIENCY_GAP || read > 1;
  const why = read > 1 ? ': more out than in, a meter reads wrong' : '';
  return [
    {
      what: 'efficiency',
      verdict: over ? 'over' : 'ok',
      words: `efficiency ${percent(read)} at ${formatQuantity(most, 'W')}, the sum gives ${percent(wanted)}${why}`,
      rows: over ? [heaviest] : [],
    },
  ];
}

function percent(fraction: number, sign = false): string {
  const text = withMark((100 * fraction).toFixed(1).replace(/\.0$/u, ''));
  return `${sign && fraction > 0 ? '+' : ''}${text} %`;
}
