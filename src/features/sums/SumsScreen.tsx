'use client';
import { useMemo, useRef, useState } from 'react';
import type { Board } from '@/core/circuit';
import { SUM_TASKS, searchSums } from '@/core/sums';
import type { SumDefinition, SumTask } from '@/core/sums';
import { emptySheet } from './sheet';
import type { SheetState } from './sheet';
import { SumSheet } from './SumSheet';
import { useSheet } from './useSheet';
import type { KeptSum } from './KeptSums';
import { KeptSums } from './KeptSums';

/**
 * Bench sums: what the technician is about to do on the left, one sheet on the right. board and onKeep: null outside a
 * job.
 */
export function SumsScreen({
  place,
  board,
  kept,
  onKeep,
}: {
  place: string;
  board: Board | null;
  kept: readonly KeptSum[];
  onKeep: ((state: SheetState, words: string) => Promise<boolean>) | null;
}) {
  const [state, change] = useSheet(place, board);
  const [wanted, setWanted] = useState('');
  const work = useRef<HTMLDivElement>(null);
  const found = useMemo(() => searchSums(wanted), [wanted]);
  const open = (name: string): void => {
    if (name !== state.name) change(emptySheet(name));
    // On to its first field: the next thing to do is typing there.
    window.setTimeout(() => work.current?.querySelector<HTMLElement>('input, [role=combobox]')?.focus(), 0);
  };
  const groups: readonly (readonly [string, readonly SumDefinition[]])[] =
    wanted.trim() === ''
      ? (Object.keys(SUM_TASKS) as SumTask[]).map((task) => [SUM_TASKS[task], found.filter((s) => s.task === task)])
      : [['Best first', found]];
  return (
    <div className="flex gap-5 max-md:flex-col">
      <nav aria-label="Sums" className="w-56 shrink-0 max-md:max-h-64 max-md:w-full max-md:overflow-y-auto">
        <input
          type="search"
          aria-label="Find a sum"
          value={wanted}
          onChange={(e) => setWanted(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter' && found[0]) open(found[0].name);
          }}
          placeholder="what do you want to do?"
          className="mb-2 w-full rounded-sm border border-line bg-raised px-2 py-1.5 placeholder:text-faint"
        />
        {found.length === 0 && <p className="text-sm text-faint">No sum for “{wanted}”. Try another word.</p>}
        <div className="flex flex-col gap-2">
          {groups.map(([title, sums]) => (
            <section key={title} aria-label={title}>
              <h2 className="text-sm text-faint">{title}</h2>
              <ul>
                {sums.map((s) => (
                  <li key={s.name}>
                    <button
                      type="button"
                      aria-current={s.name === state.name ? 'true' : undefined}
                      onClick={() => open(s.name)}
                      className={`w-full border-l-2 py-0.5 pr-1 pl-2 text-left text-sm leading-snug hover:bg-raised ${s.name === state.name ? 'border-brass bg-raised font-semibold' : 'border-transparent'}`}
                    >
                      {s.title}
                    </button>
                  </li>
                ))}
              </ul>
            </section>
          ))}
        </div>
      </nav>
      <div ref={work} className="min-w-0 flex-1">
        <SumSheet key={state.name} state={state} board={board} onChange={change} onKeep={onKeep} />
        {board && kept.length > 0 && <KeptSums kept={kept} board={board} onOpen={change} />}
      </div>
    </div>
  );
}
