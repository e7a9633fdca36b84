import type { PowerConverter } from '../stages';
import { oscillatorOf, oscillatorPeak } from './blockingOscillator';
import { oneWay } from './modelled';
import type { Modelled } from './modelled';
import type { Operation } from './operate';
import { SWITCH_FARADS, snubFarads } from './spike';
import { royerOf, royerSignal } from './royer';
import { flowsOf } from './workDevice';

/**
 * What a resonant push-pull that drives itself does: a sine across its tuned circuit and windings, half of one at each
 * collector, the whole current of its feed in one transistor at a time; its rectifiers bear the rail behind them.
 */
export function royerStrain(operation: Operation, c: PowerConverter): Modelled | null {
  const { unit, volts } = operation;
  const royer = royerOf(unit, c);
  if (!royer) return null;
  const signal = (a: number, b: number): ReturnType<typeof royerSignal> =>
    royerSignal(royer, volts, a, b) ?? royerSignal(royer, volts, b, a);
  const device = unit.lastDevices.filter((d) => d.name === 'resonant push-pull');
  const flows = device.map((d) => flowsOf(d, volts));
  const takes = flows.reduce((sum, f) => sum + Math.abs(f[0]!), 0);
  const states = new Map<number, readonly [number, number]>();
  const gives = new Map<number, number>();
  royer.outputs.forEach((o, i) => {
    const rails = [volts[o.from]!, volts[o.to]!] as const;
    for (const n of [o.end, o.at]) if (!unit.isSteady(n)) states.set(n, rails);
    gives.set(o.to, Math.abs(flows[i]?.[3] ?? 0));
    gives.set(o.from, Math.abs(flows[i]?.[3] ?? 0));
  });
  const bridge = royer.outputs.flatMap((o) => o.bridge);
  return {
    states,
    across(a, b) {
      // Its ballast bears the whole winding while its output is shorted: that is what it is there for.
      const behind = royer.outputs.find(
        (o) => o.ballast < Infinity && [a, b].includes(o.at) && [a, b].includes(o.start),
      );
      const other = behind && royer.windings.find((w) => w.ends.includes(behind.start) && w.ends.includes(behind.end));
      const s = other ? signal(other.ends[0], other.ends[1]) : signal(a, b);
      if (!s) return null;
      const collectors = royer.transistors.map((t) => t.nodes[0]!);
      const half = [a, b].includes(royer.low) && collectors.some((n) => n === a || n === b);
      const sign = b === royer.low ? 1 : -1;
      if (half) {
        const mean = sign * (s.swing / Math.PI);
        return { mean, rms: s.swing / 2, high: sign > 0 ? s.swing : 0, low: sign > 0 ? 0 : -s.swing };
      }
      return { mean: 0, rms: s.rms, high: s.swing / 2, low: -s.swing / 2 };
    },
    through(d) {
      if (royer.transistors.some((t) => t === d)) return oneWay(takes / 2, takes / Math.SQRT2, takes);
      const own = bridge.find((b) => b.device === d);
      if (!own) return null;
      const mean = (gives.get(own.rail) ?? 0) / 2;
      return oneWay(mean, mean * (Math.PI / 2), mean * Math.PI);
    },
    ripple(d) {
      const s = signal(d.nodes[0]!, d.nodes[1]!);
      return s ? 2 * Math.PI * s.hertz * unit.circuit.parameters[d.at]! * s.rms : 0;
    },
  };
}

/**
 * What a blocking oscillator does: its transistor's current rises to where the base runs out and goes on into the output's
 * diode; its collector then bears the supply, the output by turns, and the spike that its leakage leaves in the capacitor across
 * it. highs: volts of the nodes at their crest.
 */
export function oscillatorStrain(operation: Operation, c: PowerConverter, highs: Float64Array): Modelled | null {
  const { unit, volts } = operation;
  const o = oscillatorOf(unit, c);
  if (!o) return null;
  const supply = volts[o.supply]! - volts[o.low]!;
  const peak = oscillatorPeak(o, supply);
  const out = highs[o.to]! - highs[o.from]!;
  const [collector] = o.transistor.nodes as [number, number, number];
  const back = supply + out / o.output;
  const spike =
    peak * Math.sqrt(leakage(operation, c, o.henries) / Math.max(snubFarads(operation, collector), SWITCH_FARADS));
  const on = (o.henries * peak) / Math.max(supply, 0.1);
  const off = (o.henries * peak) / Math.max(out / o.output, 0.1);
  const duty = on / (on + off);
  const { circuit } = unit;
  const charges = circuit.devices.find(
    (d) => d.model.kind === 'junction' && d.nodes[1] === o.to && !unit.isSteady(d.nodes[0]!),
  );
  const hot = charges?.nodes[0] ?? -1;
  const low = volts[o.low]!;
  return {
    states: new Map<number, readonly [number, number]>([
      [collector, [low, low + back + spike]],
      ...(hot < 0 ? [] : [[hot, [highs[o.from]! - supply * o.output, highs[o.to]!]] as const]),
    ]),
    across: () => null,
    through(d) {
      if (d === o.transistor) return oneWay((peak * duty) / 2, peak * Math.sqrt(duty / 3), peak);
      if (d === charges) {
        const second = peak / o.output;
        return oneWay((second * (1 - duty)) / 2, second * Math.sqrt((1 - duty) / 3), second);
      }
      return null;
    },
    ripple: () => 0,
  };
}

/** Henries of a winding that its best coupled neighbour does not take. */
function leakage({ unit }: Operation, c: PowerConverter, henries: number): number {
  const { board } = unit.plan;
  const own = c.coils[0]?.toLowerCase();
  const best = board.couplings.reduce(
    (most, k) => ([k.first, k.second].some((n) => n.toLowerCase() === own) ? Math.max(most, k.factor) : most),
    0,
  );
  return henries * (1 - best ** 2);
}
