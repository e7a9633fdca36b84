import { useEffect, useRef, useState } from 'react';
import type { RefObject } from 'react';

/** The width that an element has on the screen, in pixels; followed when it changes. */
export function useWidth<T extends HTMLElement>(first: number): readonly [RefObject<T | null>, number] {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(first);
  useEffect(() => {
    const target = ref.current;
    if (!target) return;
    const observer = new ResizeObserver(([entry]) => entry && setWidth(Math.floor(entry.contentRect.width)));
    observer.observe(target);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}
