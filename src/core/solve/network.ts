/** Thermal voltage at 300.15 K in volts (contract). */
export const THERMAL_VOLTS = 0.0258649;

/** Conductance kept across every junction in the accepted solution, siemens; below the 1e-14 that the contract of accuracy allows. */
export const JUNCTION_GMIN = 1e-15;

/** What of an element varies from part to part, for sensitivities. `spread` is one sigma of the natural log (of the value for `vto`). */
export interface Spread {
  readonly spread: number;
  /** Index of the board's part that the element belongs to. */
  readonly owner: number;
}

export interface NetworkResistor extends Spread {
  readonly a: number;
  readonly b: number;
  readonly ohms: number;
}

/** Junction with series resistance and optional breakdown. Current flows from a (anode) to k. */
export interface NetworkDiode extends Spread {
  readonly a: number;
  readonly k: number;
  readonly saturationAmps: number;
  /** Emission coefficient times the thermal voltage. */
  readonly slopeVolts: number;
  readonly seriesOhms: number;
  /** Infinity: no breakdown. */
  readonly breakdownVolts: number;
  readonly breakdownAmps: number;
}

/** Transport Ebers-Moll transistor; polarity +1 NPN, -1 PNP. */
export interface NetworkBjt extends Spread {
  readonly c: number;
  readonly b: number;
  readonly e: number;
  readonly polarity: 1 | -1;
  readonly saturationAmps: number;
  readonly forwardGain: number;
  readonly reverseGain: number;
  readonly forwardSlope: number;
  readonly reverseSlope: number;
  readonly gainSpread: number;
}

/** Level 1 channel with its resistance in the drain lead; the body diode is a NetworkDiode of its own. */
export interface NetworkMosfet extends Spread {
  readonly d: number;
  readonly g: number;
  readonly s: number;
  readonly polarity: 1 | -1;
  readonly thresholdVolts: number;
  readonly transconductance: number;
  readonly onOhms: number;
}

/**
 * A board, faults and part draws included, flattened to what conducts at DC. Ideal wires are merged away.
 *
 * nodeCount   nodes are 0..nodeCount-1.
 * nodeNames   a name for each, for messages.
 * nodeOfNet   node of each net of the board, keyed by lower-case net name.
 * component   for each node the number of its conductive component.
 */
export interface Network {
  readonly nodeCount: number;
  readonly nodeNames: readonly string[];
  readonly nodeOfNet: ReadonlyMap<string, number>;
  readonly component: Int32Array;
  readonly resistors: readonly NetworkResistor[];
  readonly diodes: readonly NetworkDiode[];
  readonly bjts: readonly NetworkBjt[];
  readonly mosfets: readonly NetworkMosfet[];
}
