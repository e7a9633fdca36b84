/** Axis looks shared by all plots. */
export const AXIS = { stroke: 'var(--faint)', tick: { fill: 'var(--faint)', fontSize: 12 }, tickLine: false } as const;
