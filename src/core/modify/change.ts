import type { SeriesName } from '../quantity';

/** A board changed on purpose, by its parameters: from these and the board everything about it follows. SI units. */
export type Change =
  | {
      readonly kind: 'output-voltage';
      readonly rail: string;
      readonly return: string;
      /** Net of the divider's middle. */
      readonly tap: string;
      readonly vRef: number;
      readonly vTarget: number;
      readonly modify: 'top' | 'bottom';
      readonly series: SeriesName;
      readonly loadVolts?: number | undefined;
    }
  | {
      readonly kind: 'lock-out';
      readonly ref: string;
      readonly pin: string;
      readonly rail: string;
      readonly return: string;
      readonly vTh: number;
      readonly vRise: number;
      readonly vHyst: number;
      readonly vBrownOut: number;
      readonly rBottom: number;
      readonly series: 'E24' | 'E96';
      /** Net that is at the return until the converter starts; needed where hysteresis is asked for. */
      readonly hystNet?: string | undefined;
    }
  | {
      readonly kind: 'start-on-load';
      readonly rail: string;
      readonly return: string;
      /** Output connector and the number of its return pin. */
      readonly connector: string;
      readonly pin: string;
      readonly vBe: number;
      readonly iMin: number;
      readonly iMax: number;
      readonly vDropMax: number;
      readonly ratedWatts: number;
      /** Net that the sense transistor pulls to the return when a load is there. */
      readonly wakes: string;
      readonly loadVoltsMin?: number | undefined;
    };
export type ChangeKind = Change['kind'];

export const CHANGE_NAMES: Readonly<Record<ChangeKind, string>> = {
  'output-voltage': 'Set another output voltage',
  'lock-out': 'Under-voltage lock-out',
  'start-on-load': 'Start on load',
};
