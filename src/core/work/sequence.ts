import { sheetFact } from '../part';
import { formatQuantity } from '../quantity';
import type { PowerConverter } from '../stages';
import { alivePoint } from './alivePoints';
import type { AlivePoint } from './alivePoints';
import type { PoweredReader } from './readPowered';
import { startTimes } from './startTime';
import { hasSource, hasSupply, isEnabled } from './switchOn';
import { supplyThresholds } from './workPlan';
import type { WorkIc } from './workPlan';

/** A step of a unit's start: what comes alive when, on what condition, and what should read there then. */
export interface SequenceStep {
  /** What it belongs to: the source, a controller, a contact, a converter by its topology. */
  readonly lane: string;
  readonly kind: 'source' | 'rail' | 'controller' | 'contact' | 'converter' | 'output';
  /** Seconds after switch-on that it is there; and that it takes up to then, where something charges. */
  readonly at: number;
  readonly takes: number;
  readonly condition: string;
  readonly point: AlivePoint | null;
}

/** Something that does not come alive as the unit is known now, and why. */
export interface Stall {
  readonly lane: string;
  readonly why: string;
  readonly point: AlivePoint | null;
}

/** The start of a unit as steps in time, and where it stalls. */
export interface StartSequence {
  readonly steps: readonly SequenceStep[];
  readonly stalls: readonly Stall[];
}

const volts = (v: number): string => formatQuantity(v, 'V');

/** The start of a unit from its source to its outputs, as it is computed or as it was read. */
export function startSequence(reader: PoweredReader): StartSequence {
  const { operation } = reader;
  const { unit, rounds } = operation;
  const { plan } = unit;
  const name = (node: number): string => unit.circuit.nodeNames[node] ?? '';
  const point = (what: string, mode: 'dcv' | 'acv', a: number, b: number): AlivePoint | null =>
    a < 0 || b < 0 ? null : (alivePoint(reader, what, mode, name(a), name(b)) ?? null);
  const steps: SequenceStep[] = [];
  const { rail, return: back } = plan.inputs;
  if (rail !== null && back !== null)
    steps.push({
      lane: 'source',
      kind: 'source',
      at: 0,
      takes: 0,
      condition: `${volts(unit.condition.source)} switched on`,
      point: point('source', plan.mains ? 'acv' : 'dcv', unit.node(rail), unit.node(back)),
    });
  for (const { main, low } of unit.line?.rails ?? [])
    steps.push({
      lane: name(main),
      kind: 'rail',
      at: RECTIFIED,
      takes: RECTIFIED,
      condition: 'charges within a few periods of the mains',
      point: point('rectified', 'dcv', main, low),
    });
  const starts = startTimes(operation);
  let now = 0;
  const alive = new Set<string>();
  for (const round of rounds) {
    const came: number[] = [];
    for (const ref of round.powered) {
      const ic = plan.ics.get(ref)!;
      if (!operation.state.powered.has(ref)) continue;
      alive.add(ref);
      const slow = starts[ref];
      const at = slow !== undefined && slow < Infinity ? Math.max(now, slow) : now;
      came.push(at);
      const vcc = supplyPin(reader, ic);
      const start = supplyThresholds(ic)?.start;
      const condition =
        start === undefined
          ? 'has the rail that feeds it'
          : slow === undefined || slow === Infinity
            ? `its supply is above the ${volts(start)} at which it starts`
            : `its supply pin charges to ${volts(start)}`;
      steps.push({
        lane: ref,
        kind: 'controller',
        at,
        takes: at - now,
        condition,
        point: point(`supply of ${ref}`, 'dcv', vcc, unit.ground(ic)),
      });
    }
    now = Math.max(now, ...came);
    for (const ref of round.closed) {
      const pins = unit.pinsOf(ref);
      steps.push({
        lane: ref,
        kind: 'contact',
        at: now,
        takes: 0,
        condition: `its coil has its volts`,
        point: point(`coil of ${ref}`, 'dcv', pins[0]!, pins[1]!),
      });
    }
    for (const i of round.running) {
      const c = plan.converters[i]!;
      if (!operation.state.running.has(i) && operation.hiccup === null) continue;
      const soft = (c.controller !== null && plan.ics.get(c.controller)?.facts['softStart']) || 0;
      steps.push({ lane: laneOf(c), kind: 'converter', at: now, takes: 0, condition: beginsWhen(c), point: null });
      for (const o of plan.outputs.filter(
        (x) => c.outputs.includes(x.rail) || (x.kind === 'ac' && c.outputs.length === 0),
      ))
        steps.push({
          lane: o.rail.toUpperCase(),
          kind: 'output',
          at: now + soft,
          takes: soft,
          condition: soft > 0 ? `after its soft start of ${formatQuantity(soft, 's')}` : `${laneOf(c)} works`,
          point: point('output', o.kind === 'ac' ? 'acv' : 'dcv', unit.node(o.rail), unit.node(o.return)),
        });
      now += soft;
    }
  }
  return { steps, stalls: stallsOf(reader, point) };
}

