import { netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Device } from '../device';
import { isElectrolytic, isRatedAlternating, partFigure, sheetFact } from '../part';
import type { Part } from '../part';
import { recogniseStages } from '../stages';
import { partWatts, peakOf } from '../work';
import type { Strains, Swing } from '../work';

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

/** One stress of a part in one condition, SI units, and how it comes about. */
export interface Strain {
  readonly quantity: StrainQuantity;
  readonly value: number;
  readonly words: string;
}

/** Every stress of a part of a unit at work. */
export function strainsOf(board: Board, at: number, strains: Strains): readonly Strain[] {
  const part = board.parts[at]!;
  const { unit } = strains.operation;
  const pins = unit.circuit.pins[at]!;
  const own = unit.circuit.devices.filter(({ name }) => name === part.ref || name.split('+').includes(part.ref));
  const roles = (recogniseStages(board).pins[part.ref] ?? []).map((p) => p.role);
  const list: Strain[] = [];
  const add = (quantity: StrainQuantity, value: number, words: string): void => {
    if (Number.isFinite(value)) list.push({ quantity, value, words });
  };
  const across = (i: number, j: number): Swing => strains.across(pins[i]!, pins[j]!);
  const amps = (d: Device | undefined): Swing | null => (d ? strains.through(d) : null);
  switch (part.kind) {
    case 'resistor': {
      const [device] = own;
      if (!device) break;
      const lamp = behindLamp(board, part, strains);
      add('power', lamp?.watts ?? strains.resistorWatts(device).watts, 'mean');
      const volts = lamp?.volts ?? peakOf(across(0, 1));
      if (partFigure(part, 'ratedVolts') !== undefined || volts >= NOTABLE_VOLTS) add('voltage', volts, 'peak');
      break;
    }
    case 'capacitor': {
      const volts = across(0, 1);
      if (isRatedAlternating(part)) add('voltage', volts.rms, 'rms');
      else add('voltage', peakOf(volts), 'peak');
      const ripple = own[0] ? strains.rippleAmps(own[0]) : 0;
      if (ripple > 0 && (isElectrolytic(part) || partFigure(part, 'ratedAmps') !== undefined))
        add('ripple-current', ripple, 'rms without its mean');
      break;
    }
    case 'inductor': {
      const device = own.find((d) => d.model.kind === 'windings');
      const winding = device ? Math.max(device.name.split('+').indexOf(part.ref), 0) : 0;
      const load = strains.series.get(part.ref) ?? 0;
      if (device) add('current', Math.max(peakOf(strains.through(device, winding)), Math.SQRT2 * load), 'peak');
      break;
    }
    case 'diode': {
      const volts = across(0, 1);
      add('peak-inverse', Math.max(-volts.low, 0), 'peak');
      const flow = amps(own[0]);
      if (flow) add('current', Math.max(flow.mean, 0), 'mean');
      if (partFigure(part, 'ratedWatts') !== undefined) add('power', partWatts(strains.operation, part.ref), 'mean');
      break;
    }
    case 'bridge': {
      add('peak-inverse', Math.max(...own.map((d) => -strains.across(d.nodes[0]!, d.nodes[1]!).low)), 'peak');
      const plus = pins[2];
      add('current', own.reduce((sum, d) => sum + (d.nodes[1] === plus ? strains.through(d).mean : 0), 0), 'mean');
      break;
    }
    case 'mosfet':
    case 'bjt': {
      add('voltage', peakOf(across(0, 2)), 'peak');
      const flow = amps(own.find((d) => d.model.kind !== 'junction'));
      if (flow) add('current', peakOf(flow), 'peak');
      if (part.kind === 'bjt') add('power', partWatts(strains.operation, part.ref), 'mean');
      break;
    }
    case 'regulator':
      add('power', partWatts(strains.operation, part.ref), 'mean');
      add('voltage', peakOf(across(0, 1)), 'at its input');
      break;
    case 'fuse':
    case 'switch':
    case 'ntc': {
      const flow = amps(own[0]);
      if (flow) add('current', Math.max(flow.rms, strains.series.get(part.ref) ?? 0), 'rms');
      break;
    }
    case 'opto':
      add('voltage', peakOf(across(2, 3)), 'peak');
      break;
    case 'mov':
      add('voltage', across(0, 1).rms, 'rms');
      break;
    case 'triac':
      add('voltage', peakOf(across(0, 1)), 'peak');
      add('current', strains.series.get(part.ref) ?? 0, 'rms');
      break;
    case 'ic': {
      const plain = pins.filter((n, i) => !strains.rides(n) && !DRIVEN.has(roles[i] ?? ''));
      const volts = Math.max(0, ...plain.flatMap((a, i) => plain.slice(i + 1).map((b) => peakOf(strains.across(a, b)))));
      if (plain.length > 1) add('voltage', volts, 'between two of its pins');
      const inside = unit.circuit.devices.find(
        (d) => d.name.startsWith(`${part.ref}/`) && d.model.kind === 'channel',
      );
      const flow = amps(inside);
      if (flow) add('current', peakOf(flow), 'peak');
      break;
    }
    case 'relay': {
      const flow = strains.contact(part.ref, pins[2]!, pins[3]!);
      if (flow) add('current', flow.rms, 'rms, through its contact');
      break;
    }
    default:
      break;
  }
  return list;
}

/** A resistor in series with a gas lamp alone bears what the lamp leaves while it is lit. */
function behindLamp(
  board: Board,
  part: Part,
  strains: Strains,
): { readonly volts: number; readonly watts: number } | null {
  if (part.kind !== 'resistor') return null;
  const { unit } = strains.operation;
  for (const [near, hung] of [part.nets, [...part.nets].reverse()]) {
    const others = board.parts.filter((p) => p !== part && p.fitted && p.nets.some((n) => netKey(n) === netKey(hung!)));
    const [lamp] = others;
    if (others.length !== 1 || lamp?.kind !== 'lamp') continue;
    const strike = partFigure(lamp, 'strikeVolts');
    const lit = sheetFact(board.facts, lamp.ref, 'vLit') ?? (strike === undefined ? undefined : LIT_SHARE * strike);
    if (lit === undefined) continue;
    const far = lamp.nets.find((n) => netKey(n) !== netKey(hung!)) ?? hung!;
    const swing = strains.across(unit.node(near!), unit.node(far));
    const peak = peakOf(swing);
    if (peak < (strike ?? lit)) return { volts: peak, watts: 0 };
    // A sine about nothing, or what stands.
    const alternates = Math.abs(swing.mean) < swing.rms / 4;
    const left = (angle: number): number => Math.max(peak * (alternates ? Math.sin(angle) : 1) - lit, 0);
    const steps = 60;
    let square = 0;
    for (let i = 0; i < steps; i++) square += left(((i + 0.5) / steps) * Math.PI) ** 2 / steps;
    return { volts: peak - lit, watts: square / part.value };
  }
  return null;
}

/** Volts of a lit gas lamp as a share of those at which it strikes, where nobody told. */
const LIT_SHARE = 0.7;

const NOTABLE_VOLTS = 100;
/** Pins that ride high on purpose. */
const DRIVEN: ReadonlySet<string> = new Set(['BST', 'GATE']);
