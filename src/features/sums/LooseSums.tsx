'use client';
import { SumsScreen } from './SumsScreen';

/** Bench sums on their own: no board to follow, nothing to keep them in. */
export function LooseSums() {
  return <SumsScreen place="bench" board={null} kept={[]} onKeep={null} />;
}
