'use client';
import { useEffect } from 'react';

/** Marks the page once it listens: before that a press of a button would be lost. */
export function Hydrated() {
  useEffect(() => {
    document.documentElement.dataset['listening'] = 'yes';
  }, []);
  return null;
}
