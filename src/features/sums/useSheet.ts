import { useCallback, useEffect, useRef, useState } from 'react';
import type { Board } from '@/core/circuit';
import { emptySheet, sheetFromQuery, sheetQuery } from './sheet';
import type { SheetState } from './sheet';

/**
 * The sheet on the screen: from the link it came by, else as it was left (for each job by itself), else a first one.
 * It is kept in this browser and in the address, so that it can be left and come back to, or shared.
 */
export function useSheet(place: string, board: Board | null): readonly [SheetState, (state: SheetState) => void] {
  const [state, setState] = useState<SheetState>(() => emptySheet('discharge-time'));
  const begun = useRef(false);
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    const linked = sheetFromQuery(new URLSearchParams(window.location.search), board);
    const left = window.sessionStorage.getItem(`sheet ${place}`);
    // What comes from the browser is there only after the page is.
    if (linked) setState(linked);
    else if (left !== null) setState(JSON.parse(left) as SheetState);
  }, [place, board]);
  const change = useCallback(
    (next: SheetState) => {
      setState(next);
      window.sessionStorage.setItem(`sheet ${place}`, JSON.stringify(next));
      window.history.replaceState(null, '', `${window.location.pathname}?${sheetQuery(next)}`);
    },
    [place],
  );
  return [state, change];
}
