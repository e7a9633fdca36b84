'use client';
import { useEffect } from 'react';

/** Marks the page once it listens, what is fetched late included: before that a press of a button would be lost. */
export function Hydrated() {
  useEffect(() => {
    document.documentElement.dataset['listening'] = 'yes';
  }, []);
  return null;
}
