import { netKey } from '@/core/circuit';
import { readNetlist } from '@/core/netlist';
import type { Part } from '@/core/part';
import { seededRandom } from '@/core/quantity';
import type { Random } from '@/core/quantity';
import { kindOf, relabel } from './stageLabels';
import type { Labelled } from './stageLabels';
import { fourDiodes, renamed, shuffled, split, thinned } from './strangersBase';

/** What may be other on a stranger's board while it stays the same kind of board. */
export const CHANGES = {
  renamed: (x, random) => renamed(x.board, x.labels, random),
  shuffled: ({ board, labels }, random) => ({
    board: { ...board, parts: shuffled(board.parts, random), couplings: shuffled(board.couplings, random), layout: [] },
    labels,
  }),
  split: (x, random) => split(x.board, x.labels, random),
  thinned: (x, random) => thinned(x.board, x.labels, random),
  'four diodes': (x) => fourDiodes(x),
  'pins in another order': (x, random) => repinned(x, random),
  'start from the line': (x, random) => startFromLine(x, random),
  'a sensed rail': (x, random) => sensedRail(x, random),
  indicator: (x, random) => indicator(x, random),
  snubber: (x, random) => snubber(x, random),
  'empty positions': (x, random) => emptyPositions(x, random),
  'pins to measure at': (x, random) => testPins(x, random),
  'gate turned off faster': (x, random) => turnOff(x, random),
  'current transformer': (x, random) => currentTransformer(x, random),
  'inrush limiter': (x) => inrushLimiter(x),
} satisfies Record<string, (x: Labelled, random: Random) => Labelled>;
export type Change = keyof typeof CHANGES;

/** A board with one change, its labels following: seeded, the same every time. */
export function changed(x: Labelled, change: Change, seed: number): Labelled {
  return CHANGES[change](x, seededRandom(1000 * Object.keys(CHANGES).indexOf(change) + seed));
}

/** A board that nobody has seen: several changes at once, parts missing up to a share, everything renamed and shuffled. */
export function stranger(
  x: Labelled,
  seed: number,
  missing = 0,
): { readonly made: Labelled; readonly changes: readonly Change[]; readonly gone: readonly string[] } {
  const random = seededRandom(7919 * seed + 13);
  const ways = (Object.keys(CHANGES) as Change[]).filter((c) => c !== 'renamed' && c !== 'shuffled');
  const changes = ways.filter(() => random() < 0.35);
  let made = changes.reduce((now, change) => CHANGES[change](now, random), x);
  const before = made.board.parts;
  if (missing > 0) made = without(made, missing * random(), random);
  const left = new Set(made.board.parts);
  const gone = before.filter((p) => !left.has(p)).map((p) => p.ref);
  return { made: CHANGES.shuffled(CHANGES.renamed(made, random), random), changes, gone };
}

/** Parts left out at random, each with the same chance. */
function without({ board, labels }: Labelled, share: number, random: Random): Labelled {
  const gone = new Set(board.parts.filter(() => random() < share).map((p) => p.ref));
  return dropped({ board, labels }, gone);
}

export function dropped({ board, labels }: Labelled, gone: ReadonlySet<string>): Labelled {
  const parts = board.parts.filter((p) => !gone.has(p.ref));
  const refs = new Set(parts.map((p) => p.ref.toLowerCase()));
  const couplings = board.couplings.filter((k) => refs.has(k.first.toLowerCase()) && refs.has(k.second.toLowerCase()));
  return {
    board: { ...board, parts, couplings, layout: [] },
    labels: relabel(labels, (r) => (gone.has(r) ? [] : [r])),
  };
}

