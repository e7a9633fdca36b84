import { netKey } from '../circuit';
import { valueTolerance } from '../part';
import { formatQuantity } from '../quantity';

import { shareAt } from './firstGuess';
import { cellsDrivenBy } from './icWork';
import { controllerOf } from './makeCell';
import { OFF, amps, ohms, own, percent, volts } from './scene';
import type { Cause, Scene } from './scene';
import { supplyThresholds } from './workPlan';
import type { WorkIc } from './workPlan';

/** A regulated rail further than this from what its divider says is held by something else. */
const HELD = 0.03;
/** Less of a rail than this is not what a feedback pin is made to see. */
const LEAST_SEEN = 0.003;

/** A supply pin that saws between two thresholds, and an output that runs and falls with it. */
export function cycling(scene: Scene, node: number, ground: number): Cause | null {
  const { period, unit, states } = scene.operation;
  const name = (scene.at.get(node) ?? []).find((d) => d.name === 'supply pin' || d.name === 'fallen')?.name;
  if (period === null || name === undefined) return null;
  const v = scene.between(node, ground);
  const ic = [...unit.plan.ics.values()].find((x) => states[x.ref] === 'hiccup');
  const every = `every ${formatQuantity(period, 's')}`;
  const thresholds = ic && supplyThresholds(ic);
  const words =
    name === 'supply pin' && ic && thresholds
      ? `${ic.ref} starts at ${volts(thresholds.start)} and stops at ${volts(thresholds.stop)}, ${every}: ${volts(v)} in the mean at ${scene.net[node]}`
      : `${scene.net[node]} is charged for a moment ${every} and falls with its load: ${volts(v)} in the mean`;
  return { words, refs: ic ? [ic.ref] : [], ...own(OFF.drive * v) };
}

/** What was read there, by the meter's own share. */
export function readThere(scene: Scene, node: number, ground: number): Cause | null {
  const taken = scene.operation.unit.taken.find(({ a, b }) => a === node && b === ground);
  if (!taken) return null;
  const words = `${volts(taken.volts)} were read at ${scene.net[node]} against ${scene.net[ground]}`;
  return { words, refs: [], ...own(OFF.meter * taken.volts + LEAST_DIGIT) };
}

/** What the last digits of a meter for volts leave open, V. */
const LEAST_DIGIT = 0.01;

/** What the mains reaches without a rectifier. */
export function alternating(scene: Scene, node: number): Cause | null {
  const { line } = scene.operation.unit;
  if (!line?.lineNodes.has(node)) return null;
  return {
    words: `${scene.net[node]} alternates with the mains: nothing in the mean, read it with acv`,
    refs: [],
    ...own(0),
  };
}

/** A source from outside, or the rectified mains. */
export function source(scene: Scene, node: number, ground: number): Cause | null {
  const { unit } = scene.operation;
  const { plan, line, condition } = unit;
  const v = scene.between(node, ground);
  if (!plan.mains && plan.inputs.rail !== null && node === unit.node(plan.inputs.rail))
    return {
      words: `The source brings ${volts(condition.source)} to ${scene.net[node]}`,
      refs: [],
      ...own(OFF.source * v),
    };
  const other = plan.supplies.find((s) => unit.node(s.rail) === node);
  if (other)
    return {
      words: `${volts(other.usual)} comes from outside at ${scene.net[node]}`,
      refs: [],
      ...own(OFF.source * v),
    };
  const rail = line?.rails.find((r) => r.nodes.includes(node));
  const result = line?.result;
  if (!rail || !result) return null;
  const crest = Math.SQRT2 * condition.source;
  const [high, low] = [result.high.get(node) ?? v, result.low.get(node) ?? v];
  const current = rail.siemens * (result.mean.get(rail.main) ?? 0);
  const refs = [...new Set(line!.diodes.flatMap((d) => scene.refsOf(d.name)))];
  const stores = plan.board.parts.flatMap((p) =>
    p.kind === 'capacitor' && p.fitted && p.nets.some((n) => netKey(n) === netKey(scene.net[node] ?? ''))
      ? [p.ref]
      : [],
  );
  const direct = high > 0.9 * crest && high < 1.02 * crest;
  const top = direct
    ? `${volts(condition.source)} x 1.414 = ${volts(crest)}, less ${volts(crest - high)} in what it passes`
    : `charged to ${volts(high)} at the crest`;
  return {
    words: `${scene.net[node]}: ${top}; it falls to ${volts(low)} between two crests at ${amps(current)}: ${volts(v)} in the mean`,
    refs: [...refs, ...stores],
    ...own(OFF.rail * v + (high - low) / 4),
  };
}

