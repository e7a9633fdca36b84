'use client';
import { useState } from 'react';
import { RadioGroup } from 'radix-ui';
import type { Problem } from '@/core/problem';
import { postJson } from '@/features/job/postJson';
import { FileDrop } from '@/ui/FileDrop';
import { Notice } from '@/ui/Notice';
import { Scroll } from '@/ui/Scroll';
import { Radio } from '@/ui/Radio';
import type { BoardChoice } from '@/wire/jobForm';
import { FamilySearch } from './FamilySearch';
import { TypicalCircuits } from './TypicalCircuits';
import type { CircuitChoice } from './TypicalCircuits';

interface LineProblem {
  readonly line: number;
  readonly sentence: string;
  readonly remedy: string;
}

/** A file that was read, and how it is chosen again after something else was. */
interface TakenFile {
  readonly name: string;
  readonly says: string;
  readonly warnings: readonly string[];
  choose(): void;
}

const keyOf = (choice: BoardChoice): string => {
  switch (choice.from) {
    case 'job':
      return `job:${choice.tag}`;
    case 'typical':
      return `typical:${choice.name}`;
    case 'empty':
      return 'empty';
    default:
      return 'file';
  }
};

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
  const [file, setFile] = useState<TakenFile | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);

  const take = async (chosen: File): Promise<void> => {
    setProblem(null);
    const text = await chosen.text();
    if (chosen.name.endsWith('.json')) {
      const choose = (): void => onChoose({ from: 'json', text });
      choose();
      setFile({ name: chosen.name, says: 'board JSON, checked when the job is opened', warnings: [], choose });
      return;
    }
    const answer = await postJson<{ title: string; parts: number; warnings: readonly string[] }>('/api/netlist', {
      text,
    });
    if (!answer.ok) {
      setProblem(answer.problem);
      return;
    }
    const choose = (): void => onChoose({ from: 'netlist', text });
    choose();
    setFile({
      name: chosen.name,
      says: `${answer.value.title}, ${answer.value.parts} parts`,
      warnings: answer.value.warnings,
      choose,
    });
  };

  const shown =
    problem ?? (serverProblem?.code === 'bad-board' || serverProblem?.code === 'bad-netlist' ? serverProblem : null);
  const lines = (shown?.details as { lines?: readonly LineProblem[] } | undefined)?.lines;
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">Board to start from</legend>
      <RadioGroup.Root
        aria-label="Board to start from"
        value={keyOf(choice)}
        onValueChange={(key) => {
          const [kind, name = ''] = key.split(/:(.*)/su);
          if (kind === 'job') onChoose({ from: 'job', tag: name });
          else if (kind === 'typical') onChoose({ from: 'typical', name });
          else if (kind === 'empty') onChoose({ from: 'empty' });
          else file?.choose();
        }}
        className="flex flex-col gap-1.5"
      >
        {from !== null && <Radio value={`job:${from}`}>The board traced for {from}</Radio>}
        <FamilySearch />
        <Radio value="empty">
          Empty: traced from nothing <span className="text-sm text-faint">type or touch the parts as you see them</span>
        </Radio>
        <TypicalCircuits circuits={circuits} chosen={choice.from === 'typical' ? choice.name : null} />
        <Radio value="file" label="A board file">
          <span>
            A board file, <span className="figure">.cir</span> or <span className="figure">.json</span>{' '}
            <FileDrop
              label="Choose a board file"
              kinds=".cir,.json,.txt,.net"
              mostBytes={MOST_BYTES}
              onFile={(chosen) => void take(chosen)}
            >
              drop it here or choose it
            </FileDrop>
            {file && (choice.from === 'netlist' || choice.from === 'json') && (
              <span className="block text-verdigris">
                ✓ {file.name}: {file.says}
              </span>
            )}
          </span>
        </Radio>
      </RadioGroup.Root>
      {shown && (
        <Notice kind="trouble" className="mt-2">
          <strong>{shown.sentence}</strong> {shown.remedy}
          {lines && (
            <Scroll label="Errors by line" look="mt-1 max-h-40">
              <ol className="text-sm" aria-label="Errors by line">
                {lines.map((l, i) => (
                  <li key={i}>
                    {l.sentence}. {l.remedy}
                  </li>
                ))}
              </ol>
            </Scroll>
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
