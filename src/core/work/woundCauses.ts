import type { Device } from '../device';
import { formatQuantity } from '../quantity';
import { OFF, amps, own, percent, volts } from './scene';
import type { Cause, Scene } from './scene';
import { windingNames } from './unit';
import type { RunningCell } from './unitCircuit';

/** What is further than this from what turns tell has its reason named. */
const SPIKE = 0.03;
/** A node that swings by less than this share of its mean is a rail. */
const RAIL_SWING = 0.4;
/** Less than this in the mean does not charge a rail, ampere. */
const CHARGES = 1e-6;

interface Winding {
  readonly device: Device;
  readonly name: string;
  readonly other: number;
  readonly henries: number;
}

/** The switches of a converter, transistors or what has them inside. */
const switchesOf = ({ converter }: RunningCell): readonly string[] => [
  ...converter.switches.flatMap((s) => s.refs),
  ...converter.ics,
];

/** A node that swings with the switching. */
export function swings(scene: Scene, node: number, ground: number): Cause | null {
  const { unit, state } = scene.operation;
  for (const i of state.running) {
    const running = unit.cells[i];
    const at = unit.isSteady(node) ? undefined : running?.cell.unknownOf.get(node);
    const result = running?.result;
    if (!running || !result || at === undefined) continue;
    const refs = switchesOf(running);
    return {
      words: `${scene.net[node]} swings from ${volts(result.lowVolts[at]!)} to ${volts(result.highVolts[at]!)} at ${formatQuantity(running.hertz, 'Hz')}, ${refs.join(', ')} on ${percent(result.duty)} of the time: ${volts(scene.between(node, ground))} in the mean`,
      refs,
      ...own(
        OFF.swing * Math.abs(scene.between(node, ground)) +
          Math.min(
            0.01 * (result.highVolts[at]! - result.lowVolts[at]!),
            0.1 * Math.abs(scene.between(node, ground)) + 0.5,
          ),
      ),
    };
  }
  return null;
}

/** A rail that a diode of a cell charges from a winding: by the turns from the rail that is held, or from the input. */
export function wound(scene: Scene, node: number): Cause | null {
  const { unit, state } = scene.operation;
  for (const i of state.running) {
    const running = unit.cells[i];
    if (!running?.result) continue;
    const { cell, result } = running;
    const at = cell.ends.findIndex(
      ([, k], d) => k === node && d < cell.diodeDevices.length && result.mean[d]! > CHARGES,
    );
    const swinging = unit.isSteady(node) ? undefined : cell.unknownOf.get(node);
    // A rail behind a resistor may swing a little and is a rail all the same.
    const calm =
      swinging === undefined ||
      result.highVolts[swinging]! - result.lowVolts[swinging]! < RAIL_SWING * Math.abs(result.meanVolts[swinging]!);
    if (!calm) continue;
    if (at < 0) continue;
    return charged(scene, running, at, node);
  }
  return null;
}

function charged(scene: Scene, running: RunningCell, at: number, node: number): Cause {
  const { cell, converter } = running;
  const result = running.result!;
  const [from] = cell.ends[at]!;
  const winding = windingAt(scene, running, from);
  const drop = dropOf(running, at);
  const switches = switchesOf(running);
  const refs = [...scene.refsOf(cell.diodeDevices[at]!.name), ...(winding ? [winding.name] : []), ...switches];
  const diode = `${cell.diodeDevices[at]!.name} charges ${scene.net[node]} with ${amps(result.mean[at]!)} in the mean`;
  const works = `${switches.join(', ')} on ${percent(result.duty)} of ${formatQuantity(running.hertz, 'Hz')}, up to ${amps(result.top)}`;
  const lead = converter.topology === 'flyback' && winding ? leading(scene, running, winding, at) : null;
  if (!lead || !winding)
    return { words: `${diode}, itself ${volts(drop)}; ${works}`, refs, ...own(OFF.wound * scene.between(node, from)) };
  const ratio = Math.sqrt(winding.henries / lead.winding.henries);
  const high = lead.across + dropOf(running, lead.at);
  const made = high * ratio - drop;
  const now = acrossOf(scene, running, winding, at);
  const more = now - made;
  const spike =
    Math.abs(more) > SPIKE * Math.abs(made)
      ? `; ${more > 0 ? 'the spike of the leakage and a light load lift it by' : 'its own current and resistance take'} ${volts(Math.abs(more))}: ${volts(now)}`
      : '';
  return {
    words: `${diode}: ${volts(high)} across ${lead.winding.name} x ${Number(ratio.toPrecision(3))} turns of ${winding.name}, less ${volts(drop)} in it, = ${volts(made)}${spike}; ${works}`,
    refs: [...refs, lead.winding.name],
    ...own(Math.hypot(OFF.wound * now, more / 2)),
  };
}

/** Volts of a diode of a cell at the middle of what it carries. */
function dropOf({ cell, result }: RunningCell, at: number): number {
  const { volts: knee, ohms: series } = cell.circuit.diodes[at]!;
  const mean = result!.mean[at]!;
  return knee + series * (mean > CHARGES ? result!.square[at]! / mean : 0);
}

/** The winding of a cell that a node belongs to. */
function windingAt(scene: Scene, { cell }: RunningCell, node: number): Winding | null {
  for (const d of cell.windingDevices) {
    const names = windingNames(d);
    const at = d.nodes.indexOf(node);
    if (at < 0) continue;
    const k = Math.floor(at / 2);
    const { parameters } = scene.operation.unit.circuit;
    const count = d.model.states;
    return {
      device: d,
      name: names[k]!,
      other: d.nodes[at ^ 1]!,
      henries: parameters[d.at + count + k * count + k]!,
    };
  }
  return null;
}

/** Volts that a winding's rail stands above the winding's other end. */
function acrossOf(scene: Scene, { cell }: RunningCell, { other }: Winding, at: number): number {
  const [from, to] = cell.ends[at]!;
  return from === other ? 0 : scene.between(to, other);
}

/** The winding on the same core that gives most: its volts are the others' by their turns. */
function leading(
  scene: Scene,
  running: RunningCell,
  own: Winding,
  at: number,
): { readonly winding: Winding; readonly at: number; readonly across: number } | null {
  const { cell } = running;
  let best: {
    readonly winding: Winding;
    readonly at: number;
    readonly across: number;
    readonly watts: number;
  } | null = null;
  for (let d = 0; d < cell.diodeDevices.length; d++) {
    const winding = windingAt(scene, running, cell.ends[d]![0]);
    if (d === at || !winding || winding.device !== own.device || winding.name === own.name) continue;
    const across = acrossOf(scene, running, winding, d);
    const watts = running.result!.mean[d]! * across;
    if (across > 0 && watts > (best?.watts ?? 0)) best = { winding, at: d, across, watts };
  }
  const gives = running.result!.mean[at]! * acrossOf(scene, running, own, at);
  return best && best.watts > gives ? best : null;
}