/** A feedback pin that a loop holds at its reference. */
function contentPin(scene: Scene, node: number, fed: readonly WorkIc[]): Cause | null {
  const { unit, states } = scene.operation;
  const ic = fed.find((x) => x.facts['fbRef'] !== undefined && states[x.ref] === 'run');
  const reference = ic?.facts['fbRef'];
  const v = ic ? scene.between(node, unit.ground(ic)) : 0;
  if (!ic || reference === undefined || Math.abs(v - reference) > HELD * Math.abs(reference)) return null;
  const words = `${ic.ref} turns its pulses until ${scene.net[node]} reads ${volts(reference)}; now ${volts(v)}`;
  return { words, refs: [ic.ref], ...own(OFF.drop * 0.1 * v + OFF.reference * v) };
}

/** A feedback pin that is pulled up inside and down by an optocoupler. */
export function feedback(scene: Scene, node: number): Cause | null {
  const { unit } = scene.operation;
  const fed = [...unit.plan.ics.values()].filter((x) => unit.pin(x, 'FB') === node);
  const ic = fed.find((x) => x.facts['fbPullup'] !== undefined);
  if (!ic) return contentPin(scene, node, fed);
  const { fbRail = 5, fbPullup, fbOffset, fbDivide } = ic.facts;
  const v = scene.between(node, unit.ground(ic));
  const running = unit.cells.find((c) => c?.converter.controller === ic.ref && c.result);
  const sense = running && running.senseOhms > 0 && running.senseOhms < Infinity ? running.senseOhms : null;
  const wants = sense !== null && fbOffset !== undefined ? Math.max(v - fbOffset, 0) / (fbDivide ?? 1) / sense : null;
  const asks =
    wants === null
      ? ''
      : `; it lets the switch rise to (${volts(v)} - ${volts(fbOffset!)})/${fbDivide ?? 1} over ${ohms(sense!)} = ${amps(wants)}`;
  const optos = unit.plan.board.parts
    .filter((p) => p.kind === 'opto' && unit.pinsOf(p.ref)[2] === node)
    .map((p) => p.ref);
  const by =
    optos.length > 0 ? `, ${optos.join(', ')} ${optos.length > 1 ? 'take' : 'takes'}` : ', what is outside takes';
  return {
    words: `${ic.ref} pulls ${scene.net[node]} up to ${volts(fbRail)} through ${ohms(fbPullup!)}${by} ${amps((fbRail - v) / fbPullup!)} of it: ${volts(v)}${asks}`,
    refs: [ic.ref, ...optos],
    ...own(OFF.pin * v),
  };
}

/** A rail that a divider holds to a reference, as long as the loop is content. */
export function regulated(scene: Scene, node: number, ground: number): Cause | null {
  const { unit } = scene.operation;
  const divider = scene.dividers.find((d) => unit.node(d.rail) === node && d.vRef !== null);
  if (!divider || divider.vRef === null) return heldByPin(scene, node, ground);
  const made = divider.vRef * (1 + divider.rTop / divider.rBottom);
  const now = scene.between(node, unit.node(divider.return));
  const parts = [...divider.top, ...divider.bottom].map((p) => p.ref);
  const tolerance = Math.SQRT2 * Math.max(...[...divider.top, ...divider.bottom].map(valueTolerance));
  const sum = `${volts(made)} = ${volts(divider.vRef)} x (1 + ${ohms(divider.rTop)}/${ohms(divider.rBottom)})`;
  if (Math.abs(now - made) > HELD * Math.abs(made)) return null;
  const rest = scene.between(node, ground) - now;
  const more = Math.abs(rest) > 0.01 ? `, ${volts(rest)} further to the black lead` : '';
  return {
    words: `${scene.net[node]} is held at ${sum}: reference of ${divider.ref} over ${parts.join(', ')}; now ${volts(now)}${more}`,
    refs: [divider.ref, ...parts],
    ...own(Math.min(made * Math.hypot(OFF.reference, (1 - divider.vRef / made) * tolerance), printed(scene, node))),
  };
}

