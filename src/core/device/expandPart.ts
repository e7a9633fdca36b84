import type { Board } from '../circuit';
import {
  channelFigures,
  coldOhms,
  isOpenSwitch,
  junctionFigures,
  partFigure,
  plainJunction,
  transistorFigures,
} from '../part';
import type { JunctionFigures, Part } from '../part';
import { assertNever } from '../problem';
import { CHANNEL, channelParameters } from './channel';
import { partSigma } from './draw';
import type { DrawnProperty, PartDraw } from './draw';
import type { DeviceModel } from './evaluation';
import { JUNCTION, junctionParameters } from './junction';
import { CAPACITOR, CURRENT_SOURCE, LOSSY_CAPACITOR, RESISTOR, VOLTAGE_SOURCE } from './passives';
import { TRANSISTOR, transistorParameters } from './transistor';

/** Collects the devices of a board while its parts are expanded into them. */
export interface DeviceSink {
  node(name: string): number;
  /** name: the part, with the inner part's name after a slash inside a subcircuit. */
  add(
    name: string,
    model: DeviceModel,
    nodes: readonly number[],
    parameters: readonly number[],
    sigmas: readonly number[],
  ): void;
  /** A winding or choke; those that are coupled become one device when all parts are in. */
  winding(name: string, nodes: readonly [number, number], winding: Winding): void;
  dormant(nodes: readonly number[]): void;
}

/** Ohms and henries of a winding, and one sigma of the natural log of either. */
export interface Winding {
  readonly ohms: number;
  readonly henries: number;
  readonly ohmsSigma: number;
  readonly henriesSigma: number;
}

/**
 * Where the expansion happens: the board, how parts are drawn, the name of the part that holds this one, and what faults
 * changed of it (its value, its series resistance).
 */
export interface ExpandContext {
  readonly board: Board;
  readonly draw: PartDraw;
  readonly sink: DeviceSink;
  readonly owner: string;
  readonly drifted: { readonly value?: number; readonly seriesOhms?: number };
}

/** Default junctions of the contract. */
const BRIDGE_DIODE = plainJunction(5e-9, 1.75, 0.05);
const OPTO_LED = plainJunction(1e-12, 2);
const SILICON_JUNCTION = plainJunction(1e-12, 1.3);
const CORE_LOSS_SIGMA = 0.1;

