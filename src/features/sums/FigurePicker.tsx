'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { figuresFor } from '@/core/figures';
import type { Figure } from '@/core/figures';
import { formatQuantity } from '@/core/quantity';
import { operatingPoint } from '@/core/operate';
import type { SumInput } from '@/core/sums';
import { Modal } from '@/ui/Modal';
import { Schematic } from '@/features/schematic/Schematic';

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
  const [at, setAt] = useState(0);
  const [tapped, setTapped] = useState<{ readonly ref?: string; readonly net?: string }>({});
  const list = useRef<HTMLUListElement>(null);
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
  const current = Math.min(at, Math.max(0, shown.length - 1));
  useEffect(() => {
    list.current?.children[current]?.scrollIntoView({ block: 'nearest' });
  }, [current]);
  const tap = (place: { ref?: string; net?: string }): void => {
    const here = figuresFor(board, input.unit, place);
    const [only] = here;
    if (only && here.length === 1) onPick(only);
    else {
      setTapped(place);
      setAt(0);
    }
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
      <div className="flex items-center gap-3">
        <input
          autoFocus
          type="search"
          role="combobox"
          aria-expanded
          aria-controls="figures"
          aria-activedescendant={shown[current] ? `figure-${current}` : undefined}
          aria-label="Find a figure of the board"
          value={wanted}
          onChange={(e) => {
            setWanted(e.target.value);
            setAt(0);
          }}
          onKeyDown={(e) => {
            if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
              e.preventDefault();
              setAt(Math.max(0, Math.min(shown.length - 1, current + (e.key === 'ArrowDown' ? 1 : -1))));
            }
            if (e.key === 'Enter' && shown[current]) onPick(shown[current]);
          }}
          placeholder="C1, rated, OUT+ …"
          className="w-64 rounded-sm border border-line bg-ground px-2 py-1.5 placeholder:text-faint"
        />
        {name !== undefined && (
          <button type="button" className="text-slate underline underline-offset-4" onClick={() => setTapped({})}>
            only {name}: show all
          </button>
        )}
      </div>
      {shown.length === 0 && (
        <p>
          {name === undefined ? 'The board has' : `${name} has`} no figure like this
          {wanted !== '' && ` for “${wanted}”`}. Trace it first, or type the value.
        </p>
      )}
      <ul
        id="figures"
        role="listbox"
        aria-label="Figures of the board"
        ref={list}
        className="min-h-0 flex-1 overflow-y-auto"
      >
        {shown.map((f, i) => (
          <li
            key={f.key}
            id={`figure-${i}`}
            role="option"
            aria-selected={i === current}
            onClick={() => onPick(f)}
            className={`grid h-8 cursor-pointer grid-cols-[1fr_7rem_11rem] items-center gap-3 px-2 ${i === current ? 'bg-ground outline-2 -outline-offset-2 outline-slate' : ''}`}
          >
            <span className="truncate">{f.words}</span>
            <span className="figure text-right">{formatQuantity(f.value, f.unit, 4)}</span>
            <span className="truncate text-sm text-faint">
              {f.basis}: {f.why}
            </span>
          </li>
        ))}
      </ul>
    </Modal>
  );
}
