'use client';
import { useMemo, useState } from 'react';
import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { figuresFor } from '@/core/figures';
import type { Figure } from '@/core/figures';
import { formatQuantity } from '@/core/quantity';
import { operatingPoint } from '@/core/operate';
import type { SumInput } from '@/core/sums';
import { Finder } from '@/ui/Finder';
import { Modal } from '@/ui/Modal';
import { Schematic } from '@/features/schematic/Schematic';

/** So many are shown at once: more are found by typing. */
const MOST_SHOWN = 120;

/** Picks a figure of the board for one input: tap a part or net on the schematic, or find it in the list. */
export function FigurePicker({
  board,
  input,
  onPick,
  onClose,
}: {
  board: Board;
  input: SumInput;
  onPick(figure: Figure): void;
  onClose(): void;
}) {
  const [wanted, setWanted] = useState('');
  const [tapped, setTapped] = useState<{ readonly ref?: string; readonly net?: string }>({});
  // Figures of the unit at work come in while the list is open.
  const point = operatingPoint(board);
  const all = useMemo(
    () => (point.board === board ? figuresFor(board, input.unit, tapped) : []),
    [point, board, input.unit, tapped],
  );
  const shown = useMemo(() => {
    const words = wanted.toLowerCase().split(/\s+/u).filter(Boolean);
    const found = all.filter((f) => words.every((w) => `${f.words} ${f.net ?? ''} ${f.key}`.toLowerCase().includes(w)));
    // A designator typed in full goes before the others that contain it.
    const exact = (f: Figure): number => Number(f.ref === null || f.ref.toLowerCase() !== words[0]);
    return [...found].sort((a, b) => exact(a) - exact(b));
  }, [all, wanted]);
  const tap = (place: { ref?: string; net?: string }): void => {
    const here = figuresFor(board, input.unit, place);
    const [only] = here;
    if (only && here.length === 1) onPick(only);
    else setTapped(place);
  };
  const name = tapped.ref ?? tapped.net;
  return (
    <Modal
      open
      onOpenChange={(open) => !open && onClose()}
      title={`From the board: ${input.meaning}`}
      heading="text-lg font-semibold"
      note="Tap the part or net on the drawing, or type its name and press Enter. The sum then follows the board."
      look="top-6 left-1/2 flex h-[calc(100vh-3rem)] w-[60rem] max-w-[96vw] -translate-x-1/2 flex-col gap-3 border border-line bg-raised p-5"
    >
      <Schematic
        board={board}
        selection={{ part: tapped.ref, nets: tapped.net === undefined ? undefined : [tapped.net] }}
        onPickPart={(ref) => tap({ ref })}
        onPickNet={(net) =>
          tap({ net: board.parts.flatMap((p) => p.nets).find((n) => netKey(n) === netKey(net)) ?? net })
        }
        height={300}
      />
      <Finder
        label="Find a figure of the board"
        placeholder="C1, rated, OUT+ …"
        wanted={wanted}
        onWanted={setWanted}
        groups={[{ heading: null, items: shown.slice(0, MOST_SHOWN) }]}
        keyOf={(f) => f.key}
        onTake={onPick}
        row={(f) => (
          <>
            <span className="min-w-0 flex-1 truncate">{f.words}</span>
            <span className="figure w-28 text-right">{formatQuantity(f.value, f.unit, 4)}</span>
            <span className="w-44 truncate text-sm opacity-80">
              {f.basis}: {f.why}
            </span>
          </>
        )}
        empty={
          <>
            {name === undefined ? 'The board has' : `${name} has`} no figure like this
            {wanted !== '' && ` for “${wanted}”`}. Trace it first, or type the value.
          </>
        }
        beside={
          name !== undefined && (
            <button
              type="button"
              className="px-4 text-slate underline underline-offset-4"
              onClick={() => setTapped({})}
            >
              only {name}: show all
            </button>
          )
        }
        fills
      />
    </Modal>
  );
}
