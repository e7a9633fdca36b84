import type { Unit } from '../quantity';

/** Data-sheet facts that sums use: what each is called and its unit. Keys as in the notes on facts. */
export const FACT_FIGURES: Readonly<Record<string, readonly [string, Unit]>> = {
  vccStart: ['supply pin, starts at', 'V'],
  vccStop: ['supply pin, stops at', 'V'],
  iStart: ['drawn before the start', 'A'],
  iRun: ['drawn at work', 'A'],
  vccOut: ['own supply', 'V'],
  fSwitch: ['switching frequency', 'Hz'],
  csMax: ['current sense threshold', 'V'],
  iLimit: ['current limit', 'A'],
  fbRef: ['feedback reference', 'V'],
  vRef: ['reference output', 'V'],
  vOut: ['output', 'V'],
  ctr: ['transfer ratio', '1'],
  switchRon: ['switch, on', 'ohm'],
  switchVr: ['switch, rated volts', 'V'],
  enableOn: ['enables at', 'V'],
  enableOff: ['disables at', 'V'],
  uvOn: ['input watch, on at', 'V'],
  uvOff: ['input watch, off at', 'V'],
  coilOn: ['coil pulls in at', 'V'],
  coilOff: ['coil drops out at', 'V'],
  breakover: ['fires at', 'V'],
};