/** How far a rail may lie off that is printed on the unit: whoever chose the parts of its divider made them for that. */
function printed(scene: Scene, node: number): number {
  const { unit } = scene.operation;
  const output = unit.plan.outputs.find((o) => unit.node(o.rail) === node);
  const now = output ? scene.between(node, unit.node(output.return)) : 0;
  return output && Math.abs(now - output.volts) < PRINTED * output.volts ? PRINTED * output.volts : Infinity;
}

/** A unit makes what is printed on it within this share. */
const PRINTED = 0.05;

/** A rail that a feedback pin sees by way of several resistors. */
function heldByPin(scene: Scene, node: number, ground: number): Cause | null {
  const { unit, state } = scene.operation;
  if (!unit.isSteady(node)) return null;
  for (const i of state.running) {
    const c = unit.plan.converters[i]!;
    const ic = controllerOf(unit, c);
    const reference = ic?.facts['fbRef'];
    const pin = ic ? unit.pin(ic, 'FB') : -1;
    if (!ic || pin < 0 || reference === undefined) continue;
    const back = unit.ground(ic);
    const share = shareAt(unit, node, pin, back);
    const now = scene.between(node, back);
    if (!(share > LEAST_SEEN && share < 1) || Math.abs(now - reference / share) > HELD * Math.abs(now)) continue;
    return {
      words: `${ic.ref} is content when ${scene.net[pin]} reads ${volts(reference)}, ${percent(share)} of ${scene.net[node]}: ${volts(reference / share)}; now ${volts(scene.between(node, ground))}`,
      refs: [ic.ref],
      ...own(now * Math.hypot(OFF.reference, OFF.reference)),
    };
  }
  return null;
}

/** What an integrated circuit or a driver holds of itself. */
export function heldByIc(scene: Scene, node: number): Cause | null {
  const { unit, state } = scene.operation;
  for (const ic of unit.plan.ics.values()) {
    const ground = unit.ground(ic);
    const v = scene.between(node, ground);
    const here = (scene.at.get(node) ?? []).filter(
      (d) => d.name.startsWith(`${ic.ref} `) && (d.nodes[0] === node || d.name.endsWith(' supply')),
    );
    const name = here.map((d) => d.name.slice(ic.ref.length + 1));
    const told = (key: string, what: string): Cause => ({
      words: `${ic.ref} holds ${what} at ${volts(ic.facts[key]!)} (${key}); now ${volts(v)}`,
      refs: [ic.ref],
      ...own(OFF.held * v),
    });
    const near = (key: string): boolean =>
      ic.facts[key] !== undefined && Math.abs(v - ic.facts[key]!) < 0.1 * ic.facts[key]! + 0.05;
    if (name.includes('supply') && unit.pin(ic, 'VCC') === node && near('vccOut'))
      return told('vccOut', 'its own supply');
    if (name.includes('reference') && near('vRef')) return told('vRef', 'its reference pin');
    const pin = name.find((n) => /^pin \d+$/u.test(n));
    if (pin && near(pin.replace(' ', ''))) return told(pin.replace(' ', ''), pin);
    if (name.includes('drive')) {
      const duty = cellsDrivenBy(unit, state, ic).find((c) => c.result)?.result?.duty;
      const share = duty === undefined ? '' : ` ${percent(duty)} of the time`;
      return {
        words: `${ic.ref} drives ${scene.net[node]}${share}: ${volts(v)} in the mean`,
        refs: [ic.ref],
        ...own(OFF.drive * v),
      };
    }
  }
  return null;
}

/** A three-terminal regulator whose output a node is, and its input. */
export function regulator(scene: Scene, node: number): { readonly step: Cause; readonly from: number } | null {
  const { unit } = scene.operation;
  const part = unit.plan.board.parts.find((p) => p.kind === 'regulator' && unit.pinsOf(p.ref)[2] === node);
  if (!part) return null;
  const [input, back] = unit.pinsOf(part.ref) as [number, number];
  const v = scene.between(node, back);
  return {
    step: {
      words: `${part.ref} makes ${volts(v)} of the ${volts(scene.between(input, back))} at its input`,
      refs: [part.ref],
      ...own(OFF.held * v),
    },
    from: input,
  };
}
