import { findPart, netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { weakestBasis } from '../quantity';
import { rails, recogniseStages } from '../stages';
import { HighestVolts } from './highest';
import type { Highest } from './highest';
import { statementsOf } from './statements';
import { supplyOf } from './supply';
import { VOLTS_SOURCES } from './volts';
import type { ComputedVolts, Conditions, Statement, Volts, VoltsSource } from './volts';

/** The volts at work between two places, whatever may stand there at the worst left aside. */
type WorkingVolts = Omit<Volts, 'highest' | 'highestBasis' | 'highestWhy'>;

/**
 * What stands at every net, part and pair of places of a board at work, with where each figure comes from. The one place
 * where rooms ask for volts.
 */
export class OperatingPoint {
  private readonly most: HighestVolts;
  private known: readonly Statement[] | null = null;

  constructor(
    readonly board: Board,
    private readonly conditions: Conditions,
  ) {
    this.most = new HighestVolts(board);
  }

  /** What is known of the volts between rails, best source first. */
  get statements(): readonly Statement[] {
    this.known ??= statementsOf(this.board, this.conditions);
    return this.known;
  }

  /** What the engine of the unit under power found; empty until it has. */
  get computed(): readonly ComputedVolts[] {
    return this.conditions.computed ?? [];
  }

  /**
   * The highest credible volts between two nets; also for nets inside a known IC. Never null: in doubt the worst. What is
   * computed may raise it and never lowers it.
   */
  highest(a: string, b: string): Highest {
    const rated = this.most.between(a, b);
    if (this.computed.length === 0) return rated;
    const work = along(
      this.statements.filter((s) => s.source === 'computed'),
      netKey(a),
      netKey(b),
    );
    const volts = work ? Math.max(Math.abs(work.low!), Math.abs(work.high!)) : 0;
    return work && volts > rated.volts ? { volts, basis: work.basis, why: `at work: ${work.why}` } : rated;
  }

  /** What stands between two nets, the first against the second. */
  across(a: string, b: string): Volts {
    const work = this.working(netKey(a), netKey(b));
    const atWork = { basis: work.basis, why: work.why };
    const peak = work.high === null ? 0 : Math.max(Math.abs(work.low!), Math.abs(work.high));
    const own = { volts: work.alternating ? peak * Math.SQRT2 : peak, ...atWork };
    const rated = this.highest(a, b);
    const joined = rails(this.board).same(a, b, 'burnt');
    const most = joined ? { volts: 0, ...atWork } : own.volts > rated.volts ? own : rated;
    return { ...work, highest: most.volts, highestBasis: most.basis, highestWhy: most.why };
  }

  /** A net against the return of its rail, else against the reference of its island; null for a net that is on neither. */
  net(net: string): Volts | null {
    const key = netKey(net);
    const own = this.statements.find((s) => s.plus.has(key));
    const back = own ? [...own.minus][0] : this.referenceOf(key);
    return back === undefined ? null : this.across(key, back);
  }

  /** Across a part where it bears its volts: its two pins, a switch's power pins, a rectifier's output, a coil. */
  part(ref: string): Volts | null {
    const part = findPart(this.board, ref);
    const nets = part && bearing(part);
    return nets && nets.every((n) => netKey(n) !== 'nc') ? this.across(nets[0], nets[1]) : null;
  }

  /** The highest volts of the rectified bus, or of the direct source, at work; null where nothing tells. */
  get busPeak(): number | null {
    const { kind, peak } = supplyOf(this.board);
    const { source } = this.conditions;
    if (source === undefined) return peak;
    return kind === 'mains' ? Math.SQRT2 * source : source;
  }

  private referenceOf(net: string): string | undefined {
    return recogniseStages(this.board).islands.find((i) => i.nets.some((n) => netKey(n) === net))?.reference;
  }

  private working(a: string, b: string): WorkingVolts {
    if (a !== 'nc' && rails(this.board).same(a, b)) return joinedVolts(this.board, a, b);
    return along(this.statements, a, b) ?? NOTHING_KNOWN;
  }
}

const NOTHING_KNOWN: WorkingVolts = {
  nominal: null,
  low: null,
  high: null,
  alternating: false,
  source: 'rating',
  basis: 'assumed',
  why: 'nothing tells what stands there at work',
};

function joinedVolts(board: Board, a: string, b: string): WorkingVolts {
  const through = rails(board)
    .jointsAt(a)
    .map((j) => j.ref);
  const why = a === b ? 'the two places are one net' : `one rail, through ${through.join(', ')}`;
  return { nominal: 0, low: 0, high: 0, alternating: false, source: 'computed', basis: 'seen', why };
}

/** Statements that are followed one after the other from one rail to another. */
const MOST_LINKS = 3;

interface Way {
  readonly at: string;
  readonly links: readonly { readonly said: Statement; readonly sign: 1 | -1 }[];
}

/**
 * The volts between two nets along what is known: one statement, or several in a row by Kirchhoff's voltage law. Of ways
 * equally short the one with the best sources; a better source beats a shorter way only between the same two rails.
 */
function along(statements: readonly Statement[], a: string, b: string): WorkingVolts | null {
  let front: readonly Way[] = [{ at: a, links: [] }];
  for (let length = 1; length <= MOST_LINKS; length++) {
    const next: Way[] = [];
    for (const { at, links } of front) {
      for (const said of statements) {
        if (links.some((l) => l.said === said)) continue;
        const sign = said.plus.has(at) ? 1 : said.minus.has(at) ? -1 : 0;
        if (sign === 0 || (said.alternating && length > 1)) continue;
        for (const far of sign > 0 ? said.minus : said.plus) next.push({ at: far, links: [...links, { said, sign }] });
      }
    }
    const there = next.filter((w) => w.at === b).sort((x, y) => rankOf(x) - rankOf(y))[0];
    if (there) return addUp(there);
    front = next.filter((w) => !w.links.some((l) => l.said.alternating));
  }
  return null;
}

function rankOf({ links }: Way): number {
  return Math.max(...links.map((l) => VOLTS_SOURCES.indexOf(l.said.source)));
}

function addUp({ links }: Way): WorkingVolts {
  let [nominal, low, high] = [0, 0, 0];
  for (const { said, sign } of links) {
    nominal += sign * said.nominal;
    low += sign > 0 ? said.low : -said.high;
    high += sign > 0 ? said.high : -said.low;
  }
  const [only] = links;
  const words = links.map(({ said, sign }, i) => `${sign < 0 ? 'less ' : i > 0 ? 'and ' : ''}${said.why}`).join('; ');
  const worst = Math.max(...links.map((l) => VOLTS_SOURCES.indexOf(l.said.source)));
  return {
    nominal,
    low,
    high,
    alternating: links.length === 1 && only!.said.alternating,
    source: VOLTS_SOURCES[worst] as VoltsSource,
    basis: weakestBasis(links.map((l) => l.said.basis)),
    why: links.length === 1 ? only!.said.why : words,
  };
}

/** The two nets between which a part bears its volts. */
function bearing(part: Part): readonly [string, string] | null {
  const [first, second, third, fourth] = part.nets;
  const pair = (x: string | undefined, y: string | undefined): readonly [string, string] | null =>
    x === undefined || y === undefined ? null : [x, y];
  switch (part.kind) {
    case 'mosfet':
    case 'bjt':
      return pair(first, third);
    case 'bridge':
    case 'opto':
      return pair(third, fourth);
    case 'shunt-reference':
      return pair(third, second);
    case 'regulator':
      return pair(first, second);
    case 'ic':
    case 'connector':
      return part.nets.length === 2 ? pair(first, second) : null;
    default:
      return pair(first, second);
  }
}

/** The operating point of a board. Under no special conditions it is kept as long as the board is. */
export function operatingPoint(board: Board, conditions?: Conditions): OperatingPoint {
  if (conditions) return new OperatingPoint(board, conditions);
  const known = points.get(board);
  if (known) return known;
  const made = new OperatingPoint(board, {});
  points.set(board, made);
  return made;
}

/** Puts what the engine of the unit under power found into the operating point that every room asks from then on. */
export function fillOperatingPoint(board: Board, computed: readonly ComputedVolts[]): OperatingPoint {
  const made = new OperatingPoint(board, { computed });
  points.set(board, made);
  return made;
}

const points = new WeakMap<Board, OperatingPoint>();
