import type { Verdict } from '@/core/stress';

/** Sign and ink of each verdict on a stress. */
export const VERDICT_LOOKS: Readonly<Record<Verdict, readonly [string, string]>> = {
  over: ['✕', 'text-oxide font-semibold'],
  tight: ['▲', 'text-brass font-semibold'],
  unknown: ['?', 'text-slate'],
  ok: ['✓', 'text-verdigris'],
};
