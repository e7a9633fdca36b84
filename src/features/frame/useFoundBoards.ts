'use client';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
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
  const [asked, setAsked] = useState('');
  useEffect(() => {
    const timer = window.setTimeout(() => setAsked(words.trim()), 250);
    return () => window.clearTimeout(timer);
  }, [words]);
  const { data } = useQuery({
    queryKey: ['boards', asked],
    enabled: asked.length >= 2,
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => {
      const answer = await fetch(`/api/boards?printed=${encodeURIComponent(asked)}`, { signal });
      return ((await answer.json()) as { found: FoundBoard[] }).found;
    },
  });
  return words.trim().length < 2 ? [] : (data ?? []);
}
