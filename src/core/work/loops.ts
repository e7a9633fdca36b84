import { firstGuess } from './firstGuess';
import { LEAST_HERTZ, begin, leastTop, loopOf } from './loop';
import type { Loop } from './loop';
import type { MeanNetwork } from './meanNetwork';
import { Tangent } from './tangent';
import type { UnitUnderPower } from './unit';
import type { WorkState } from './unitCircuit';
import type { WorkDevice } from './workDevice';
import { supplyThresholds } from './workPlan';

/** Rounds until it gives up: from nothing, and from where it stood. */
const OUTER = 90;
const AGAIN = 45;
const NEAR = 1.5e-3;
/** Volts that still move by less than this share in steps that long go to and fro. */
const FLUTTER = 0.05;
/** A setting that moves no volts may wander by this share: a period is not computed finer. */
const ALIKE = 0.01;

/**
 * The mean volts with every running converter turned to where its loop is content. Each cell is straightened about the
 * volts of the round before; the settings are found on the straight ones. null where no steady state was found.
 */
export function closeLoops(
  unit: UnitUnderPower,
  state: WorkState,
  start: Float64Array | null,
  more: readonly WorkDevice[] = [],
): Float64Array | null {
  const loops = [...state.running].flatMap((i) => {
    const running = unit.cells[i];
    return running ? [loopOf(unit, running)] : [];
  });
  [unit.settled, unit.ranDown] = [true, false];
  if (loops.length === 0) return unit.solve(state, start, more);
  let x = start ?? firstGuess(unit, state);
  let at = x;
  for (const loop of loops) begin(unit, loop, x);
  const joints = loops.map(({ running: { cell } }): WorkDevice => ({
    name: 'joints',
    nodes: [],
    joins: cell.ends,
    evaluate: () => undefined,
  }));
  const capacitors = unit.standingCapacitors(unit.network([...unit.devices(state), ...joints]));
  // Switched on and followed in steps of time that grow until they reach as far as one likes: the capacitors of the unit
  // lead from where it is to where it settles.
  let seconds = start ? 0.3 : 1e-3;
  unit.settled = false;
  let [calm, stuck, flutters] = [0, 0, 0];
  for (let round = 0; round < (start ? AGAIN : OUTER); round++) {
    const tangents = loops.map(
      (l) => new Tangent(l.running, at, l.sampled ? (l.running.cell.unknownOf.get(l.sampled.node) ?? -1) : -1),
    );
    const fixed = [...unit.devices(state), ...more, ...tangents.map((t) => t.device())];
    let next: Float64Array | null = null;
    let [moved, off] = [Infinity, 0];
    for (let tries = 0; tries < 14; tries++) {
      for (const t of tangents) t.setting = t.from;
      const before = x;
      const charged = seconds > FOREVER ? [] : capacitors.map((c) => c(before, seconds));
      next = settle(unit, loops, tangents, unit.network([...fixed, ...charged]), x);
      moved = next ? Math.max(...tangents.map((t) => t.distance(next!))) : Infinity;
      off = next && moved > NEARBY ? Math.max(...tangents.map((t) => t.surprise(next!))) : 0;
      if (next && moved < FAR && (moved < SURE || off < TRUST)) break;
      seconds = Math.min(seconds, FOREVER) / 4;
    }
    if (!next) return round > 0 ? x : null;
    // Steps that stay as short as this lead nowhere.
    stuck = seconds < STUCK ? stuck + 1 : 0;
    if (stuck > STUCK_ROUNDS) return x;
    // What goes to and fro is met half way.
    at = flutters > 1 ? Float64Array.from(next, (v, i) => (v + at[i]!) / 2) : next;
    x = next;
    unit.lastDevices = fixed;
    const turned = Math.max(...tangents.map((t) => Math.abs(t.setting - t.from) / (t.setting + 0.01)));
    tangents.forEach((t, i) => {
      const { running } = loops[i]!;
      if (running.by === 'top') running.top = t.setting;
      else running.hertz = t.setting;
      release(unit, loops[i]!, t, next!);
    });
    // Where the longest on-time is the limit, the setting means nothing: volts that stay twice tell as much.
    calm = seconds > 1 && moved < NEAR ? calm + 1 : 0;
    flutters = seconds > LONG && moved >= NEAR && moved < FLUTTER ? flutters + 1 : 0;
    if (seconds > LONG && moved < NEAR && (turned < ALIKE || calm > 1)) {
      unit.settled = true;
      return x;
    }
    // A controller whose supply has run down stops.
    if (more.length === 0 && !unit.sustains && loops.map((l, i) => runDown(unit, l, tangents[i]!, x)).some(Boolean)) {
      [unit.settled, unit.ranDown] = [true, true];
      return x;
    }
    seconds *= stretch(moved, off);
  }
  return x;
}

