import type { Device } from '../device';

/** How the switches of a cell work: which conduct together, and when in the period each phase begins. */
export interface CellPlan {
  /** Devices of the circuit that switch, by phase: 0 or 1; `sync` conduct while no phase does. */
  readonly phases: readonly (readonly Device[])[];
  readonly sync: readonly Device[];
  readonly hertz: number;
  /** Longest on-time of one phase as a share of the period. */
  readonly dutyMax: number;
  /** Nodes whose volts do not follow the switching. */
  isStatic(node: number): boolean;
  /** Nodes that a capacitor holds together while both swing: the pairs. */
  readonly riding: readonly (readonly [number, number])[];
  /** Nodes that two switches in turn, driven alike, hold at a level: the nodes that it lies between (none: as what it rides on). */
  readonly levels: ReadonlyMap<number, readonly number[]>;
  /** Devices that take no part: windings that only sense or drive, what protects the pins of integrated circuits. */
  readonly aside: ReadonlySet<Device>;
  /** Volts that a switch which is off bears: beyond, it takes what comes, as an avalanche. */
  bears(device: Device): number;
  /** Ohm that the capacitors at a standing node show to the switching. */
  rippleOhms(node: number): number;
}

/** A sum of the mean volts of nodes, each with its weight; empty: nothing. */
export type CellInput = readonly (readonly [node: number, weight: number])[];

/** One period of a cell in its steady state. */
export interface PeriodResult {
  /** Mean, rms and peak amperes of each diode, then of each switch where it gives way, then of each switch that is on. */
  readonly mean: Float64Array;
  readonly square: Float64Array;
  readonly peak: Float64Array;
  /** Share of the period that each phase was on. */
  readonly duty: number;
  /** Greatest current of the switches of a phase. */
  readonly top: number;
  /** What the comparator saw at the end of the on-time: that current and the ramp added to it. */
  readonly attained: number;
  /** Rise of the switch current at the end of the on-time, A/s. */
  readonly rise: number;
  /** Volts of the unknown nodes at the end of the last conduction of a diode, mean of the period. */
  readonly knee: Float64Array;
  readonly meanVolts: Float64Array;
  readonly squareVolts: Float64Array;
  readonly highVolts: Float64Array;
  readonly lowVolts: Float64Array;
}

/** Slopes of what a cell gives by each of its inputs and by its setting, and where they were taken. */
export interface Slopes {
  readonly byInput: readonly Float64Array[];
  readonly bySetting: Float64Array;
  readonly at: Float64Array;
  readonly setting: number;
}
