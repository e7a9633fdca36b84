import type { ChannelFigures } from '../part';
import type { DeviceModel } from './evaluation';

/**
 * The parameters of a channel: polarity (+1 N, -1 P), threshold in its own polarity, transconductance, on-resistance;
 * `threshold` multiplies its threshold.
 */
export function channelParameters(figures: ChannelFigures, threshold = 1): readonly number[] {
  return [figures.polarity, figures.thresholdVolts * threshold, figures.transconductance, figures.onOhms];
}

const AT = new Float64Array(3);

/** A channel; terminals drain, gate, source. Its body diode is a junction of its own. */
export const CHANNEL: DeviceModel = {
  kind: 'channel',
  terminals: 3,
  states: 0,
  drawn: ['threshold'],
  evaluate(p, o, x, out) {
    const polarity = p[o]!;
    const threshold = p[o + 1]!;
    channelCurrent(polarity * (x[1]! - x[2]!), polarity * (x[0]! - x[2]!), threshold, p[o + 2]!, p[o + 3]!, AT);
    const gm = AT[1]!;
    const gd = AT[2]!;
    const { flow, slope, flowByLog } = out;
    flow[0] = polarity * AT[0]!;
    flow[2] = -flow[0];
    slope[0] = gd;
    slope[1] = gm;
    slope[2] = -gd - gm;
    slope[6] = -gd;
    slope[7] = -gm;
    slope[8] = gd + gm;
    // The current hangs on Vgs - VTO.
    flowByLog[0] = -polarity * gm * threshold;
    flowByLog[2] = -flowByLog[0];
  },
};

/**
 * Channel of a level 1 MOSFET with its resistance in the drain lead, in its own polarity (NMOS signs).
 *
 * vgs, vds   at the terminals. out: [drain amps, d amps/d vgs, d amps/d vds].
 * Saturated Id = KP/2 (Vgs-VTO)^2; below, KP ((Vgs-VTO) Vds - Vds^2/2); exchanged for Vds < 0.
 * Source: H. Shichman and D. A. Hodges, IEEE J. Solid-State Circuits SC-3 (1968), without channel-length modulation.
 */
export function channelCurrent(
  vgs: number,
  vds: number,
  threshold: number,
  kp: number,
  onOhms: number,
  out: Float64Array,
): void {
  const x = vgs - threshold;
  if (vds >= 0) forward(x, vds, kp, onOhms, out);
  else reverse(x, -vds, kp, onOhms, out);
}

/** Whether a channel carries nothing at these volts, in its own polarity: its gate is over the threshold against neither end. */
export function isCutOff(vgs: number, vds: number, threshold: number): boolean {
  return vgs <= threshold && vgs - vds <= threshold;
}

function forward(x: number, vds: number, kp: number, onOhms: number, out: Float64Array): void {
  if (x <= 0) {
    out.fill(0, 0, 3);
    return;
  }
  const saturated = 0.5 * kp * x * x;
  if (vds - onOhms * saturated >= x) {
    out[0] = saturated;
    out[1] = kp * x;
    out[2] = 0;
    return;
  }
  const a = onOhms * kp;
  const b = 1 + a * x;
  const y = a === 0 ? vds : (2 * vds) / (b + Math.sqrt(Math.max(0, b * b - 2 * a * vds)));
  const gm = kp * y;
  const gd = kp * (x - y);
  out[0] = kp * (x * y - 0.5 * y * y);
  out[1] = gm / (1 + onOhms * gd);
  out[2] = gd / (1 + onOhms * gd);
}

/** Source above drain: the drain's inner end acts as the source. u is the voltage from source to drain. */
function reverse(x: number, u: number, kp: number, onOhms: number, out: Float64Array): void {
  let y = u;
  let amps = 0;
  let gx = 0;
  let gy = 0;
  for (let i = 0; i < 20; i++) {
    const reach = x + y;
    if (reach <= 0) amps = gx = gy = 0;
    else if (x <= 0) {
      amps = 0.5 * kp * reach * reach;
      gx = gy = kp * reach;
    } else {
      amps = kp * (x * y + 0.5 * y * y);
      gx = kp * y;
      gy = kp * reach;
    }
    const step = (y + onOhms * amps - u) / (1 + onOhms * gy);
    y -= step;
    if (Math.abs(step) < 1e-15 + 1e-14 * u) break;
  }
  const shared = 1 + onOhms * gy;
  out[0] = -amps;
  out[1] = -gx / shared;
  out[2] = gy / shared;
}
