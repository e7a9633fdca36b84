'use client';
import { useState } from 'react';
import type { DragEvent } from 'react';
import type { Problem } from '@/core/problem';
import { postJson } from '@/features/job/postJson';
import { Notice } from '@/ui/Notice';
import type { BoardChoice } from '@/wire/jobForm';
import { FamilySearch } from './FamilySearch';

/** A typical circuit to start from. */
export interface CircuitChoice {
  readonly name: string;
  readonly title: string;
  readonly describes: string;
  readonly parts: number;
}

interface LineProblem {
  readonly line: number;
  readonly sentence: string;
  readonly remedy: string;
}

const MOST_BYTES = 1_000_000;

/** Chooses the board: a typical circuit, or a `.cir` or board `.json` dropped here. A bad file names its lines and changes nothing. */
export function BoardPicker({
  circuits,
  from,
  choice,
  onChoose,
  serverProblem,
}: {
  circuits: readonly CircuitChoice[];
  from: string | null;
  choice: BoardChoice;
  onChoose(choice: BoardChoice): void;
  serverProblem: Problem | null;
}) {
  const [file, setFile] = useState<{ name: string; says: string; warnings: readonly string[] } | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [over, setOver] = useState(false);

  const take = async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    setProblem(null);
    if (chosen.size > MOST_BYTES) {
      setProblem({ code: 'too-large', sentence: `${chosen.name} is larger than 1 MB.`, remedy: 'Nothing was taken.' });
      return;
    }
    const text = await chosen.text();
    if (chosen.name.endsWith('.json')) {
      onChoose({ from: 'json', text });
      setFile({ name: chosen.name, says: 'board JSON, checked when the job is opened', warnings: [] });
      return;
    }
    const answer = await postJson<{ title: string; parts: number; warnings: readonly string[] }>('/api/netlist', {
      text,
    });
    if (!answer.ok) {
      setProblem(answer.problem);
      return;
    }
    onChoose({ from: 'netlist', text });
    setFile({
      name: chosen.name,
      says: `${answer.value.title}, ${answer.value.parts} parts`,
      warnings: answer.value.warnings,
    });
  };

  const drop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    void take(event.dataTransfer.files[0]);
  };

  const shown =
    problem ?? (serverProblem?.code === 'bad-board' || serverProblem?.code === 'bad-netlist' ? serverProblem : null);
  const lines = (shown?.details as { lines?: readonly LineProblem[] } | undefined)?.lines;
  return (
    <fieldset
      onDragOver={(e) => (e.preventDefault(), setOver(true))}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      className={over ? 'outline-2 outline-brass outline-dashed' : ''}
    >
      <legend className="mb-1 text-sm font-semibold">Board to start from</legend>
      <div className="flex flex-col gap-1.5">
        {from !== null && (
          <label className="flex items-baseline gap-2">
            <input
              type="radio"
              name="board"
              checked={choice.from === 'job'}
              onChange={() => onChoose({ from: 'job', tag: from })}
            />
            <span>The board traced for {from}</span>
          </label>
        )}
        <FamilySearch
          chosen={choice.from === 'job' ? choice.tag : null}
          onChoose={(tag) => onChoose({ from: 'job', tag })}
        />
        <label className="flex items-baseline gap-2">
          <input
            type="radio"
            name="board"
            checked={choice.from === 'empty'}
            onChange={() => onChoose({ from: 'empty' })}
          />
          <span>
            Empty: traced from nothing{' '}
            <span className="text-sm text-faint">type or touch the parts as you see them</span>
          </span>
        </label>
        <div
          className="flex max-h-56 flex-col gap-1.5 overflow-y-auto border-y border-line/60 py-1.5"
          tabIndex={0}
          aria-label="Typical circuits"
        >
          {circuits.map((c) => (
            <label key={c.name} className="flex items-baseline gap-2">
              <input
                type="radio"
                name="board"
                checked={choice.from === 'typical' && choice.name === c.name}
                onChange={() => onChoose({ from: 'typical', name: c.name })}
              />
              <span>
                Typical circuit: {c.title}{' '}
                <span className="text-sm text-faint">
                  {c.describes}; {c.parts} parts, all assumed
                </span>
              </span>
            </label>
          ))}
        </div>
        <label className="flex items-baseline gap-2">
          <input
            type="radio"
            name="board"
            readOnly
            checked={choice.from === 'netlist' || choice.from === 'json'}
            aria-label="A board file"
          />
          <span>
            A board file, <span className="figure">.cir</span> or <span className="figure">.json</span>: drop it here or{' '}
            <input
              type="file"
              accept=".cir,.json,.txt,.net"
              aria-label="Choose a board file"
              className="max-w-56 text-sm text-faint file:mr-2 file:rounded-sm file:border file:border-line file:bg-raised file:px-2 file:py-0.5 file:text-ink"
              onChange={(e) => void take(e.target.files?.[0])}
            />
            {file && (choice.from === 'netlist' || choice.from === 'json') && (
              <span className="block text-verdigris">
                ✓ {file.name}: {file.says}
              </span>
            )}
          </span>
        </label>
      </div>
      {shown && (
        <Notice kind="trouble" className="mt-2">
          <strong>{shown.sentence}</strong> {shown.remedy}
          {lines && (
            <ol className="mt-1 max-h-40 overflow-y-auto text-sm" tabIndex={0} aria-label="Errors by line">
              {lines.map((l, i) => (
                <li key={i}>
                  {l.sentence}. {l.remedy}
                </li>
              ))}
            </ol>
          )}
        </Notice>
      )}
      {file?.warnings.map((w) => (
        <Notice key={w} kind="caution" className="mt-2">
          {w}
        </Notice>
      ))}
    </fieldset>
  );
}