/** A rail behind a rectifier is up after so many seconds. */
const RECTIFIED = 0.03;

const supplyPin = ({ operation: { unit } }: PoweredReader, ic: WorkIc): number =>
  [unit.pin(ic, 'VCC'), unit.pin(ic, 'VIN'), unit.pin(ic, 'DRAIN')].find((n) => n >= 0) ?? -1;

const laneOf = (c: PowerConverter): string =>
  `${c.topology.replaceAll('-', ' ')}${c.switches[0] ? ` ${c.switches[0].refs[0]}` : c.ics[0] ? ` ${c.ics[0]}` : ''}`;

function beginsWhen(c: PowerConverter): string {
  const by = [...new Set([...(c.controller === null ? [] : [c.controller]), ...c.drivers])];
  return by.length === 0 ? 'swings by itself' : `${by.join(' and ')} ${by.length > 1 ? 'drive' : 'drives'} it`;
}

/** Controllers, contacts and converters that are not alive, with what is missing. */
function stallsOf(
  reader: PoweredReader,
  point: (what: string, mode: 'dcv', a: number, b: number) => AlivePoint | null,
): readonly Stall[] {
  const { operation } = reader;
  const { unit, state } = operation;
  const { plan } = unit;
  const stalls: Stall[] = [];
  const at = (n: number, g: number): number => operation.volts[n]! - operation.volts[g]!;
  if (operation.hiccup) {
    const { ref, period, onShare } = operation.hiccup;
    const times = `${formatQuantity(onShare * period, 's', 2)} of every ${formatQuantity(period, 's', 2)}`;
    stalls.push({ lane: ref, why: `starts, works for ${times}, and loses its supply again`, point: null });
  }
  for (const ic of plan.ics.values()) {
    if (operation.hiccup?.ref === ic.ref) continue;
    const [vcc, ground] = [supplyPin(reader, ic), unit.ground(ic)];
    if (vcc < 0 || ground < 0) continue;
    const seen = point(`supply of ${ic.ref}`, 'dcv', vcc, ground);
    if (
      !state.powered.has(ic.ref) ||
      !hasSupply(unit, { ...ic, facts: { ...ic.facts, vccStart: supplyThresholds(ic)?.stop ?? 0 } }, operation.volts)
    ) {
      const start = supplyThresholds(ic)?.start;
      const needs = start === undefined ? 'it needs a rail' : `it starts at ${volts(start)}`;
      stalls.push({ lane: ic.ref, why: `its supply pin stands at ${volts(at(vcc, ground))}, ${needs}`, point: seen });
    } else if (!isEnabled(unit, ic, operation.volts)) {
      const pin = (ic.roles['EN'] ?? []).map((k) => unit.circuit.pins[ic.index]![k]!)[0];
      const why = pin === undefined ? 'a pin holds it off' : `a pin holds it off: ${volts(at(pin, ground))} there`;
      stalls.push({
        lane: ic.ref,
        why,
        point: pin === undefined ? null : point(`enable of ${ic.ref}`, 'dcv', pin, ground),
      });
    }
  }
  plan.converters.forEach((c, i) => {
    if (state.running.has(i) || operation.hiccup?.ref === c.controller) return;
    if (!hasSource(unit, c, operation.volts))
      stalls.push({ lane: laneOf(c), why: `nothing feeds it at ${c.supply.toUpperCase()}`, point: null });
    else if (stalls.some((s) => s.lane === c.controller || c.drivers.includes(s.lane)))
      stalls.push({ lane: laneOf(c), why: `waits for ${c.controller ?? c.drivers[0]}`, point: null });
    else stalls.push({ lane: laneOf(c), why: 'does not run as the unit is known now', point: null });
  });
  plan.board.parts.forEach((p) => {
    if (p.kind !== 'relay' || !p.fitted || state.closed.has(p.ref)) return;
    const pins = unit.pinsOf(p.ref);
    const needs = sheetFact(plan.board.facts, p.ref, 'coilOn');
    const more = needs === undefined ? '' : `, it pulls in at ${volts(needs)}`;
    const coil = Math.abs(at(pins[0]!, pins[1]!));
    stalls.push({
      lane: p.ref,
      why: `stays open: ${volts(coil)} at its coil${more}`,
      point: point(`coil of ${p.ref}`, 'dcv', pins[0]!, pins[1]!),
    });
  });
  return stalls;
}
