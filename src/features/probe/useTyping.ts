'use client';
import { useCallback, useRef, useState } from 'react';
import type { RefObject } from 'react';

/**
 * What is typed into a field, kept by the field itself: while the page is still being put together it is drawn late, and a
 * drawing that has not caught up must put nothing back.
 *
 * begun  what stands in it at first. text: as last drawn; said: as it stands; put: writes it, typed or not.
 */
export function useTyping(begun = ''): {
  readonly field: RefObject<HTMLInputElement | null>;
  readonly text: string;
  said(): string;
  put(next: string): void;
} {
  const field = useRef<HTMLInputElement>(null);
  const [text, setText] = useState(begun);
  const said = useCallback(() => field.current?.value ?? '', []);
  const put = useCallback((next: string) => {
    if (field.current && field.current.value !== next) field.current.value = next;
    setText(next);
  }, []);
  return { field, text, said, put };
}
