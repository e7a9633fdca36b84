'use client';
import { useCallback, useEffect, useRef } from 'react';
import type { Ref, RefObject } from 'react';

/** Gives an element focus when it becomes the next thing to do; also on a page that came ready from the server. */
export function useLitFocus<T extends HTMLElement>(lit: boolean | undefined): RefObject<T | null> {
  const ref = useRef<T>(null);
  useEffect(() => {
    if (lit) ref.current?.focus();
  }, [lit]);
  return ref;
}

function give<T>(ref: Ref<T> | undefined, element: T | null): void {
  if (typeof ref === 'function') ref(element);
  else if (ref) ref.current = element;
}

/** One ref for two that hold on to the same element: ours, and that of whoever else does, such as a form. */
export function useBothRefs<T extends HTMLElement>(
  own: RefObject<T | null>,
  other: Ref<T> | undefined,
): (element: T | null) => void {
  return useCallback(
    (element) => {
      give(own, element);
      give(other, element);
    },
    [own, other],
  );
}
