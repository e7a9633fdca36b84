'use client';
import dynamic from 'next/dynamic';

/** A waveform; what draws it is fetched when one is opened. */
export const WaveView = dynamic(async () => (await import('./WaveFigure')).WaveFigure, {
  ssr: false,
  loading: () => <div className="h-[200px]" />,
});
