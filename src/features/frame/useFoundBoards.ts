'use client';
import { useEffect, useState } from 'react';

/** A board of an earlier job that something printed on it leads to. */
export interface FoundBoard {
  readonly tag: string;
  readonly unit: string;
  readonly label: string;
  readonly board_id: string;
  readonly parts: number;
}

/** Searches earlier boards by what is printed on them, a moment after typing stops. */
export function useFoundBoards(words: string): readonly FoundBoard[] {
  const [found, setFound] = useState<{ words: string; list: readonly FoundBoard[] }>({ words: '', list: [] });
  useEffect(() => {
    if (words.trim().length < 2) return;
    let stale = false;
    const timer = window.setTimeout(() => {
      void fetch(`/api/boards?printed=${encodeURIComponent(words)}`)
        .then((r) => r.json() as Promise<{ found: FoundBoard[] }>)
        .then((told) => {
          if (!stale) setFound({ words, list: told.found });
        })
        .catch(() => undefined);
    }, 250);
    return () => {
      stale = true;
      window.clearTimeout(timer);
    };
  }, [words]);
  return words.trim().length < 2 ? [] : found.list;
}
