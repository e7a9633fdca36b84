import { aimOf, controllerOf } from './makeCell';
import { loadShare } from './workBoard';
import type { UnitUnderPower } from './unit';
import type { RunningCell } from './unitCircuit';
import type { WorkIc } from './workPlan';

/** The loop of one running converter: what it regulates and within which limits. */
export interface Loop {
  readonly running: RunningCell;
  readonly ic: WorkIc | undefined;
  readonly sampled: { readonly node: number; readonly share: number } | null;
  limit: number;
  turns: number;
  /** The supply of its controller, V, and for how many rounds it has been falling while all was given. */
  supply: number;
  falling: number;
  /** Whether its controller's law at a feedback pin is known; and the printed output that it makes. */
  readonly told: boolean;
  readonly made: { readonly rail: number; readonly back: number; readonly volts: number } | null;
}

/** A pulse is never less than this, ampere; a converter never slower than this, hertz. */
const LEAST_TOP = 2e-4;
export const LEAST_HERTZ = 150;

export const leastTop = ({ cell }: RunningCell): number => Math.max(LEAST_TOP, cell.floor);

/** The loop of a converter that runs. */
export function loopOf(unit: UnitUnderPower, running: RunningCell): Loop {
  const ic = controllerOf(unit, running.converter);
  const fb = ic ? unit.pin(ic, 'FB') : -1;
  const { told, made } = aimOf(unit, running.converter);
  return {
    running,
    ic,
    told,
    made: made
      ? {
          rail: unit.node(made.rail),
          back: unit.node(made.return),
          volts: made.volts * (unit.aims.get(made.rail) ?? 1),
        }
      : null,
    sampled: ic && fb >= 0 ? unit.sampled(fb, unit.ground(ic), running) : null,
    turns: 0,
    supply: 0,
    falling: 0,
    limit: topLimit(unit, running, ic),
  };
}

/** A first setting: where the switches take about the power that the loads want. */
export function begin(unit: UnitUnderPower, loop: Loop, x: Float64Array): void {
  const { running, limit } = loop;
  const { cell, converter, by } = running;
  if (by === 'hertz') {
    if (running.result) return;
    running.top = Math.min(limit, 10);
  } else if (running.top > 0) return;
  const watts = wanted(unit, running, loadShare(unit.condition)) / 0.85;
  const given = cell.given(x);
  const supply = Math.abs(x[unit.node(converter.supply)] ?? 0);
  const low = converter.switches.find((s) => s.side !== 'top')?.low;
  const volts = Math.max(supply - (low === undefined || unit.node(low) < 0 ? 0 : x[unit.node(low)]!), 0.5);
  const share = converter.topology === 'half-bridge' || converter.topology === 'two-switch-forward' ? 0.5 : 1;
  const takes = (setting: number): number => {
    cell.hertz = by === 'hertz' ? setting : running.hertz;
    const result = cell.period(given, by === 'hertz' ? running.top : setting);
    if (by === 'top' && cell.ramp === 0 && result.rise > 0) cell.ramp = 0.5 * result.rise;
    const count = cell.circuit.diodes.length;
    let amps = 0;
    result.mean.forEach((m, i) => {
      const drives = i >= count && !cell.plan.sync.includes(cell.switchDevices[i - count]!);
      if (drives || (i < count && converter.topology === 'boost')) amps += Math.max(m, 0);
    });
    return share * amps * volts;
  };
  const settingFor = (power: number): number => {
    let [least, most] =
      by === 'hertz'
        ? [LEAST_HERTZ, 1.3 * cell.plan.hertz]
        : [10 * LEAST_TOP, Math.min(Math.max(limit, 20 * LEAST_TOP), 300)];
    for (let i = 0; i < 12; i++) {
      const middle = Math.sqrt(least * most);
      if (takes(middle) > power) most = middle;
      else least = middle;
    }
    return Math.sqrt(least * most);
  };
  const found = settingFor(watts);
  if (by === 'hertz') running.hertz = found;
  else running.top = found;
  if (by === 'top' && limit === Infinity)
    loop.limit = SPARE * Math.max(found, settingFor(wanted(unit, running, 1) / 0.85));
}

/** Watts that the loads of a converter want at the volts of the nameplate, with a little for itself. */
function wanted(unit: UnitUnderPower, { converter }: RunningCell, share: number): number {
  const { plan } = unit;
  const own = plan.outputs.filter((o) => o.kind === 'dc' && converter.outputs.includes(o.rail));
  const all = plan.outputs.filter((o) => o.kind !== 'pulse');
  const full = (own.length > 0 ? own : all).reduce((sum, o) => sum + o.volts * o.amps, 0);
  return full * (share + 0.02) + 0.1;
}

/** Where no data sheet tells its limit, a converter gives this many times what its full load wants. */
const SPARE = 3;

/** The greatest peak current that a controller allows, ampere. */
function topLimit(unit: UnitUnderPower, { senseOhms, converter }: RunningCell, ic: WorkIc | undefined): number {
  const facts = ic?.facts ?? {};
  const sensed = senseOhms > 0 && (senseOhms < Infinity || unit.plan.sensed.has(converter));
  const bySense = facts['csMax'] !== undefined && sensed ? Math.abs(facts['csMax']) / senseOhms : Infinity;
  return Math.min(bySense, facts['iLimit'] ?? Infinity);
}
