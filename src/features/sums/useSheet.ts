import { useSearchParams } from 'next/navigation';
import { useCallback, useMemo, useState } from 'react';
import { z } from 'zod';
import type { Board } from '@/core/circuit';
import { useInBrowser } from '@/features/job/kept';
import { emptySheet, sheetFromQuery, sheetQuery } from './sheet';
import type { SheetState } from './sheet';

const Left = z.object({
  name: z.string(),
  texts: z.record(z.string(), z.string()),
  bound: z.record(z.string(), z.object({ figure: z.string(), value: z.number() })),
});

/** The sheet as it was left in this browser; null where there is none that can be read. */
function sheetLeft(place: string): SheetState | null {
  try {
    return Left.parse(JSON.parse(window.sessionStorage.getItem(`sheet ${place}`) ?? 'null'));
  } catch {
    return null;
  }
}

const EMPTY = emptySheet('discharge-time');

/** By the address, else as it was left; null where neither says. */
function firstSheet(place: string, board: Board | null, query: URLSearchParams): SheetState | null {
  const linked = sheetFromQuery(query, board);
  const left = sheetLeft(place);
  // A link does not say what its figures were: what was left here does, where it is the same sheet.
  const same = linked !== null && left !== null && sheetQuery(linked) === sheetQuery(left);
  return same ? left : (linked ?? left);
}

/**
 * The sheet on the screen: from the link it came by, else as it was left (for each job by itself), else a first one.
 * It is kept in this browser and in the address, so that it can be left and come back to, or shared.
 */
export function useSheet(place: string, board: Board | null): readonly [SheetState, (state: SheetState) => void] {
  const [typed, setTyped] = useState<SheetState | null>(null);
  const there = useInBrowser();
  // On a way within the application the window's own address comes later than the page.
  const query = useSearchParams();
  // What the sheet begins with follows the board until something is changed on it.
  const first = useMemo(() => (there ? firstSheet(place, board, query) : null), [there, place, board, query]);
  const change = useCallback(
    (next: SheetState) => {
      setTyped(next);
      window.sessionStorage.setItem(`sheet ${place}`, JSON.stringify(next));
      window.history.replaceState(null, '', `${window.location.pathname}?${sheetQuery(next)}`);
    },
    [place],
  );
  return [typed ?? first ?? EMPTY, change];
}
