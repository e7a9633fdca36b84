'use client';
import { useEffect, useState } from 'react';
import type { Waveform } from '@/core/work';

/** The waveform between two nets, asked for again whenever `of` is another one; null until it is there, and where none is. */
export function useWave(
  wave: (red: string, black: string) => Promise<Waveform | null>,
  red: string,
  black: string,
  of: object,
): Waveform | null {
  const [seen, setSeen] = useState<Waveform | null>(null);
  useEffect(() => {
    let gone = false;
    void wave(red, black).then((w) => !gone && setSeen(w));
    return () => {
      gone = true;
    };
  }, [wave, red, black, of]);
  return seen;
}
