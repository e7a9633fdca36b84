'use client';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { Board } from '@/core/circuit';
import { Finder, FoundRow } from '@/ui/Finder';
import { Modal } from '@/ui/Modal';
import { useLight } from '@/ui/useLight';
import { found, jobItems, workshopItems } from './paletteItems';
import type { FoundJob, PaletteItem } from './paletteItems';

const NO_JOBS: readonly FoundJob[] = [];

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
  // Without the jobs the rest is found all the same.
  const { data: jobs = NO_JOBS } = useQuery({
    queryKey: ['jobs'],
    queryFn: async ({ signal }) => {
      const answer = await fetch('/api/jobs', { signal });
      return ((await answer.json()) as { jobs: FoundJob[] }).jobs;
    },
  });
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
      <Finder
        label="Find"
        placeholder="job, part, net, sum, step …"
        wanted={wanted}
        onWanted={setWanted}
        groups={groups}
        keyOf={(item) => item.key}
        onTake={take}
        row={(item) => <FoundRow words={item.words} note={item.note} />}
        empty="Nothing is called that here."
      />
    </Modal>
  );
}