/** A board with parts more, given as lines of a netlist, each part with its kinds: the first is the label. */
function added({ board, labels }: Labelled, lines: readonly string[], kinds: readonly (readonly string[])[]): Labelled {
  const read = readNetlist(['more', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('; '));
  const { parts, models, couplings } = read.value.board;
  return {
    board: {
      ...board,
      parts: [...board.parts, ...parts],
      couplings: [...board.couplings, ...couplings],
      models: new Map([...board.models, ...models]),
      layout: [],
    },
    labels: {
      ...labels,
      stages: [...labels.stages, ...parts.map((p, i) => ({ kind: kinds[i]![0]!, parts: [p.ref] }))],
      alt: { ...labels.alt, ...Object.fromEntries(parts.map((p, i) => [p.ref, kinds[i]!.slice(1)])) },
    },
  };
}

let counter = 0;
/** A name that no part or net of a board has. */
const fresh = (): string => `ZZ${counter++}`;

function pick<T>(list: readonly T[], random: Random): T | undefined {
  return list[Math.floor(random() * list.length)];
}

function placed({ board, labels }: Labelled, kind: Part['kind'], ...stages: readonly string[]): readonly Part[] {
  return board.parts.filter((p) => p.kind === kind && p.fitted && stages.includes(kindOf(labels, p.ref) ?? ''));
}

/** Rail and return of a capacitor that holds an output. */
function outputRail(x: Labelled, random: Random): readonly [string, string] | null {
  const part = pick(
    placed(x, 'capacitor', 'output-filter').filter((p) => 'value' in p && p.value >= 10e-6),
    random,
  );
  return part ? [part.nets[0]!, part.nets[1]!] : null;
}

/** The pins of an IC in another order, its inside and its labels following; ICs of one type alike. */
function repinned({ board, labels }: Labelled, random: Random): Labelled {
  const orders = new Map<string, readonly number[]>();
  const orderOf = (type: string, pins: number): readonly number[] => {
    const key = `${type} ${pins}`;
    if (!orders.has(key)) orders.set(key, shuffled([...Array(pins).keys()], random));
    return orders.get(key)!;
  };
  const pins: Record<string, Record<string, string>> = { ...labels.pins };
  const pinsAlt: Record<string, Record<string, readonly string[]>> = { ...labels.pins_alt };
  const subcircuits = new Map(board.subcircuits);
  const parts = board.parts.map((p) => {
    if (p.kind !== 'ic') return p;
    const order = orderOf(p.subcircuit.toLowerCase(), p.nets.length);
    const moved = <T>(roles: Readonly<Record<string, T>> | undefined): Record<string, T> =>
      Object.fromEntries(
        order.flatMap((from, to) => {
          const role = roles?.[String(from + 1)];
          return role === undefined ? [] : [[String(to + 1), role] as const];
        }),
      );
    if (pins[p.ref]) pins[p.ref] = moved(labels.pins[p.ref]);
    if (pinsAlt[p.ref]) pinsAlt[p.ref] = moved(labels.pins_alt?.[p.ref]);
    const inside = board.subcircuits.get(p.subcircuit.toLowerCase());
    if (inside?.pins.length === order.length)
      subcircuits.set(p.subcircuit.toLowerCase(), { ...inside, pins: order.map((i) => inside.pins[i]!) });
    return { ...p, nets: order.map((i) => p.nets[i]!) };
  });
  return { board: { ...board, parts, subcircuits, layout: [] }, labels: { ...labels, pins, pins_alt: pinsAlt } };
}

/** Start-up resistors from a conductor of the line in place of the rail behind the rectifier. */
function startFromLine(x: Labelled, random: Random): Labelled {
  const bridge = x.board.parts.find((p) => p.kind === 'bridge' && kindOf(x.labels, p.ref) === 'rectifier');
  const [ac1, ac2, plus] = bridge?.nets ?? [];
  const line = random() < 0.5 ? ac1 : ac2;
  if (!line || !plus) return x;
  const moved = new Set(placed(x, 'resistor', 'startup').map((p) => p.ref));
  const parts = x.board.parts.map((p) =>
    moved.has(p.ref) ? { ...p, nets: p.nets.map((n) => (netKey(n) === netKey(plus) ? line : n)) } : p,
  );
  return { board: { ...x.board, parts, layout: [] }, labels: x.labels };
}

/** An output read by a processor of its own, through a divider with its filter. */
function sensedRail(x: Labelled, random: Random): Labelled {
  const rail = outputRail(x, random);
  if (!rail) return x;
  const supply = x.board.parts.find(
    (p) => p.kind === 'ic' && Object.values(x.labels.pins[p.ref] ?? {}).includes('VCC') && p.nets.includes(rail[1]),
  );
  const vcc = Object.entries(x.labels.pins[supply?.ref ?? ''] ?? {}).find(([, role]) => role === 'VCC')?.[0];
  const net = vcc === undefined ? rail[0] : supply!.nets[Number(vcc) - 1]!;
  const [point, ic] = [fresh(), fresh()];
  return added(
    x,
    [
      `R${fresh()} ${rail[0]} ${point} 47k`,
      `R${fresh()} ${point} ${rail[1]} 5.1k`,
      `C${fresh()} ${point} ${rail[1]} 100n`,
      `X${ic} ${net} ${rail[1]} ${point} NC NC NC NC NC TOLD`,
    ],
    [['sensing'], ['sensing'], ['sensing'], ['controller', 'sensing']],
  );
}

function indicator(x: Labelled, random: Random): Labelled {
  const rail = outputRail(x, random);
  if (!rail) return x;
  const mid = fresh();
  return added(
    x,
    [`R${fresh()} ${rail[0]} ${mid} 4.7k`, `D${fresh()} ${mid} ${rail[1]} ZZLED`, '.model ZZLED D(IS=1e-18 N=2)'],
    [['indicator'], ['indicator']],
  );
}

/** A resistor and a capacitor in series across a rectifier. */
function snubber(x: Labelled, random: Random): Labelled {
  const diode = pick(placed(x, 'diode', 'output-rectifier'), random);
  if (!diode) return x;
  const mid = fresh();
  const kinds = ['clamp', 'output-rectifier', 'switch'];
  return added(
    x,
    [`R${fresh()} ${diode.nets[0]} ${mid} 22`, `C${fresh()} ${mid} ${diode.nets[1]} 470p`],
    [kinds, kinds],
  );
}

/** Positions beside parts of their kind that nobody fitted anything in. */
function emptyPositions(x: Labelled, random: Random): Labelled {
  const like = x.board.parts.filter((p) => (p.kind === 'resistor' || p.kind === 'capacitor') && p.fitted);
  return [...Array(3).keys()].reduce((now): Labelled => {
    const part = pick(like, random);
    const kind = part && kindOf(x.labels, part.ref);
    if (!part || kind === undefined) return now;
    const letter = part.kind === 'resistor' ? 'R' : 'C';
    const value = 'value' in part ? part.value : 1;
    return added(
      now,
      [`${letter}${fresh()} ${part.nets.join(' ')} ${value} fit=no`],
      [[kind, ...(x.labels.alt[part.ref] ?? [])]],
    );
  }, x);
}

function testPins(x: Labelled, random: Random): Labelled {
  const nets = [...new Set(x.board.parts.flatMap((p) => p.nets))].filter((n) => netKey(n) !== 'nc');
  const single = x.board.parts.some((p) => p.kind === 'connector' && p.nets.length === 1);
  const grounds = new Set(x.board.parts.flatMap((p) => (p.kind === 'capacitor' ? [p.nets[1]!] : [])));
  if (single) return x;
  return [1, 2, 3].reduce((now): Labelled => {
    const net = pick(
      nets.filter((n) => !grounds.has(n)),
      random,
    );
    return net === undefined ? now : added(now, [`X${fresh()} ${net} CONN`], [['connector']]);
  }, x);
}

/** A diode with a small resistor beside a gate resistor. */
function turnOff(x: Labelled, random: Random): Labelled {
  const gates = new Map(
    x.board.parts.flatMap((p) => (p.kind === 'mosfet' && p.fitted ? [[netKey(p.nets[1]!), p] as const] : [])),
  );
  const resistor = pick(
    placed(x, 'resistor', 'gate-drive').filter(
      (p) => 'value' in p && p.value <= 100 && p.nets.some((n) => gates.has(netKey(n))),
    ),
    random,
  );
  if (!resistor) return x;
  const [gate, drive] = gates.has(netKey(resistor.nets[0]!)) ? resistor.nets : [...resistor.nets].reverse();
  const mid = fresh();
  const kinds = ['gate-drive', ...(x.labels.alt[resistor.ref] ?? [])];
  return added(
    x,
    [`R${fresh()} ${gate} ${mid} 4.7`, `D${fresh()} ${mid} ${drive} ZZSIG`, '.model ZZSIG D(IS=2.5n N=1.75)'],
    [kinds, kinds],
  );
}

/** The current of a power switch told by a transformer in its upper conductor, its burden read by nobody yet. */
function currentTransformer(x: Labelled, random: Random): Labelled {
  const fet = pick(placed(x, 'mosfet', 'switch'), random);
  const back = x.board.parts.find(
    (p) => p.kind === 'capacitor' && ['bulk', 'output-filter'].includes(kindOf(x.labels, p.ref) ?? ''),
  )?.nets[1];
  if (
    !fet ||
    back === undefined ||
    netKey(x.board.models.get((fet as { model: string }).model.toLowerCase())?.type ?? '') !== 'nmos'
  )
    return x;
  const [drain, end, told] = [fresh(), fresh(), fresh()];
  const [few, many] = [fresh(), fresh()];
  const parts = x.board.parts.map((p) => (p.ref === fet.ref ? { ...p, nets: [drain, ...p.nets.slice(1)] } : p));
  const sense = ['current-sense', 'transformer'];
  return added(
    { board: { ...x.board, parts }, labels: x.labels },
    [
      `L${few} ${fet.nets[0]} ${drain} 2u`,
      `L${many} ${end} ${back} 20m`,
      `K${fresh()} L${few} L${many} 0.99`,
      `D${fresh()} ${end} ${told} ZZSIG`,
      `R${fresh()} ${told} ${back} 10`,
      `R${fresh()} ${end} ${back} 2.2k`,
      '.model ZZSIG D(IS=2.5n N=1.75)',
    ],
    [sense, sense, ['current-sense'], ['current-sense'], ['current-sense', 'clamp']],
  );
}

/** A thermistor ahead of the rectifier. */
function inrushLimiter(x: Labelled): Labelled {
  const bridge = x.board.parts.find((p) => p.kind === 'bridge' && kindOf(x.labels, p.ref) === 'rectifier');
  if (!bridge) return x;
  const net = fresh();
  const parts = x.board.parts.map((p) => (p === bridge ? { ...p, nets: [net, ...p.nets.slice(1)] } : p));
  return added(
    { board: { ...x.board, parts }, labels: x.labels },
    [`X${fresh()} ${bridge.nets[0]} ${net} NTC r25=5`],
    [['inrush']],
  );
}