/**
 * A converter that wants more than its longest pulses give is let run with them, and taken back when it wants less: there its
 * peak current sets nothing.
 */
function release(unit: UnitUnderPower, loop: Loop, tangent: Tangent, x: Float64Array): void {
  const { running } = loop;
  const { cell } = running;
  if (running.by !== 'top' || (!cell.free && !tangent.limited) || loop.turns > MOST_TURNS) return;
  const was = cell.free;
  cell.free = true;
  const wants = demand(unit, loop, tangent, x) > 0;
  cell.free = wants;
  if (was === wants) return;
  loop.turns++;
  if (was) running.top = tangent.result.attained;
}

/** So often a converter changes between the two within one closing of loops. */
const MOST_TURNS = 8;

/** Whether the supply of a loop's controller has fallen well below where it stops and falls on, while nothing will lift it. */
function runDown(unit: UnitUnderPower, loop: Loop, tangent: Tangent, x: Float64Array): boolean {
  const { ic, running, limit } = loop;
  const thresholds = ic && supplyThresholds(ic);
  if (!ic || !thresholds) return false;
  const [vcc, ground] = [unit.pin(ic, 'VCC'), unit.ground(ic)];
  if (vcc < 0 || ground < 0 || !unit.isSteady(vcc)) return false;
  const volts = x[vcc]! - x[ground]!;
  // What is still being turned up may lift it yet.
  const gives = running.cell.free || tangent.reached(x) > 0.98 * limit || tangent.setting < TURNS_UP * tangent.from;
  loop.falling = gives && volts < loop.supply ? loop.falling + 1 : 0;
  loop.supply = volts;
  return loop.falling >= FALLS_ON && volts < RUN_DOWN * thresholds.stop;
}

const RUN_DOWN = 0.7;
const FALLS_ON = 3;
const TURNS_UP = 1.05;

/** How much longer the next step of time may be: by how far the volts moved and how far the cells were from their tangents. */
function stretch(moved: number, off: number): number {
  if (moved < 0.02) return 20;
  if (moved < 0.06) return 6;
  if (moved < NEARBY) return 2;
  if (off < 0.02) return 6;
  if (off < 0.1) return 2;
  return moved < 0.2 ? 1 : moved < 0.3 ? 0.6 : 0.4;
}

/** Volts that move less than this leave no doubt of a tangent. */
const NEARBY = 0.15;
/** A step of time is kept so short that no volts change more than this, relative to one volt more than they are. */
const FAR = 0.6;
/** A longer step than this is believed only where the cell itself gives nearly what its tangent said there. */
const SURE = 0.25;
const TRUST = 0.5;
/** So many steps of less than this, s, and no end is in sight. */
const STUCK = 1e-6;
const STUCK_ROUNDS = 16;
/** Steps longer than this are as good as endless, s. */
const FOREVER = 100;
/** Where nothing moves any more in a step this long, nothing will: what leaks away slower stays, s. */
const LONG = 10;

/** Settings on the straight cells, one loop after the other until none moves. */
function settle(
  unit: UnitUnderPower,
  loops: readonly Loop[],
  tangents: readonly Tangent[],
  network: MeanNetwork,
  start: Float64Array,
): Float64Array | null {
  let x: Float64Array | null = network.solve(start);
  for (let sweep = 0; sweep < (loops.length > 1 ? 3 : 1) && x; sweep++) {
    for (const [i, loop] of loops.entries()) {
      x = turn(unit, loop, tangents[i]!, network, x);
      if (!x) return null;
    }
  }
  return x;
}

