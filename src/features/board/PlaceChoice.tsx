'use client';
import { useMemo, useState } from 'react';
import type { Board } from '@/core/circuit';
import { found, jobItems } from '@/features/frame/paletteItems';
import type { PaletteItem } from '@/features/frame/paletteItems';
import { Button } from '@/ui/Button';
import { Finder, FoundRow } from '@/ui/Finder';
import { Modal } from '@/ui/Modal';

/** Where on a board something was seen: a part, a net or words of one's own. first: the parts that are looked at now. */
export function PlaceChoice({
  board,
  place,
  first,
  onChoose,
}: {
  board: Board;
  place: string;
  first: readonly string[];
  onChoose(place: string): void;
}) {
  const [open, setOpen] = useState(false);
  const [wanted, setWanted] = useState('');
  const places = useMemo(() => {
    const near = new Set(first);
    const all = jobItems('', board).filter((i) => i.group === 'Parts' || i.group === 'Nets and places');
    return [...all].sort((a, b) => Number(near.has(b.words)) - Number(near.has(a.words)));
  }, [board, first]);
  const groups = useMemo(() => {
    const list = found(places, wanted, true);
    const own = wanted.trim();
    const typed: PaletteItem = { group: 'Nets and places', key: 'typed', words: own, note: 'as typed', to: '' };
    const named = own === '' || list.some((g) => g.items.some((i) => i.words.toLowerCase() === own.toLowerCase()));
    return named ? list : [...list, { heading: 'In words', items: [typed] }];
  }, [places, wanted]);
  return (
    <>
      <span className="flex items-center gap-2">
        <span className="text-sm text-faint">Place</span>
        <Button onClick={() => setOpen(true)}>
          <span className="figure">{place}</span>
        </Button>
      </span>
      <Modal
        open={open}
        onOpenChange={setOpen}
        title="Place of what is seen"
        look="top-[8vh] left-1/2 w-[32rem] max-w-[94vw] -translate-x-1/2 border border-line bg-raised"
      >
        <Finder
          label="Find a place on the board"
          placeholder="part, net, or words of your own"
          wanted={wanted}
          onWanted={setWanted}
          groups={groups}
          keyOf={(item) => item.key}
          onTake={(item) => {
            onChoose(item.words);
            setWanted('');
            setOpen(false);
          }}
          row={(item) => <FoundRow words={item.words} note={item.note} />}
          empty="Nothing on this board is called that."
        />
      </Modal>
    </>
  );
}
