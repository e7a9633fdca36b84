/** How a verdict is written beside a figure, and its ink. */
export const OUTCOME_SIGNS = { agree: '✓', disagree: '✕', noted: '●' } as const;
export const OUTCOME_INKS = { agree: 'text-verdigris', disagree: 'text-oxide', noted: 'text-slate' } as const;
