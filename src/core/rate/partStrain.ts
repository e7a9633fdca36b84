import { netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Device } from '../device';
import { isElectrolytic, isRatedAlternating, partFigure, sheetFact } from '../part';
import type { Part } from '../part';
import { formatQuantity } from '../quantity';
import { recogniseStages } from '../stages';
import { clampVolts } from '../stress';
import { peakOf } from '../work';
import type { Strains, Swing } from '../work';
import { behindLamp } from './gasLamp';
import { pulledDown } from './pulledDown';

/** What is rated of a part. */
export const STRAIN_QUANTITIES = [
  'voltage',
  'peak-inverse',
  'current',
  'ripple-current',
  'power',
  'gate-voltage',
] as const;
export type StrainQuantity = (typeof STRAIN_QUANTITIES)[number];

/** Units of the stresses. */
export const STRAIN_UNITS = {
  voltage: 'V',
  'peak-inverse': 'V',
  current: 'A',
  'ripple-current': 'A',
  power: 'W',
  'gate-voltage': 'V',
} as const satisfies Record<StrainQuantity, string>;

/**
 * One stress of a part in one condition, SI units, and how it comes about. alternates: its volts are a sine about nothing. peak:
 * what it rises to for moments, where that is more.
 */
export interface Strain {
  readonly peak?: number;
  readonly alternates?: boolean;
  readonly quantity: StrainQuantity;
  readonly value: number;
  readonly words: string;
}

/** Above this the volts across a resistor count, whatever is noted of it. */
const NOTABLE_VOLTS = 100;
/** Pins that ride high on purpose. */
const DRIVEN: ReadonlySet<string> = new Set(['BST', 'GATE']);

const volts = (v: number): string => formatQuantity(v, 'V');
const amperes = (a: number): string => formatQuantity(a, 'A');

