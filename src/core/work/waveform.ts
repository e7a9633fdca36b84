import { drivePin, withGateResistors } from './icWork';
import type { Operation } from './operate';
import type { SwitchedRun } from './switched';
import type { RunningCell } from './unitCircuit';
import type { WorkIc } from './workPlan';
import { supplyThresholds } from './workPlan';

/** One period of the volts between two places: seconds and volts, and what a scope would say of it, Hz and V. */
export interface Waveform {
  readonly hertz: number;
  readonly duty: number;
  readonly points: readonly (readonly [seconds: number, volts: number])[];
  readonly high: number;
  readonly low: number;
  readonly mean: number;
  readonly rms: number;
}

/**
 * One period of the volts between two nodes of a unit at work: of a node that switches or ripples, of a gate, of the pin that
 * senses a current, of a supply pin that saws between its thresholds. null where nothing is periodic.
 */
export function waveformOf(operation: Operation, a: number, b: number): Waveform | null {
  if (a < 0 || b < 0 || a === b) return null;
  const { unit, state } = operation;
  const running = unit.cells.filter(
    (c, i): c is RunningCell => c !== null && c.result !== null && state.running.has(i),
  );
  for (const own of running) {
    const at = swinging(operation, own, a) ?? gate(operation, own, a) ?? sensed(operation, own, a);
    if (at) return followed(operation, own, at, b);
  }
  return sawing(operation, a, b);
}

/** Volts of a node at a moment of a period, against nothing. */
type Moment = (run: SwitchedRun) => number;

/** Volts of any node at a moment: those of the run where it swings or ripples, else its mean. */
function nodeAt({ volts }: Operation, { cell }: RunningCell, node: number): Moment {
  const unknown = cell.unknownOf.get(node);
  if (unknown !== undefined) return (run) => run.volts[unknown]!;
  const ripple = cell.softSpots.get(node)?.unknown;
  return ripple === undefined ? () => volts[node]! : (run) => volts[node]! + run.volts[ripple]!;
}

function swinging(operation: Operation, own: RunningCell, a: number): Moment | null {
  const { cell } = own;
  return cell.unknownOf.has(a) || cell.softSpots.has(a) ? nodeAt(operation, own, a) : null;
}

/** A gate, or the output that drives it: its driver's supply while its switch is on. */
function gate(operation: Operation, own: RunningCell, a: number): Moment | null {
  const { unit, volts } = operation;
  const { converter, cell } = own;
  const drivers = [...new Set([converter.controller, ...converter.drivers])].flatMap((ref) => {
    const ic = ref === null ? undefined : unit.plan.ics.get(ref);
    return ic ? [ic] : [];
  });
  const pins = ({ index, roles }: WorkIc): readonly number[] =>
    (roles['GATE'] ?? []).map((at) => unit.circuit.pins[index]![at]!);
  for (const s of converter.switches) {
    const control = unit.node(s.control);
    const index = cell.switchDevices.findIndex((d) => s.refs.includes(d.name));
    const near = withGateResistors(unit, new Set([control]));
    // By a resistor at the most: what a transformer brings has no base to stand on.
    for (const ic of index < 0 ? [] : drivers) {
      const pin = pins(ic).find((p) => near.has(p));
      if (pin === undefined || (a !== control && a !== pin)) continue;
      const rides = s.side === 'top' ? unit.pin(ic, 'SW') : -1;
      const base = rides >= 0 ? rides : unit.ground(ic);
      const supply = rides >= 0 ? unit.pin(ic, 'BST') : drivePin(unit, ic);
      if (base < 0 || supply < 0) continue;
      const height = volts[supply]! - volts[base]!;
      const lowOn = unit.circuit.parameters[cell.switchDevices[index]!.at]! < 0;
      const under = nodeAt(operation, own, base);
      return (run) => under(run) + (run.switchOn[index]! !== lowOn ? height : 0);
    }
  }
  return null;
}

/** The pin that senses a converter's current: the current of its switches over its shunt. */
function sensed({ unit, volts }: Operation, { converter, senseOhms }: RunningCell, a: number): Moment | null {
  const ic = converter.controller === null ? undefined : unit.plan.ics.get(converter.controller);
  if (!ic || unit.pin(ic, 'CS') !== a || !(senseOhms > 0 && senseOhms < Infinity)) return null;
  const ground = unit.ground(ic);
  return (run) => volts[ground]! + senseOhms * run.switchAmps.reduce((sum, amps) => sum + amps, 0);
}

/** One period as the cell runs it. */
function followed(operation: Operation, own: RunningCell, at: Moment, black: number): Waveform {
  const { cell, result, top, hertz } = own;
  const under = nodeAt(operation, own, black);
  const points: (readonly [number, number])[] = [];
  let [mean, square, before, last, states] = [0, 0, 0, NaN, ''];
  cell.follow(cell.given(operation.volts), top, (t, run) => {
    const v = at(run) - under(run);
    const now = [...run.switchOn, ...run.diodeOn].join();
    // Straight from where it was, unless something has switched in between.
    const from = now === states ? last : v;
    mean += ((from + v) / 2) * (t - before) * hertz;
    square += ((from * from + from * v + v * v) / 3) * (t - before) * hertz;
    points.push([t, v]);
    [before, last, states] = [t, v, now];
  });
  return { hertz, duty: result!.duty, points, ...heights(points), mean, rms: Math.sqrt(square) };
}

function heights(points: readonly (readonly [number, number])[]): { readonly high: number; readonly low: number } {
  const volts = points.map(([, v]) => v);
  return { high: Math.max(...volts), low: Math.min(...volts) };
}

/** A supply pin in hiccup: it falls while its controller works and rises while it waits. */
function sawing({ unit, volts, hiccup }: Operation, a: number, b: number): Waveform | null {
  const ic = hiccup ? unit.plan.ics.get(hiccup.ref) : undefined;
  const thresholds = ic && supplyThresholds(ic);
  if (!hiccup || !ic || !thresholds || unit.pin(ic, 'VCC') !== a) return null;
  const more = volts[unit.ground(ic)]! - volts[b]!;
  const [start, stop] = [thresholds.start + more, thresholds.stop + more];
  const { period, onShare } = hiccup;
  // Straight both ways: the mean lies half way, the mean square a third of the way of the squares.
  return {
    hertz: 1 / period,
    duty: onShare,
    points: [
      [0, start],
      [onShare * period, stop],
      [period, start],
    ],
    high: start,
    low: stop,
    mean: (start + stop) / 2,
    rms: Math.sqrt((start ** 2 + start * stop + stop ** 2) / 3),
  };
}