/** Adds the devices of a fitted part between the nodes of its pins, in pin order. */
export function expandPart(context: ExpandContext, part: Part, pins: readonly number[]): void {
  const { sink, board, drifted } = context;
  const add = (
    model: DeviceModel,
    nodes: readonly number[],
    parameters: readonly number[],
    sigmas: readonly number[],
  ): void => sink.add(context.owner, model, nodes, parameters, sigmas);
  const [p0 = -1, p1 = -1, p2 = -1] = pins;
  const drawn = (property: DrawnProperty): number => context.draw(context.owner, part, property);
  const sigma = (property: DrawnProperty): number => partSigma(part, property);
  const resistor = (a: number, b: number, ohms: number): void =>
    add(RESISTOR, [a, b], [ohms * drawn('value')], [sigma('value')]);
  const junction = (a: number, k: number, figures: JunctionFigures, scale: number): void =>
    add(JUNCTION, [a, k], junctionParameters(figures, scale), [sigma('saturation')]);
  switch (part.kind) {
    case 'resistor':
      resistor(p0, p1, drifted.value ?? part.value);
      return;
    case 'inductor': {
      const loss = partFigure(part, 'coreLossOhms');
      sink.winding(context.owner, [p0, p1], {
        ohms: (partFigure(part, 'windingOhms') ?? 0) * drawn('winding'),
        henries: (drifted.value ?? part.value) * drawn('value'),
        ohmsSigma: sigma('winding'),
        henriesSigma: sigma('value'),
      });
      if (loss !== undefined) add(RESISTOR, [p0, p1], [loss], [CORE_LOSS_SIGMA]);
      return;
    }
    case 'capacitor': {
      const farads = (drifted.value ?? part.value) * drawn('value');
      const noted = partFigure(part, 'seriesOhms') ?? 0;
      const ohms = drifted.seriesOhms ?? (noted > 0 ? noted * drawn('series') : 0);
      if (ohms > 0) add(LOSSY_CAPACITOR, [p0, p1], [farads, ohms], [sigma('value'), sigma('series')]);
      else add(CAPACITOR, [p0, p1], [farads], [sigma('value')]);
      return;
    }
    case 'current-source':
      add(CURRENT_SOURCE, [p0, p1], [part.value], []);
      return;
    case 'voltage-source':
      add(VOLTAGE_SOURCE, [p0, p1], [part.value], []);
      return;
    case 'diode':
      junction(p0, p1, junctionFigures(board.models.get(part.model.toLowerCase())), drawn('saturation'));
      return;
    case 'bjt': {
      const figures = transistorFigures(board.models.get(part.model.toLowerCase()));
      add(TRANSISTOR, pins, transistorParameters(figures, drawn('saturation'), drawn('gain')), [
        sigma('saturation'),
        sigma('gain'),
      ]);
      return;
    }
    case 'mosfet': {
      const figures = channelFigures(board.models.get(part.model.toLowerCase()));
      add(CHANNEL, pins, channelParameters(figures, drawn('threshold')), [sigma('threshold')]);
      const scale = drawn('saturation');
      const [anode, cathode] = figures.polarity > 0 ? [p2, p0] : [p0, p2];
      if (figures.body) junction(anode, cathode, figures.body, scale);
      return;
    }
    case 'fuse':
    case 'ntc':
    case 'lamp':
      resistor(p0, p1, coldOhms(part, part.kind));
      return;
    case 'switch':
      if (isOpenSwitch(part)) sink.dormant(pins);
      else resistor(p0, p1, coldOhms(part, part.kind));
      return;
    case 'relay':
      resistor(p0, p1, coldOhms(part, part.kind));
      sink.dormant(pins);
      return;
    case 'triac':
      resistor(p2, p1, coldOhms(part, part.kind));
      sink.dormant(pins);
      return;
    case 'bridge':
    case 'opto':
    case 'shunt-reference':
    case 'regulator': {
      const scale = drawn('saturation');
      for (const [a, k, figures] of junctionsOf(board, part.kind)) junction(pins[a]!, pins[k]!, figures, scale);
      if (part.kind !== 'bridge') sink.dormant(pins);
      return;
    }
    case 'mov':
      sink.dormant(pins);
      return;
    case 'connector':
      return;
    case 'ic':
      expandInside(context, part, pins);
      return;
    default:
      assertNever(part);
  }
}

/** Junctions of a reserved part as pin indices anode, cathode. */
function junctionsOf(
  board: Board,
  kind: 'bridge' | 'opto' | 'shunt-reference' | 'regulator',
): readonly (readonly [number, number, JunctionFigures])[] {
  const dbr = board.models.get('dbr');
  const leg = dbr ? junctionFigures(dbr) : BRIDGE_DIODE;
  switch (kind) {
    case 'bridge':
      return [
        [0, 2, leg],
        [1, 2, leg],
        [3, 0, leg],
        [3, 1, leg],
      ];
    case 'opto':
      return [[0, 1, OPTO_LED]];
    case 'shunt-reference':
      return [
        [1, 2, SILICON_JUNCTION],
        [1, 0, SILICON_JUNCTION],
      ];
    case 'regulator':
      return [
        [1, 0, SILICON_JUNCTION],
        [1, 2, SILICON_JUNCTION],
        [2, 0, SILICON_JUNCTION],
      ];
  }
}

function expandInside(context: ExpandContext, part: Part & { kind: 'ic' }, pins: readonly number[]): void {
  const inside = context.board.subcircuits.get(part.subcircuit.toLowerCase());
  if (!inside) {
    context.sink.dormant(pins);
    return;
  }
  const names = new Map(inside.pins.map((pin, i) => [pin.toLowerCase(), pins[i]!]));
  const prefix = `${context.owner}/`;
  const nodeOf = (net: string): number => {
    const key = net.toLowerCase();
    if (key === '0') return context.sink.node('0');
    const known = names.get(key) ?? context.sink.node(`${prefix}${key}`);
    if (key !== 'nc') names.set(key, known);
    return known;
  };
  for (const inner of inside.parts) {
    if (!inner.fitted) continue;
    expandPart({ ...context, owner: `${prefix}${inner.ref}`, drifted: {} }, inner, inner.nets.map(nodeOf));
  }
}
