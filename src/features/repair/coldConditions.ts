/** Conditions of a reading on an unpowered board. */
export const COLD_CONDITIONS = {
  powered: false,
  suppliedBy: '',
  load: '',
  minutesOn: null,
  celsius: null,
  stimulus: 'none',
  settled: 'settled',
} as const;
