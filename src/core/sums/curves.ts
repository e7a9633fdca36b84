import type { SumDone } from './runOne';

/** A point of a curve: abscissa and ordinate, SI units. */
export interface CurvePoint {
  readonly x: number;
  readonly y: number;
}

const number = (done: SumDone, key: string): number => {
  const value = done.results[key] ?? done.inputs[key];
  return typeof value === 'number' ? value : 0;
};

/**
 * Volts over seconds of a discharge, from its start to somewhat below the wanted voltage. done: a `discharge-time`.
 * `count` points, the first at the start.
 */
export function dischargeCurve(done: SumDone, count = 81): readonly CurvePoint[] {
  const [tau, start] = [number(done, 'tau'), number(done, 'vStart')];
  const span = Math.max(number(done, 'time') * 1.2, tau);
  return Array.from({ length: count }, (_, i) => {
    const x = (span * i) / (count - 1);
    return { x, y: start * Math.exp(-x / tau) };
  });
}

/**
 * Volts on the bulk capacitor over two half-waves, and the rectified source beside it. done: a `bulk-ripple` that
 * holds; nothing for one that does not. x: seconds from a zero of the mains.
 */
export function bulkWave(done: SumDone, count = 161): readonly (CurvePoint & { readonly source: number })[] {
  if (done.results['holds'] !== true) return [];
  const [vac, f, vf] = [number(done, 'vac'), number(done, 'f'), number(done, 'vf')];
  const [c, p, vMin] = [number(done, 'c'), number(done, 'p'), number(done, 'vMin')];
  const peak = Math.SQRT2 * vac;
  const omega = 2 * Math.PI * f;
  const source = (angle: number): number => Math.max(0, peak * Math.abs(Math.sin(angle)) - 2 * vf);
  const on = Math.asin((vMin + 2 * vf) / peak);
  const off = on + (number(done, 'conductionAngle') * Math.PI) / 180;
  const held = (since: number): number => Math.sqrt(Math.max(0, source(off) ** 2 - (2 * p * since) / (omega * c)));
  return Array.from({ length: count }, (_, i) => {
    const angle = (2 * Math.PI * i) / (count - 1);
    const within = angle % Math.PI;
    const y = within < on ? held(within + Math.PI - off) : within <= off ? source(within) : held(within - off);
    return { x: angle / omega, y, source: source(angle) };
  });
}
