'use client';
import { useState } from 'react';
import { compareBoards } from '@/core/compare';
import type { Board } from '@/core/circuit';
import { useJob } from '@/features/job/JobContext';
import { useFoundBoards } from '@/features/frame/useFoundBoards';
import type { Selection } from '@/features/schematic/selection';
import { Scroll } from '@/ui/Scroll';
import { Button } from '@/ui/Button';
import { boardFromJson } from '@/wire/boardCopy';
import { BoardJson } from '@/wire/boardJson';

/** What differs between this board and another of its kind, or what it was when the job began. */
export function ComparePanel({ onPick }: { onPick(selection: Selection): void }) {
  const { active, job } = useJob();
  const [words, setWords] = useState('');
  const [other, setOther] = useState<{ name: string; board: Board } | null>(null);
  const [trouble, setTrouble] = useState('');
  const found = useFoundBoards(words).filter((f) => f.board_id !== active.id);
  const fetchBoard = async (id: string, name: string): Promise<void> => {
    try {
      const told = (await (await fetch(`/api/boards/${id}`)).json()) as { content: unknown };
      setOther({ name, board: boardFromJson(BoardJson.parse(told.content)) });
      setTrouble('');
    } catch {
      setTrouble('That board could not be fetched; try again.');
    }
  };
  const differences = other ? compareBoards(active.board, other.board) : [];
  return (
    <div className="flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-2">
        <Button onClick={() => setOther({ name: `${job.tag} as it began`, board: active.start })}>
          With how it began
        </Button>
        <input
          type="search"
          aria-label="Another board, by anything printed on it"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          placeholder="another board: anything printed on it"
          className="w-72 rounded-sm border border-line bg-ground px-2 py-1 placeholder:text-faint"
        />
        {found.map((f) => (
          <Button key={f.board_id} onClick={() => void fetchBoard(f.board_id, `${f.tag}, ${f.unit}`)}>
            {f.tag}, {f.unit}
          </Button>
        ))}
      </div>
      {trouble !== '' && <p className="text-oxide">{trouble}</p>}
      {other && (
        <section aria-label={`Compared with ${other.name}`}>
          <p className="mb-1">
            {differences.length === 0
              ? `The same as ${other.name}.`
              : `${differences.length} ${differences.length === 1 ? 'part differs' : 'parts differ'} from ${other.name}:`}
          </p>
          <Scroll label="Differences" look="max-h-72">
            <ul aria-label="Differences">
              {differences.map((d) => (
                <li key={`${d.ref} ${d.kind}`} className="flex h-8 items-center gap-3 border-b border-line/40">
                  <button
                    type="button"
                    className="figure w-20 text-left underline decoration-line underline-offset-4"
                    onClick={() => onPick({ part: d.ref })}
                  >
                    {d.ref}
                  </button>
                  <span className="w-24 text-sm text-faint">
                    {d.kind === 'changed' ? 'differs' : d.kind === 'only-here' ? 'only here' : 'only there'}
                  </span>
                  <span className="min-w-0 truncate">{d.words}</span>
                </li>
              ))}
            </ul>
          </Scroll>
        </section>
      )}
    </div>
  );
}
