'use client';
import { useSyncExternalStore } from 'react';

const PHONE = '(pointer: coarse) and (max-width: 639px)';

/** Whether this is a phone: a small screen that is touched. On the server: no. */
export function useTouchPhone(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const query = window.matchMedia(PHONE);
      query.addEventListener('change', changed);
      return () => query.removeEventListener('change', changed);
    },
    () => window.matchMedia(PHONE).matches,
    () => false,
  );
}
