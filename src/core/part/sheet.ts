import { ownValue } from '../problem';
import type { Unit } from '../quantity';

/** The data-sheet facts that a computation may need, what each says and its unit. The table of the notes on facts. */
export const SHEET_FACTS = {
  vccStart: ['supply pin, starts at', 'V'],
  vccStop: ['supply pin, stops at', 'V'],
  iStart: ['drawn before the start', 'A'],
  iStartSource: ['pushed into the supply pin until the start', 'A'],
  iRun: ['drawn at work', 'A'],
  vccOut: ['own supply', 'V'],
  fSwitch: ['switching frequency', 'Hz'],
  dutyMax: ['longest on-time', '1'],
  deadTime: ['pause between two switches', 's'],
  softStart: ['from start to full output', 's'],
  csMax: ['current sense threshold', 'V'],
  iLimit: ['current limit', 'A'],
  ccDuty: ['secondary conducts while limiting', '1'],
  fbRef: ['feedback reference', 'V'],
  fbPullup: ['inner resistor at the feedback pin', 'ohm'],
  fbRail: ['inner rail of that resistor', 'V'],
  fbOffset: ['feedback offset', 'V'],
  fbDivide: ['feedback divisor', '1'],
  vRef: ['reference output', 'V'],
  vOut: ['output', 'V'],
  vZero: ['sensor output at zero', 'V'],
  ctr: ['transfer ratio', '1'],
  iTrigger: ['light that fires it', 'A'],
  switchRon: ['switch, on', 'ohm'],
  switchVr: ['switch, rated volts', 'V'],
  enableOn: ['enables at', 'V'],
  enableOff: ['disables at', 'V'],
  uvOn: ['input watch, on at', 'V'],
  uvOff: ['input watch, off at', 'V'],
  coilOn: ['coil pulls in at', 'V'],
  coilOff: ['coil drops out at', 'V'],
  breakover: ['fires at', 'V'],
  vLit: ['lit', 'V'],
  groundPin: ['pin its voltages count from', '1'],
} as const satisfies Record<string, readonly [string, Unit]>;

export type SheetFact = keyof typeof SHEET_FACTS;

/** All data-sheet facts of a board, by designator; keys not in the table are kept. */
export type Sheets = Readonly<Record<string, Readonly<Record<string, number>>>>;

/** A data-sheet fact of a part, SI units; undefined where nobody entered it. */
export function sheetFact(sheets: Sheets | undefined, ref: string, fact: SheetFact): number | undefined {
  const sheet = sheets && ownValue(sheets, ref);
  return sheet && ownValue(sheet, fact);
}

/** Every data-sheet fact of a part by its key; undefined where nobody entered any. */
export function sheetOf(sheets: Sheets | undefined, ref: string): Readonly<Record<string, number>> | undefined {
  return sheets && ownValue(sheets, ref);
}

/** The volts at which the data sheet says a pin stands in normal work (`pinN`), pins counted from 1; undefined where it says nothing. */
export function heldPinVolts(sheets: Sheets | undefined, ref: string, pin: number): number | undefined {
  const sheet = sheets && ownValue(sheets, ref);
  return sheet && ownValue(sheet, `pin${pin}`);
}
