/** Axis looks shared by all plots. */
export const AXIS = { stroke: 'var(--faint)', tick: { fill: 'var(--faint)', fontSize: 12 }, tickLine: false } as const;

/** Looks of what a plot says where it is pointed at. */
export const TOOLTIP = { background: 'var(--raised)', border: '1px solid var(--line)', color: 'var(--ink)' } as const;
