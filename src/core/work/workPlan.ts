import { netKey } from '../circuit';
import { assumedFacts } from './assumedFacts';
import type { Board, NameplateOutput } from '../circuit';
import { DisjointSets } from '../graph';
import { partFigure, sheetFact, sheetOf } from '../part';
import type { Part } from '../part';
import { powerConverters, recogniseStages } from '../stages';
import type { PowerConverter } from '../stages';
import { furtherSupplies, supplyOf } from '../operate';

/** An integrated circuit that works: its place among the parts and the indices of its pins by role. */
export interface WorkIc {
  readonly ref: string;
  readonly index: number;
  readonly roles: Readonly<Record<string, readonly number[]>>;
  /** The pin its volts count from. */
  readonly ground: number | null;
  readonly facts: Readonly<Record<string, number>>;
}

/** An output of the nameplate whose nets are on the board. */
export type PlannedOutput = NameplateOutput & { readonly rail: string; readonly return: string };

/** Volts at which the supply pin of a part starts it and stops it; null for one that starts with its rail. */
export function supplyThresholds({ facts }: WorkIc): { readonly start: number; readonly stop: number } | null {
  const start = facts['vccStart'];
  return start === undefined ? null : { start, stop: facts['vccStop'] ?? USUAL_STOP * start };
}

/** Where no data sheet tells, a part stops at this share of the volts at which it starts. */
const USUAL_STOP = 0.6;

/** What is known of a board at work before anything is computed: from the healthy board, faults apart. */
export interface WorkPlan {
  readonly board: Board;
  readonly converters: readonly PowerConverter[];
  readonly ics: ReadonlyMap<string, WorkIc>;
  /** Nets that a capacitor holds against a reference. */
  readonly steady: ReadonlySet<string>;
  /** Nets that a capacitor ties to a net that swings. */
  readonly riding: ReadonlyMap<string, string>;
  readonly references: readonly string[];
  readonly mains: boolean;
  /** Refs of windings that only drive gates, and of those that only sense a current. */
  readonly driveWindings: ReadonlySet<string>;
  readonly sensingWindings: ReadonlySet<string>;
  readonly outputs: readonly PlannedOutput[];
  /** Pins with the look of an enable that forbid nothing on the healthy unit, by part; filled when a unit is first run. */
  readonly idleEnables: Map<string, ReadonlySet<number>>;
  readonly enablesKnown: { done: boolean };
  /** Volts of the bus of an inverter on the healthy unit; null until it was run. */
  readonly usualBus: { volts: number | null };
  /** Converters whose switch current the healthy board brings to the controller. */
  readonly sensed: Set<PowerConverter>;
  /** Further sources from outside that are there in normal work. */
  readonly supplies: readonly {
    readonly rail: string;
    readonly return: string;
    readonly usual: number;
    readonly lowest: number;
    readonly highest: number;
    readonly reversed: number;
  }[];
  readonly inputs: {
    readonly rail: string | null;
    readonly return: string | null;
    readonly lowest: number;
    readonly nominal: number;
  };
}

const HOLDING_FARADS = 20e-9;
const CLAMP_SECONDS = 15e-6;

const plans = new WeakMap<Board, WorkPlan>();

/** The plan of a healthy board, kept for it. */
export function workPlan(board: Board): WorkPlan {
  const known = plans.get(board);
  if (known) return known;
  const map = recogniseStages(board);
  const converters = powerConverters(board);
  const supply = supplyOf(board);
  const references = map.islands.map((i) => netKey(i.reference));
  const outputs = (board.nameplate?.outputs ?? []).flatMap((o) =>
    o.rail !== undefined && o.return !== undefined ? [{ ...o, rail: netKey(o.rail), return: netKey(o.return) }] : [],
  );
  const ics = new Map<string, WorkIc>();
  board.parts.forEach((part, index) => {
    if (part.kind !== 'ic' || !part.fitted) return;
    const made = workIc(board, part, index, map.pins[part.ref] ?? []);
    if (made) ics.set(part.ref, made);
  });
  const anchors = [
    ...references,
    ...outputs.flatMap((o) => (o.kind === 'dc' ? [o.return] : [])),
    ...[supply.rail, supply.return].flatMap((n) => (n === null ? [] : [netKey(n)])),
    ...(board.nameplate?.auxInputs ?? []).flatMap((x) => [netKey(x.rail), netKey(x.return)]),
  ];
  const { steady, riding } = heldNets(board, anchors, converters);
  const made: WorkPlan = {
    board,
    converters,
    ics,
    steady,
    riding,
    references,
    mains: supply.kind === 'mains',
    driveWindings: new Set(map.cores.flatMap((c) => (c.purpose === 'drive' ? c.refs : []))),
    sensingWindings: new Set(map.cores.flatMap((c) => (c.purpose === 'current' ? c.refs : []))),
    outputs,
    idleEnables: new Map(),
    enablesKnown: { done: false },
    sensed: new Set(),
    supplies: furtherSupplies(board).flatMap((s) =>
      s.rail === null || s.return === null
        ? []
        : [
            {
              rail: netKey(s.rail),
              return: netKey(s.return),
              usual: s.volts,
              lowest: s.lowest,
              highest: s.peak,
              reversed: -s.peak,
            },
          ],
    ),
    usualBus: { volts: null },
    inputs: {
      rail: supply.rail === null ? null : netKey(supply.rail),
      return: supply.return === null ? null : netKey(supply.return),
      lowest: supply.lowest ?? supply.nominal ?? 0,
      nominal: supply.nominal ?? supply.highest ?? 0,
    },
  };
  plans.set(board, made);
  return made;
}

