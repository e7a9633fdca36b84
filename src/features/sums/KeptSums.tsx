'use client';
import type { Board } from '@/core/circuit';
import { figureOf } from '@/core/figures';
import { benchText, formatQuantity } from '@/core/quantity';
import { SUMS, resultText, runSum } from '@/core/sums';
import type { SumGiven } from '@/core/sums';
import type { SheetState } from './sheet';

/** A sum in the job log: its inputs when it was kept, and the figures that some of them follow. */
export interface KeptSum {
  readonly id: string;
  readonly name: string;
  readonly inputs: Readonly<Record<string, SumGiven>>;
  readonly bound: Readonly<Record<string, string>>;
  readonly words: string;
}

/** Sums kept in the job: what each gave then, and what it gives now where its figures have moved. */
export function KeptSums({
  kept,
  board,
  onOpen,
}: {
  kept: readonly KeptSum[];
  board: Board;
  onOpen(state: SheetState): void;
}) {
  return (
    <section aria-labelledby="kept" className="mt-6">
      <h2 id="kept" className="mb-1 font-semibold">
        Kept in this job
      </h2>
      <ul>
        {kept.map((k) => (
          <KeptRow key={k.id} kept={k} board={board} onOpen={onOpen} />
        ))}
      </ul>
    </section>
  );
}

function KeptRow({ kept, board, onOpen }: { kept: KeptSum; board: Board; onOpen(state: SheetState): void }) {
  const sum = SUMS.find((s) => s.name === kept.name);
  if (!sum) return null;
  const now: Record<string, SumGiven> = { ...kept.inputs };
  const moved: string[] = [];
  for (const [key, name] of Object.entries(kept.bound)) {
    const figure = figureOf(board, name);
    const was = kept.inputs[key];
    if (!figure || typeof was !== 'number' || figure.value === was) continue;
    now[key] = figure.value;
    moved.push(
      `${figure.words} ${formatQuantity(was, figure.unit, 4)} → ${formatQuantity(figure.value, figure.unit, 4)}`,
    );
  }
  const lead = sum.lead[0]!;
  const answer = (inputs: Readonly<Record<string, SumGiven>>): string => {
    const run = runSum(kept.name, inputs);
    return run.ok ? resultText(sum, lead, run.value.results[lead]) : 'cannot be done any more';
  };
  const open = (): void => {
    const texts: Record<string, string> = {};
    const bound: Record<string, { figure: string; value: number }> = {};
    for (const [key, value] of Object.entries(kept.inputs)) {
      const figure = kept.bound[key];
      if (figure !== undefined && typeof value === 'number') bound[key] = { figure, value };
      else
        texts[key] =
          typeof value === 'number'
            ? benchText(value)
            : typeof value === 'string'
              ? value
              : value.map(benchText).join(', ');
    }
    onOpen({ name: kept.name, texts, bound });
  };
  return (
    <li className="border-b border-line/50 py-1.5">
      <button type="button" onClick={open} className="text-left underline decoration-line underline-offset-4">
        {sum.title}
      </button>
      : {sum.resultWords[lead]} <span className="figure">{answer(kept.inputs)}</span>
      {kept.words !== '' && <span className="text-sm text-faint">, {kept.words}</span>}
      {moved.length > 0 && (
        <p role="status" className="text-sm text-brass">
          ▸ {moved.join('; ')}: now <span className="figure">{answer(now)}</span>
        </p>
      )}
    </li>
  );
}
