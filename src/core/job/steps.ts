/** The steps of a job in this order; the digit after `g` is the place in this list, from 1. */
export const STEPS = ['intake', 'safe', 'board', 'probe', 'repair', 'report'] as const;
export type Step = (typeof STEPS)[number];

/** What is at hand beside the steps, in any of them: the letter after `g`, and what it is called. */
export const TOOLS = {
  expect: { key: 'e', name: 'Expect' },
  sums: { key: 's', name: 'Sums' },
  modify: { key: 'm', name: 'Modify' },
  sweep: { key: 'w', name: 'Sweep' },
} as const;
export type Tool = keyof typeof TOOLS;

export const STEP_NAMES: Readonly<Record<Step, string>> = {
  intake: 'Intake',
  safe: 'Make safe',
  board: 'Trace',
  probe: 'Probe',
  repair: 'Repair',
  report: 'Report',
};
