'use client';
import dynamic from 'next/dynamic';

/** The drawn sweep; what draws it is fetched when one is shown. */
export const SweepPlot = dynamic(async () => (await import('./SweepChart')).SweepChart, {
  ssr: false,
  loading: () => <div className="h-[244px]" />,
});
