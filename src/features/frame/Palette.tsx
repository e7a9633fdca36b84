'use client';
import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import type { Board } from '@/core/circuit';
import { Modal } from '@/ui/Modal';
import { useLight } from '@/ui/useLight';
import { found, jobItems, workshopItems } from './paletteItems';
import type { FoundJob, PaletteItem } from './paletteItems';

/** Finds anything by what it is called: the same list for keys and for touch. */
export function Palette({
  tag,
  board,
  onClose,
  onHelp,
}: {
  /** Of the job that is open, and its board. */
  tag: string | null;
  board: Board | null;
  onClose(): void;
  onHelp(): void;
}) {
  const router = useRouter();
  const [light, turn] = useLight();
  const [wanted, setWanted] = useState('');
  const [jobs, setJobs] = useState<readonly FoundJob[]>([]);
  useEffect(() => {
    const gone = new AbortController();
    fetch('/api/jobs', { signal: gone.signal })
      .then(async (answer) => answer.ok && setJobs(((await answer.json()) as { jobs: FoundJob[] }).jobs))
      // Without them the rest is found all the same.
      .catch(() => undefined);
    return () => gone.abort();
  }, []);
  const all = useMemo(() => {
    const actions: readonly PaletteItem[] = [
      {
        group: 'Actions',
        key: 'theme',
        words: light ? 'Dark: soot' : 'Light: paper',
        also: 'theme switch colours',
        to: turn,
      },
      { group: 'Actions', key: 'keys', words: 'Keys', note: '?', also: 'help list', to: onHelp },
    ];
    return [...(tag !== null && board ? jobItems(tag, board) : []), ...workshopItems(jobs, tag), ...actions];
  }, [board, jobs, tag, light, turn, onHelp]);
  const groups = useMemo(() => found(all, wanted), [all, wanted]);
  const take = (item: PaletteItem): void => {
    onClose();
    if (typeof item.to === 'string') router.push(item.to);
    else item.to();
  };
  return (
    <Modal
      open
      onOpenChange={(open) => !open && onClose()}
      title="Find"
      look="top-[8vh] left-1/2 w-[38rem] max-w-[94vw] -translate-x-1/2 border border-line bg-raised"
    >
      <Command shouldFilter={false} label="Find" loop>
        <Command.Input
          value={wanted}
          onValueChange={setWanted}
          placeholder="job, part, net, sum, step …"
          className="w-full border-b border-line bg-raised px-4 py-3 text-lg placeholder:text-faint"
        />
        <Command.List className="max-h-[60vh] overflow-y-auto p-2">
          <Command.Empty className="px-2 py-3 text-faint">Nothing is called that here.</Command.Empty>
          {groups.map(([group, list]) => (
            <Command.Group
              key={group}
              heading={group}
              className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:text-faint"
            >
              {list.map((item) => (
                <Command.Item
                  key={item.key}
                  value={`${group} ${item.key}`}
                  onSelect={() => take(item)}
                  className="flex cursor-pointer items-baseline gap-3 rounded-sm px-2 py-1 data-[selected=true]:bg-slate data-[selected=true]:text-ground pointer-coarse:min-h-[44px]"
                >
                  <span className="font-semibold">{item.words}</span>
                  <span className="min-w-0 flex-1 truncate text-sm opacity-80">{item.note}</span>
                </Command.Item>
              ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </Modal>
  );
}
