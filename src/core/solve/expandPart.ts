import type { Board, Model, Part } from '../circuit';
import { assertNever } from '../problem';
import { THERMAL_VOLTS } from './network';
import { partSigma } from './partSpread';
import type { PartDraw } from './partSpread';

/** Collects the conducting elements of a board while parts are expanded into them. */
export interface ElementSink {
  node(name: string): number;
  resistor(a: number, b: number, ohms: number, spread: number): void;
  diode(a: number, k: number, shape: JunctionShape, spread: number): void;
  bjt(pins: readonly number[], model: Model, saturation: number, gain: number): void;
  mosfet(pins: readonly number[], model: Model, threshold: number): void;
}

/** Parameters of a junction. */
export interface JunctionShape {
  readonly saturationAmps: number;
  readonly emission: number;
  readonly seriesOhms?: number;
  readonly breakdownVolts?: number;
  readonly breakdownAmps?: number;
}

/** Default models of the contract. */
const BRIDGE_DIODE: JunctionShape = { saturationAmps: 5e-9, emission: 1.75, seriesOhms: 0.05 };
const OPTO_LED: JunctionShape = { saturationAmps: 1e-12, emission: 2 };
const SILICON_JUNCTION: JunctionShape = { saturationAmps: 1e-12, emission: 1.3 };
const SATURATION_SPREAD = Math.log(1.6);

/** Where the expansion happens: the board, how parts are drawn, and the name of the part that holds this one. */
export interface ExpandContext {
  readonly board: Board;
  readonly draw: PartDraw;
  readonly sink: ElementSink;
  readonly owner: string;
  /** Replaced value of a drifted part, by designator; top level only. */
  readonly drifted: ReadonlyMap<string, number>;
}

/** Adds what a fitted part conducts at DC between the nodes of its pins, in pin order. Unpowered supplies are open. */
export function expandPart(context: ExpandContext, part: Part, pins: readonly number[]): void {
  const { sink, draw, owner } = context;
  const [p0 = -1, p1 = -1, p2 = -1] = pins;
  const sigma = partSigma(part, 'value');
  const scaled = (ohms: number): number => ohms * draw(owner, part, 'value');
  switch (part.kind) {
    case 'resistor': {
      const ohms = context.drifted.get(part.ref) ?? part.value;
      sink.resistor(p0, p1, scaled(ohms), sigma);
      return;
    }
    case 'inductor':
      sink.resistor(p0, p1, (part.numbers['dcr'] ?? 0) * draw(owner, part, 'dcr'), partSigma(part, 'dcr'));
      if (part.numbers['rp'] !== undefined) sink.resistor(p0, p1, part.numbers['rp'], 0.1);
      return;
    case 'capacitor':
    case 'current-source':
    case 'mov':
    case 'connector':
      return;
    case 'voltage-source':
      if (part.value === 0) sink.resistor(p0, p1, 0, 0);
      return;
    case 'diode':
      sink.diode(
        p0,
        p1,
        modelJunction(modelOf(context.board, part.model), draw(owner, part, 'saturation')),
        SATURATION_SPREAD,
      );
      return;
    case 'bjt':
      sink.bjt(pins, modelOf(context.board, part.model), draw(owner, part, 'saturation'), draw(owner, part, 'gain'));
      return;
    case 'mosfet': {
      const model = modelOf(context.board, part.model);
      sink.mosfet(pins, model, draw(owner, part, 'threshold'));
      const body = bodyDiode(model, draw(owner, part, 'saturation'));
      const [anode, cathode] = model.type === 'NMOS' ? [p2, p0] : [p0, p2];
      if (body) sink.diode(anode, cathode, body, SATURATION_SPREAD);
      return;
    }
    case 'fuse':
      sink.resistor(p0, p1, scaled(part.numbers['r'] ?? 0.05), sigma);
      return;
    case 'switch':
      if (part.keys.some((k) => k.key.toLowerCase() === 'state' && k.text.toLowerCase() === 'open')) return;
      sink.resistor(p0, p1, scaled(part.numbers['r'] ?? 0.02), sigma);
      return;
    case 'ntc':
      sink.resistor(p0, p1, scaled(part.numbers['r25'] ?? 10), sigma);
      return;
    case 'lamp':
      sink.resistor(p0, p1, scaled(part.numbers['r'] ?? 100), sigma);
      return;
    case 'relay':
      sink.resistor(p0, p1, scaled(part.numbers['rcoil'] ?? 100), sigma);
      return;
    case 'triac':
      sink.resistor(p2, p1, scaled(part.numbers['rg'] ?? 100), sigma);
      return;
    case 'bridge':
    case 'opto':
    case 'shunt-reference':
    case 'regulator': {
      const scale = draw(owner, part, 'saturation');
      for (const [a, k, shape] of junctionsOf(context.board, part.kind)) {
        sink.diode(pins[a]!, pins[k]!, { ...shape, saturationAmps: shape.saturationAmps * scale }, SATURATION_SPREAD);
      }
      return;
    }
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
): readonly (readonly [number, number, JunctionShape])[] {
  const dbr = board.models.get('dbr');
  const leg = dbr ? modelJunction(dbr, 1) : BRIDGE_DIODE;
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
  if (!inside) return;
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
    expandPart({ ...context, owner: `${prefix}${inner.ref}`, drifted: new Map() }, inner, inner.nets.map(nodeOf));
  }
}

function modelOf(board: Board, name: string): Model {
  return board.models.get(name.toLowerCase()) ?? { name, type: 'D', numbers: {}, written: '' };
}

function modelJunction(model: Model, scale: number): JunctionShape {
  const n = model.numbers;
  return {
    saturationAmps: (n['is'] ?? 1e-14) * scale,
    emission: n['n'] ?? 1,
    seriesOhms: n['rs'] ?? 0,
    ...(n['bv'] === undefined ? {} : { breakdownVolts: n['bv'], breakdownAmps: n['ibv'] ?? 1e-3 }),
  };
}

/** The body diode lies outside RON: it joins the terminals themselves. */
function bodyDiode(model: Model, scale: number): JunctionShape | null {
  const saturationAmps = model.numbers['bodyis'] ?? 1e-8;
  if (saturationAmps === 0) return null;
  return {
    saturationAmps: saturationAmps * scale,
    emission: model.numbers['bodyn'] ?? 1.7,
  };
}

/** Slope voltage of a junction: emission coefficient times the thermal voltage. */
export function slopeVolts(emission: number): number {
  return emission * THERMAL_VOLTS;
}