function workIc(
  board: Board,
  part: Part,
  index: number,
  pins: readonly { readonly pin: string; readonly role: string }[],
): WorkIc | null {
  const facts = sheetOf(board.facts, part.ref);
  const roles: Record<string, number[]> = {};
  pins.forEach(({ role }, i) => (roles[role] ??= []).push(i));
  const live = ['GND', 'VCC', 'VIN', 'GATE', 'FB', 'DRAIN'].some((r) => roles[r] !== undefined);
  if (!live && !facts) return null;
  const told = sheetFact(board.facts, part.ref, 'groundPin');
  const ground = told !== undefined ? told - 1 : (roles['GND']?.[0] ?? roles['SOURCE']?.[0] ?? null);
  return { ref: part.ref, index, roles, ground, facts: { ...assumedFacts(board, part, roles, facts), ...facts } };
}

/** Nets that stand, and nets that ride on others, by the capacitors between them. */
function heldNets(
  board: Board,
  anchors: readonly string[],
  converters: readonly PowerConverter[],
): { readonly steady: ReadonlySet<string>; readonly riding: ReadonlyMap<string, string> } {
  const nets = [...new Set(board.parts.flatMap((p) => p.nets.map(netKey)))].filter((n) => n !== 'nc');
  const numbers = new Map(nets.map((n, i) => [n, i]));
  const sets = new DisjointSets(nets.length);
  const join = (p: Part): void => void sets.union(numbers.get(netKey(p.nets[0]!))!, numbers.get(netKey(p.nets[1]!))!);
  const same = (a: Part, b: Part): boolean =>
    [...a.nets].map(netKey).sort().join() === [...b.nets].map(netKey).sort().join();
  for (const c of board.parts) {
    if (c.kind !== 'capacitor' || !c.fitted || c.nets.some((n) => netKey(n) === 'nc')) continue;
    const across = board.parts.filter((r) => r.kind === 'resistor' && r.fitted && same(r, c));
    const siemens = across.reduce((sum, r) => sum + 1 / (r.kind === 'resistor' ? r.value : Infinity), 0);
    if (c.value >= HOLDING_FARADS || (siemens > 0 && c.value / siemens > CLAMP_SECONDS)) join(c);
  }
  const grouped = new Map<number, number>();
  nets.forEach((_, i) => grouped.set(sets.find(i), (grouped.get(sets.find(i)) ?? 0) + 1));
  const wired: [string, string][] = board.parts.flatMap((p) =>
    p.kind === 'resistor' && p.fitted && p.value <= 1 && p.nets.every((n) => numbers.has(netKey(n)))
      ? [[netKey(p.nets[0]!), netKey(p.nets[1]!)] as [string, string]]
      : [],
  );
  const anchored = new Set(anchors.flatMap((n) => (numbers.has(n) ? [sets.find(numbers.get(n)!)] : [])));
  // Reservoirs that a link or shunt ties to what stands.
  for (let grown = true; grown;) {
    grown = false;
    for (const [a, b] of wired.flatMap(([x, y]) => [
      [x, y],
      [y, x],
    ])) {
      const [ra, rb] = [sets.find(numbers.get(a!)!), sets.find(numbers.get(b!)!)];
      if (!anchored.has(ra) || anchored.has(rb) || (grouped.get(rb) ?? 0) < 2) continue;
      anchored.add(rb);
      grown = true;
    }
  }
  const steady = new Set(nets.filter((n) => anchored.has(sets.find(numbers.get(n)!))));
  // What is tied to a source by next to nothing stands with it.
  for (let grown = true; grown;) {
    grown = false;
    for (const p of board.parts) {
      if (!p.fitted || p.nets.length !== 2) continue;
      const ohms =
        p.kind === 'fuse' || p.kind === 'switch' ? 0 : p.kind === 'ntc' ? partFigure(p, 'ohmsAt25') : undefined;
      if (ohms === undefined || ohms > 100) continue;
      const [a, b] = p.nets.map(netKey) as [string, string];
      if (steady.has(a) === steady.has(b)) continue;
      steady.add(a);
      steady.add(b);
      grown = true;
    }
  }
  const swinging = new Set(converters.flatMap((c) => c.nodes));
  const riding = new Map<string, string>();
  const members = new Map<number, string[]>();
  for (const n of nets) {
    if (steady.has(n)) continue;
    const root = sets.find(numbers.get(n)!);
    members.set(root, [...(members.get(root) ?? []), n]);
  }
  for (const group of members.values()) {
    if (group.length < 2) continue;
    const base = group.find((n) => swinging.has(n)) ?? group[0]!;
    for (const n of group) if (n !== base) riding.set(n, base);
  }
  return { steady, riding };
}
