/**
 * What a device does at a point. Its unknowns x are the volts of its t terminals, then its s states; n = t + s.
 *
 * flow          n. Amperes into the device at each terminal; after them the left side of each state's own equation.
 * slope         n by n, row by row: d flow / d x.
 * charge        n. What has to change in time: flow + d charge / dt is nothing. Coulombs at a terminal, webers (negative) in
 *               a winding's equation.
 * capacity      n by n: d charge / d x.
 * flowByLog     n by m: d flow / d ln of each drawn parameter.
 * chargeByLog   n by m: the same of the charge.
 *
 * At DC flow = 0 and G = slope; small signals see slope + jω capacity; in time flow + d charge / dt = 0.
 */
export interface Evaluation {
  readonly flow: Float64Array;
  readonly slope: Float64Array;
  readonly charge: Float64Array;
  readonly capacity: Float64Array;
  readonly flowByLog: Float64Array;
  readonly chargeByLog: Float64Array;
}

/**
 * One kind of device: how many terminals and states it has, which parameters vary from part to part, and its law.
 * `evaluate` writes into `out`, which comes from `roomFor` of the same model: what is nothing at every point it leaves alone.
 * Its parameters start at index `o` of `parameters`, laid out as the device's own file says.
 */
export interface DeviceModel {
  readonly kind: DeviceKind;
  readonly terminals: number;
  readonly states: number;
  readonly drawn: readonly string[];
  evaluate(parameters: Float64Array, o: number, x: Float64Array, out: Evaluation): void;
}

export type DeviceKind =
  | 'resistor'
  | 'capacitor'
  | 'lossy-capacitor'
  | 'windings'
  | 'junction'
  | 'transistor'
  | 'channel'
  | 'voltage-source'
  | 'current-source';

/** Room for the evaluation of devices of one model, one after the other. */
export function roomFor({ terminals, states, drawn }: DeviceModel): Evaluation {
  const n = terminals + states;
  return {
    flow: new Float64Array(n),
    slope: new Float64Array(n * n),
    charge: new Float64Array(n),
    capacity: new Float64Array(n * n),
    flowByLog: new Float64Array(n * drawn.length),
    chargeByLog: new Float64Array(n * drawn.length),
  };
}
