import { netKey } from '../circuit';
import { recogniseStages } from '../stages';
import type { IslandHazard } from '../stages';
import type { DerivationStep } from './scene';

import type { PoweredMode, PoweredReader, PoweredReading } from './readPowered';

/** A test point of a unit under power, with what should show there and how that comes about. */
export interface AlivePoint {
  /** What it is: the source, a rail, a supply pin, an output. */
  readonly what: string;
  readonly mode: PoweredMode;
  readonly red: string;
  readonly black: string;
  readonly reading: PoweredReading;
  readonly steps: readonly DerivationStep[];
  /** Of the worse of the two leads; null where no island is known. */
  readonly hazard: IslandHazard | null;
}

/** What should show between two nets; undefined where one is not on the board. */
export function alivePoint(
  reader: PoweredReader,
  what: string,
  mode: PoweredMode,
  red: string,
  black: string,
): AlivePoint | undefined {
  const reading = reader.read(mode, red, black);
  if (!reading) return undefined;
  const steps = mode === 'dcv' && reading.value !== null ? reader.steps(red, black, reading.value) : [];
  const found = recogniseStages(reader.board).islands.filter((i) =>
    i.nets.some((n) => [red, black].some((lead) => netKey(n) === netKey(lead))),
  );
  const hazard = WORST_FIRST.find((h) => found.some((i) => i.hazard === h)) ?? null;
  return { what, mode, red, black, reading, steps, hazard };
}

const WORST_FIRST: readonly IslandHazard[] = ['mains', 'hv', 'battery', 'elv'];

/** The points in the order in which a unit comes alive: source, rectified rails, supply pins, references, outputs. */
export function alivePoints(reader: PoweredReader): readonly AlivePoint[] {
  const { unit } = reader.operation;
  const { plan } = unit;
  const points: AlivePoint[] = [];
  const seen = new Set<string>();
  const name = (node: number): string => unit.circuit.nodeNames[node] ?? '';
  const add = (what: string, mode: PoweredMode, red: number, black: number): void => {
    if (red < 0 || black < 0 || red === black || [name(red), name(black)].includes('NC')) return;
    const key = `${mode} ${red} ${black}`;
    if (seen.has(key)) return;
    seen.add(key);
    const point = alivePoint(reader, what, mode, name(red), name(black));
    if (point && point.reading.value !== null) points.push(point);
  };
  const { rail, return: back } = plan.inputs;
  if (rail !== null && back !== null) add('source', plan.mains ? 'acv' : 'dcv', unit.node(rail), unit.node(back));
  for (const { main, low } of unit.line?.rails ?? []) add('rectified', 'dcv', main, low);
  for (const { rail: plus, return: minus } of plan.supplies)
    add('from outside', 'dcv', unit.node(plus), unit.node(minus));
  const ics = [...plan.ics.values()];
  for (const ic of ics)
    for (const role of ['VIN', 'VCC']) add(`supply of ${ic.ref}`, 'dcv', unit.pin(ic, role), unit.ground(ic));
  for (const ic of ics)
    if (ic.facts['vRef'] !== undefined) add(`reference of ${ic.ref}`, 'dcv', unit.pin(ic, 'VOUT'), unit.ground(ic));
  for (const o of plan.outputs) {
    const [a, b] = [unit.node(o.rail), unit.node(o.return)];
    add('output', o.kind === 'ac' ? 'acv' : 'dcv', a, b);
    if (o.kind === 'dc') add('output, ripple', 'ripple', a, b);
  }
  for (const ic of ics) add(`feedback of ${ic.ref}`, 'dcv', unit.pin(ic, 'FB'), unit.ground(ic));
  return points;
}