/** Turns one setting until its demand is nothing, within a third and three times of where the tangent was taken. */
function turn(
  unit: UnitUnderPower,
  loop: Loop,
  tangent: Tangent,
  network: MeanNetwork,
  start: Float64Array,
): Float64Array | null {
  const least = loop.running.by === 'top' ? leastTop(loop.running) : LEAST_HERTZ;
  const most = loop.running.by === 'top' ? Infinity : loop.running.cell.plan.hertz * 1.3;
  const bottom = Math.max(tangent.from / TURN ** 2, least);
  const roof = Math.max(Math.min(tangent.from * TURN, most), bottom);
  let x = start;
  if (loop.running.cell.free) return network.solve(x);
  const ask = (setting: number): number => {
    tangent.setting = setting;
    const next = network.solve(x);
    if (!next) return NaN;
    x = next;
    return demand(unit, loop, tangent, x);
  };
  let [low, high] = [bottom, roof];
  let middle = Math.min(Math.max(tangent.setting, bottom), roof);
  let r = ask(middle);
  if (Number.isNaN(r)) return null;
  if (Math.abs(r) < CONTENT) return x;
  // Opens the bracket from where it stands, then closes it.
  let [rLow, rHigh] = [NaN, NaN];
  let reach = 0.02;
  while (r > 0 ? middle < roof : middle > bottom) {
    if (r > 0) [low, rLow] = [middle, r];
    else [high, rHigh] = [middle, r];
    middle = r > 0 ? Math.min(middle * (1 + reach), roof) : Math.max(middle / (1 + reach), bottom);
    reach *= 3;
    const before = r;
    r = ask(middle);
    if (Number.isNaN(r)) return null;
    if (r > 0 !== before > 0) break;
  }
  if (r > 0) [low, rLow] = [middle, r];
  else [high, rHigh] = [middle, r];
  if (Number.isNaN(rLow) || Number.isNaN(rHigh)) return x;
  for (let round = 0; round < 60 && Math.abs(r) > CONTENT && (high - low) / high > 1e-12; round++) {
    const share = round % 3 === 2 ? 0.5 : Math.min(Math.max(rLow / (rLow - rHigh), 0.02), 0.98);
    middle = low + share * (high - low);
    r = ask(middle);
    if (Number.isNaN(r)) return null;
    if (r > 0) [low, rLow] = [middle, r];
    else [high, rHigh] = [middle, r];
  }
  return x;
}

const CONTENT = 1e-5;
/** A setting rises by no more than this factor on one tangent, and falls by no more than its square. */
const TURN = 2;

/** How far a loop asks for more (above zero) or less than it has, as a share. */
function demand(unit: UnitUnderPower, loop: Loop, tangent: Tangent, x: Float64Array): number {
  const { running, ic, limit, sampled } = loop;
  const bounds: number[] = [];
  let top = running.top;
  if (running.by === 'top') {
    top = tangent.reached(x);
    if (limit < Infinity) bounds.push((limit - top) / Math.max(limit, 1e-9));
    if (!running.cell.free && tangent.limited)
      bounds.push((tangent.attained(x) * 1.005 - tangent.setting) / tangent.setting);
  }
  if (ic) {
    const ground = unit.ground(ic);
    const fb = unit.pin(ic, 'FB');
    const { fbOffset, fbDivide } = ic.facts;
    const fbRef = ic.facts['fbRef'] && ic.facts['fbRef'] * (unit.aims.get(ic.ref) ?? 1);
    if (fb >= 0 && fbOffset !== undefined) {
      const threshold = Math.max(x[fb]! - x[ground]! - fbOffset, 0) / (fbDivide ?? 1);
      const wanted =
        running.senseOhms > 0 && (running.senseOhms < Infinity || unit.plan.sensed.has(running.converter))
          ? threshold / running.senseOhms
          : Infinity;
      bounds.push((wanted - top) / (Math.abs(top) + 0.01 * Math.min(limit, 10)));
    } else if (fb >= 0 && fbRef !== undefined) {
      const seen = sampled ? sampled.share * tangent.knee(x) : x[fb]! - x[ground]!;
      // A reference below ground is reached from above.
      bounds.push((fbRef - seen) / fbRef);
    }
  }
  // What regulates it is not known: it makes what is printed on the unit, or nothing of its own accord.
  const { made } = loop;
  if (!loop.told) bounds.push(made ? (made.volts - (x[made.rail]! - x[made.back]!)) / made.volts : -1);
  const want = Math.min(...bounds);
  return Number.isFinite(want) ? want : -1;
}
