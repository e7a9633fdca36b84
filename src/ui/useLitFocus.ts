'use client';
import { useEffect, useRef } from 'react';
import type { RefObject } from 'react';

/** Gives an element focus when it becomes the next thing to do; also on a page that came ready from the server. */
export function useLitFocus<T extends HTMLElement>(lit: boolean | undefined): RefObject<T | null> {
  const ref = useRef<T>(null);
  useEffect(() => {
    if (lit) ref.current?.focus();
  }, [lit]);
  return ref;
}
