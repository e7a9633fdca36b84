'use client';
import dynamic from 'next/dynamic';

/** The picture of a sum; what draws it is fetched when there is one. */
export const SumPicture = dynamic(async () => (await import('./SumDrawing')).SumDrawing, { ssr: false });
