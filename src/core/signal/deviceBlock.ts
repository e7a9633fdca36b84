import { roomFor } from '../device';
import type { Device, Evaluation } from '../device';
import { invertComplex } from '../linear';

/** A complex matrix, row by row. */
export interface ComplexMatrix {
  readonly re: Float64Array;
  readonly im: Float64Array;
}

/**
 * What a device does to a small signal at one frequency: amperes into its t terminals by the volts at them.
 *
 * own     t by t, siemens, its inner states solved for.
 * byLog   for each drawn parameter the derivative of `own` by its natural log.
 */
export interface DeviceBlock {
  readonly own: ComplexMatrix;
  readonly byLog: readonly ComplexMatrix[];
}

/** Windings without loss that share all of their flux would be no function of their volts: so much of each is left to itself. */
const LEAKAGE_SHARE = 1e-8;
/** Volts at which a device is asked how it goes with its parameters: small enough for a junction to be straight. */
const SMALL_VOLTS = 1e-6;

/** The block of a device about zero bias at `omega` radians per second; its parameters as the circuit lays them out. */
export function deviceBlock(device: Device, parameters: Float64Array, omega: number): DeviceBlock {
  const { model, at } = device;
  const t = model.terminals;
  const n = t + model.states;
  const room = roomFor(model);
  model.evaluate(parameters, at, new Float64Array(n), room);
  const whole: ComplexMatrix = {
    re: Float64Array.from(room.slope),
    im: Float64Array.from(room.capacity, (c) => omega * c),
  };
  const inner = innerOf(device, whole, n);
  const derivatives = byLogOf(device, parameters, omega, room);
  return {
    own: reduced(whole, n, t, inner),
    byLog: derivatives.map((d) => between(d, n, t, inner)),
  };
}

/** How the inner states follow the terminals (right), and how they weigh in what is read there (left): s by t each. */
interface Inner {
  readonly right: ComplexMatrix;
  readonly left: ComplexMatrix;
}

function innerOf({ model }: Device, { re, im }: ComplexMatrix, n: number): Inner | null {
  const t = model.terminals;
  const s = model.states;
  if (s === 0) return null;
  const ss = { re: new Float64Array(s * s), im: new Float64Array(s * s) };
  for (let i = 0; i < s; i++)
    for (let j = 0; j < s; j++) {
      ss.re[i * s + j] = re[(t + i) * n + t + j]!;
      ss.im[i * s + j] = im[(t + i) * n + t + j]!;
    }
  if (model.kind === 'windings') for (let i = 0; i < s; i++) ss.im[i * s + i] = ss.im[i * s + i]! * (1 + LEAKAGE_SHARE);
  invertComplex(ss.re, ss.im, s);
  const right = { re: new Float64Array(s * t), im: new Float64Array(s * t) };
  const left = { re: new Float64Array(s * t), im: new Float64Array(s * t) };
  for (let i = 0; i < s; i++)
    for (let j = 0; j < t; j++)
      for (let k = 0; k < s; k++) {
        addProduct(right, i * t + j, -1, ss, i * s + k, { re, im }, (t + k) * n + j);
        addProduct(left, i * t + j, -1, ss, k * s + i, { re, im }, j * n + t + k);
      }
  return { right, left };
}

/** into[at] += sign a[i] b[j] */
function addProduct(
  into: ComplexMatrix,
  at: number,
  sign: number,
  a: ComplexMatrix,
  i: number,
  b: ComplexMatrix,
  j: number,
): void {
  into.re[at] = into.re[at]! + sign * (a.re[i]! * b.re[j]! - a.im[i]! * b.im[j]!);
  into.im[at] = into.im[at]! + sign * (a.re[i]! * b.im[j]! + a.im[i]! * b.re[j]!);
}

/** Terminals alone: what is left when the states have been solved for. */
function reduced(whole: ComplexMatrix, n: number, t: number, inner: Inner | null): ComplexMatrix {
  const out = { re: new Float64Array(t * t), im: new Float64Array(t * t) };
  for (let i = 0; i < t; i++)
    for (let j = 0; j < t; j++) {
      out.re[i * t + j] = whole.re[i * n + j]!;
      out.im[i * t + j] = whole.im[i * n + j]!;
      for (let k = 0; inner && k < n - t; k++)
        addProduct(out, i * t + j, 1, whole, i * n + t + k, inner.right, k * t + j);
    }
  return out;
}

/** A change of the whole matrix as the terminals feel it: [1, left'] change [1; right]. */
function between(change: ComplexMatrix, n: number, t: number, inner: Inner | null): ComplexMatrix {
  if (!inner) return change;
  const s = n - t;
  const half = { re: new Float64Array(n * t), im: new Float64Array(n * t) };
  for (let i = 0; i < n; i++)
    for (let j = 0; j < t; j++) {
      half.re[i * t + j] = change.re[i * n + j]!;
      half.im[i * t + j] = change.im[i * n + j]!;
      for (let k = 0; k < s; k++) addProduct(half, i * t + j, 1, change, i * n + t + k, inner.right, k * t + j);
    }
  const out = { re: half.re.slice(0, t * t), im: half.im.slice(0, t * t) };
  for (let i = 0; i < t; i++)
    for (let j = 0; j < t; j++)
      for (let k = 0; k < s; k++) addProduct(out, i * t + j, 1, inner.left, k * t + i, half, (t + k) * t + j);
  return out;
}

/** Derivatives of slope + jω capacity by the log of each drawn parameter, n by n each. */
function byLogOf(
  { model, at }: Device,
  parameters: Float64Array,
  omega: number,
  room: Evaluation,
): readonly ComplexMatrix[] {
  const n = model.terminals + model.states;
  const m = model.drawn.length;
  const out = Array.from({ length: m }, () => ({ re: new Float64Array(n * n), im: new Float64Array(n * n) }));
  const x = new Float64Array(n);
  for (let j = 0; m > 0 && j < n; j++) {
    x.fill(0);
    x[j] = SMALL_VOLTS;
    model.evaluate(parameters, at, x, room);
    out.forEach((d, k) => {
      for (let i = 0; i < n; i++) {
        d.re[i * n + j] = room.flowByLog[i * m + k]! / SMALL_VOLTS;
        d.im[i * n + j] = (omega * room.chargeByLog[i * m + k]!) / SMALL_VOLTS;
      }
    });
  }
  return out;
}
