'use client';
import { useEffect, useEffectEvent } from 'react';
import type { RefObject } from 'react';

/** Somewhere else that takes typing of its own. */
const ELSEWHERE =
  'input, textarea, [contenteditable], [role="dialog"], [role="alertdialog"], [role="radiogroup"], [role="combobox"], [role="listbox"]';

/**
 * Digits always come to the field, wherever focus is; the letters that act do so too while it is empty. acts: what each
 * key does.
 */
export function useAnywhere(
  field: RefObject<HTMLInputElement | null>,
  acts: Readonly<Record<string, () => void>>,
): void {
  const anywhere = useEffectEvent((event: KeyboardEvent): void => {
    const target = event.target as HTMLElement;
    if (target.closest(ELSEWHERE) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (/^[\d.~-]$/u.test(event.key)) return field.current?.focus();
    const act = field.current?.value === '' && event.key !== ' ' ? acts[event.key] : undefined;
    if (!act) return;
    event.preventDefault();
    field.current?.focus();
    act();
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => anywhere(event);
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