/** Every stress of one part of a unit at work; at: its place among the parts of the board. */
export function strainsOf(board: Board, at: number, strains: Strains): readonly Strain[] {
  const part = board.parts[at]!;
  const { unit } = strains.operation;
  const pins = unit.circuit.pins[at]!;
  const own = unit.circuit.devices.filter(({ name }) => name === part.ref || name.split('+').includes(part.ref));
  const list: Strain[] = [];
  const add = (quantity: StrainQuantity, value: number, words: string): void => {
    list.push({ quantity, value, words });
  };
  const across = (i: number, j: number): Swing => strains.across(pins[i]!, pins[j]!);
  const peak = (swing: Swing): string => {
    const most = peakOf(swing);
    return most > PEAKY * swing.rms
      ? `${volts(most)} at its peak, ${volts(swing.rms)} rms`
      : `${volts(most)} across it`;
  };
  const flow = (d: Device | undefined): Swing | null => (d ? strains.through(d) : null);
  const series = strains.series.get(part.ref) ?? 0;
  switch (part.kind) {
    case 'resistor': {
      const [device] = own;
      if (!device) break;
      const lamp = behindLamp(board, part, strains);
      const heat = strains.resistorWatts(device);
      const swing = across(0, 1);
      const most = lamp?.volts ?? peakOf(swing);
      const pulled = pulledDown(board, part, strains);
      if (pulled && pulled.watts > heat.watts) add('power', pulled.watts, pulled.words);
      else add('power', lamp?.watts ?? heat.watts, lamp ? lamp.words : heat.words);
      if (partFigure(part, 'ratedVolts') !== undefined || most >= NOTABLE_VOLTS)
        list.push({
          quantity: 'voltage',
          value: most,
          words: lamp ? lamp.words : peak(swing),
          alternates: Math.abs(swing.mean) < swing.rms / 4,
        });
      break;
    }
    case 'capacitor': {
      const barrier = acrossBarrier(board, part, strains);
      if (barrier !== null) {
        const told = isRatedAlternating(part) ? barrier : Math.SQRT2 * barrier;
        add('voltage', told, `${volts(told)} of the mains may stand across the barrier`);
        break;
      }
      const swing = across(0, 1);
      if (isRatedAlternating(part)) add('voltage', swing.rms, `${volts(swing.rms)} rms across it`);
      else add('voltage', peakOf(swing), peak(swing));
      const ripple = own[0] ? strains.rippleAmps(own[0]) : 0;
      if (ripple > 0 && (isElectrolytic(part) || partFigure(part, 'ratedAmps') !== undefined))
        add('ripple-current', ripple, `${amperes(ripple)} rms flow in and out of it beside what passes on`);
      break;
    }
    case 'inductor': {
      const device = own.find((d) => d.model.kind === 'windings');
      if (!device) break;
      const winding = Math.max(device.name.split('+').indexOf(part.ref), 0);
      const current = strains.through(device, winding);
      const [most, rms] = [Math.max(peakOf(current), Math.SQRT2 * series), Math.max(current.rms, series)];
      // A choke in the way of the mains is printed for its heat, any other for the current at which it saturates.
      const warm = unit.line?.windingDevices.includes(device) === true;
      add('current', warm ? rms : most, `peaks of ${amperes(most)}, ${amperes(rms)} rms`);
      break;
    }
    case 'diode': {
      const clamp = clampVolts(board, part);
      const back = Math.max(-across(0, 1).low, 0);
      const current = flow(own[0]);
      if (clamp === null || partFigure(part, 'ratedAmps') !== undefined)
        add('peak-inverse', back, `${volts(back)} backwards at most`);
      // One that holds volts at work is made to: its heat counts.
      else if (current === null || -current.mean < HOLDS_AMPS)
        add('voltage', back, `${volts(back)} across it, which clamps at ${volts(clamp)}`);
      if (current)
        add(
          'current',
          Math.max(current.mean, 0),
          `${amperes(Math.max(current.mean, 0))} mean, peaks of ${amperes(Math.max(current.high, 0))}`,
        );
      if (partFigure(part, 'ratedWatts') !== undefined) {
        const watts = strains.watts(part.ref);
        add('power', watts, `${formatQuantity(watts, 'W')} mean`);
      }
      break;
    }
    case 'bridge': {
      const back = Math.max(0, ...own.map((d) => -strains.across(d.nodes[0]!, d.nodes[1]!).low));
      add('peak-inverse', back, `${volts(back)} backwards in each leg`);
      const mean = own.reduce((sum, d) => sum + (d.nodes[1] === pins[2] ? strains.through(d).mean : 0), 0);
      add('current', Math.max(mean, 0), `${amperes(Math.max(mean, 0))} mean`);
      break;
    }
    case 'mosfet':
    case 'bjt': {
      const swing = across(0, 2);
      list.push({ quantity: 'voltage', ...offVolts(strains, part.ref, peakOf(swing)) });
      const current = flow(own.find((d) => d.model.kind !== 'junction'));
      if (current) add('current', peakOf(current), `peaks of ${amperes(peakOf(current))}, ${amperes(current.rms)} rms`);
      if (part.kind === 'bjt') {
        const watts = strains.watts(part.ref);
        add('power', watts, `${formatQuantity(watts, 'W')} mean`);
        break;
      }
      const gate = strains.gateVolts(pins[1]!, pins[2]!);
      if (gate !== null)
        add('gate-voltage', gate, `driven to ${volts(gate)}; nearly every one bears 20 V, some 8 or 12 V`);
      break;
    }
    case 'regulator': {
      const watts = strains.watts(part.ref);
      add('power', watts, `${volts(peakOf(across(0, 2)))} from input to output`);
      add('voltage', peakOf(across(0, 1)), `${volts(peakOf(across(0, 1)))} at its input`);
      break;
    }
    case 'fuse':
    case 'switch':
    case 'ntc': {
      const rms = Math.max(flow(own[0])?.rms ?? 0, series);
      add('current', rms, `${amperes(rms)} rms`);
      break;
    }
    case 'opto':
      add('voltage', peakOf(across(2, 3)), `${volts(peakOf(across(2, 3)))} across its output`);
      break;
    case 'mov': {
      const { rms } = across(0, 1);
      add('voltage', rms, `${volts(rms)} rms across it`);
      break;
    }
    case 'triac':
      add('voltage', peakOf(across(0, 1)), `${volts(peakOf(across(0, 1)))} across it while it is off`);
      add('current', series, `${amperes(series)} rms`);
      break;
    case 'ic': {
      const inside = unit.circuit.devices.find((d) => d.name.startsWith(`${part.ref}/`) && d.model.kind === 'channel');
      const told = partFigure(part, 'ratedVolts') ?? sheetFact(board.facts, part.ref, 'switchVr');
      if (!inside && told === undefined) break;
      const roles = (recogniseStages(board).pins[part.ref] ?? []).map((p) => p.role);
      const plain = pins.filter((n, i) => !strains.rides(n) && !DRIVEN.has(roles[i] ?? ''));
      const pairs = plain.flatMap((a, i) => plain.slice(i + 1).map((b) => peakOf(strains.across(a, b))));
      const most = Math.max(0, ...pairs.filter(Number.isFinite));
      list.push({ quantity: 'voltage', ...offVolts(strains, part.ref, most) });
      const current = flow(inside);
      if (current) add('current', peakOf(current), `peaks of ${amperes(peakOf(current))} in its switch`);
      break;
    }
    case 'relay': {
      const rms = Math.max(strains.contact(part.ref, pins[2]!, pins[3]!)?.rms ?? 0, series);
      add('current', rms, `${amperes(rms)} rms through its contact`);
      break;
    }
    default:
      break;
  }
  return list.filter((s) => Number.isFinite(s.value));
}

/** Volts rms that may stand across a part between the mains side and what is isolated from it; null elsewhere. */
function acrossBarrier(board: Board, part: Part, { operation: { unit } }: Strains): number | null {
  if (!unit.plan.mains) return null;
  const { islands } = recogniseStages(board);
  const sides = part.nets.map((n) => islands.find((i) => i.nets.some((x) => netKey(x) === netKey(n))));
  const [a, b] = sides;
  if (!a || !b || a === b || !sides.some((i) => i!.hazard === 'mains')) return null;
  return unit.condition.source;
}

/** Volts of a switch that is off: what it stands at, and the spike of leakage where nothing else ends that. */
function offVolts(strains: Strains, ref: string, plateau: number): Omit<Strain, 'quantity'> {
  const words = `${volts(plateau)} across it while it is off`;
  const spike = Number.isFinite(plateau) ? strains.spike(ref, plateau) : null;
  if (!spike || spike.volts <= plateau) return { value: plateau, words };
  if (spike.givesWay)
    return {
      value: plateau,
      peak: spike.volts,
      words: `${words}, and leakage drives it to where it gives way: ${formatQuantity(spike.watts, 'W')} in it`,
    };
  return { value: plateau, peak: spike.volts, words: `${words}, about ${volts(spike.volts)} for a moment by leakage` };
}

/** A zener that carries this at work holds what it is there to hold, ampere. */
const HOLDS_AMPS = 2e-4;
/** Peaks that stand this far above the root of the mean square are named as such. */
const PEAKY = 1.1;
