import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { GATE_LIMIT, SupplyShorts, pointKey } from '../diagnose';
import type { ColdPoint, Diagnoser, Finding, TakenReading } from '../diagnose';
import { isCold } from '../meter';
import { atOnce } from '../problem';
import { formatQuantity, formatVolts } from '../quantity';
import { switchedNets } from '../stages';
import { cheapestCover, clearingChoices } from './clearingList';
import type { Clearing } from './clearingList';
import { BARRIER_OHMS } from './threats';
import { ThreatReadings, belowHealthy, rulesOut } from './threatReadings';

/** A reading of the permit's list and what it rules out, in words. */
export interface PermitReading extends ColdPoint {
  readonly rulesOut: string;
}

type ColdTaken = TakenReading & ColdPoint;

/** A reading with the nets, as keys, at which the board was changed or found to be other after it was taken. */
export interface PresentReading extends TakenReading {
  readonly changed?: ReadonlySet<string>;
}

/**
 * Whether a board may be powered, as far as its cold readings show.
 *
 * allowed   every short or leak that matters is ruled out by a reading, and nothing shuts it.
 * earnable  nothing shuts it but that readings are missing.
 * reasons   why not, one sentence each; empty when allowed.
 * restsOn   readings taken that rule something out: a permit stands on them and ends with them.
 * clearing  the smallest set of further readings that would rule out the rest if they come out healthy.
 * unseen    what no cold reading can tell on this board, in words: the lamp at power-up has to.
 * mass      odds of a short in the supply path or across an output, by the readings that count.
 */
export interface PowerPermit {
  readonly allowed: boolean;
  readonly earnable: boolean;
  readonly reasons: readonly string[];
  readonly restsOn: readonly PermitReading[];
  readonly clearing: readonly PermitReading[];
  readonly unseen: readonly string[];
  readonly mass: number;
}

/** A leak that would burn this much matters, watt; and between these it is judged whatever the volts, ohm. */
const LEAK_WATTS = 10;
const LEAK_FROM_OHMS = 30;
const LEAK_UP_TO_OHMS = { diode: 1000, continuity: 600, ohms: 10e3 } as const;

/**
 * The permit of one board: what could short it and the readings that would show it, worked out once.
 *
 * Evidence only: no odds open it. It is earned when each threat has been contradicted by a reading on the board as it
 * is now, at a confirmed place.
 */
export class Permit {
  private readonly acrossThreat = new Map<number, readonly string[]>();
  /** The threats that some reading rules out. */
  private readonly able: ReadonlySet<number>;

  private constructor(
    private readonly readings: ThreatReadings,
    private readonly choices: readonly Clearing[],
  ) {
    this.able = new Set(choices.flatMap((c) => [...c.rules]));
  }

  /** Works out a board step by step: yields now and then, so that the caller can hand the thread back. */
  static *steps(board: Board): Generator<undefined, Permit> {
    const readings = new ThreatReadings(board);
    const choices = yield* clearingChoices(readings);
    return new Permit(readings, choices);
  }

  /** Works out a board at once. */
  static of(board: Board): Permit {
    return atOnce(Permit.steps(board));
  }

  /**
   * Judges the permit after readings in the order taken, of this board as it is now.
   *
   * diagnoser  adds the odds: where a supply short keeps more than 5 % it stays shut. findings: what was seen on the board.
   */
  judge(taken: readonly PresentReading[], diagnoser?: Diagnoser, findings: readonly Finding[] = []): PowerPermit {
    const known = taken.filter((r) => this.readings.knows(r));
    const sure = known.filter((r) => r.placeConfirmed !== false);
    // An instrument's small signal says nothing of what a steady current finds.
    const counted = newest(sure.filter(isColdReading));
    const { threats } = this.readings.path;
    const cleared = new Map<number, ColdTaken>();
    for (const r of counted) {
      const healthy = this.readings.healthy(r);
      const changed = new Set([...(r.changed ?? [])].map((net) => this.readings.path.near(net)));
      for (const [i, under] of this.readings.under(r)) {
        const { red, black } = threats[i]!;
        const spent = [red, black].some((net) => changed.has(this.readings.path.near(netKey(net))));
        if (!spent && !cleared.has(i) && rulesOut(r, under, healthy, r.seen)) cleared.set(i, r);
      }
    }
    const { able } = this;
    const left = new Set([...threats.keys()].filter((i) => able.has(i) && !cleared.has(i)));
    const shown = counted.flatMap((r) => this.showsLeak(r));
    const { odds, feedbackOpen } = oddsOf(diagnoser, counted, newest(sure.filter((r) => !isCold(r.mode))));
    const shutBy = [
      ...shown,
      ...notFitted(this.readings.board),
      ...forbidden(findings),
      ...(feedbackOpen ? [feedbackOpen] : []),
      ...(this.choices.length === 0
        ? ['No way of the energy is found on this board: trace it from where power comes in.']
        : []),
    ];
    const reasons = [
      ...shutBy,
      ...(left.size > 0 && shown.length === 0 ? [missing(counted.length, left.size, known.length > sure.length)] : []),
    ];
    // A point may be asked for again where the board was changed since.
    const asked = new Set(counted.flatMap((r) => (r.changed?.size ? [] : [pointKey(r)])));
    const open = this.choices.filter((c) => !asked.has(pointKey(c.point)));
    const clearing = cheapestCover(left, open).map((c) =>
      this.entry(
        c.point,
        [...c.rules].filter((i) => left.has(i)),
      ),
    );
    const more = odds && left.size === 0 && odds.mass > GATE_LIMIT;
    if (more) reasons.push(odds.reason);
    const added = more
      ? odds.clearing.map((p) => ({ ...plain(p), rulesOut: 'what the odds still hold possible' }))
      : [];
    return {
      allowed: reasons.length === 0,
      earnable: reasons.length > 0 && shutBy.length === 0,
      reasons,
      restsOn: this.support(cleared),
      clearing: [...clearing, ...added],
      unseen: this.unseen(able),
      mass: odds?.mass ?? 0,
    };
  }

  /** The readings without which something would not be ruled out, each with what it rules out. */
  private support(cleared: ReadonlyMap<number, ColdTaken>): readonly PermitReading[] {
    const by = new Map<ColdTaken, number[]>();
    for (const [i, r] of cleared) by.set(r, [...(by.get(r) ?? []), i]);
    return [...by].map(([r, list]) => this.entry(r, list));
  }

  private entry(point: ColdPoint, threats: readonly number[]): PermitReading {
    return { ...plain(point), rulesOut: this.words(threats) };
  }

  /** Threats in words: the parts that sit across them, else the nets. */
  private words(numbers: readonly number[]): string {
    const { path } = this.readings;
    const refs = new Set<string>();
    const pairs: string[] = [];
    let barrier = false;
    for (const i of numbers) {
      const { kind, red, black } = path.threats[i]!;
      if (kind === 'barrier') {
        barrier = true;
        continue;
      }
      const across = this.across(i);
      for (const ref of across) refs.add(ref);
      if (across.length === 0) pairs.push(`${red} to ${black}`);
    }
    const named = [...refs].slice(0, 6);
    const what =
      named.length > 0
        ? `a short at ${listed(named, refs.size)}`
        : pairs.length > 0
          ? `a short ${listed(pairs.slice(0, 2), pairs.length)}`
          : '';
    return [barrier ? 'a leak across the barrier' : '', what].filter((w) => w !== '').join(', ');
  }

  /** The fitted parts that sit across a threat. */
  private across(i: number): readonly string[] {
    const known = this.acrossThreat.get(i);
    if (known) return known;
    const { board, path } = this.readings;
    const ends = [path.threats[i]!.red, path.threats[i]!.black].map(netKey);
    const made = board.parts.flatMap((p) =>
      p.fitted && p.kind !== 'connector' && ends.every((n) => p.nets.some((m) => netKey(m) === n)) ? [p.ref] : [],
    );
    this.acrossThreat.set(i, made);
    return made;
  }

  /** What a reading shows that forbids power, if anything. */
  private showsLeak(r: ColdTaken): readonly string[] {
    if (r.seen.kind !== 'figure') return [];
    const { path } = this.readings;
    const at = (net: string): number => path.poles.findIndex((p) => p.nets.has(netKey(net)));
    const told = `${r.red} to ${r.black} read ${r.mode === 'diode' ? formatVolts(r.seen.value) : formatQuantity(r.seen.value, 'ohm')}`;
    const across = path.islandOf.get(netKey(r.red)) !== path.islandOf.get(netKey(r.black));
    const healthy = this.readings.healthy(r);
    if (across && r.mode !== 'diode') {
      const limit = healthy.overload > 0.5 ? BARRIER_OHMS : Math.min(BARRIER_OHMS, 0.9 * Math.exp(healthy.mean));
      return r.seen.value < limit ? [`${told}: it lies across the barrier, where at least 1 MΩ belongs.`] : [];
    }
    if (across && r.mode === 'diode')
      return healthy.overload > 0.9 ? [`${told}: it lies across the barrier, where nothing should conduct.`] : [];
    const [p, q] = [at(r.red), at(r.black)];
    if (p < 0 || q < 0 || p === q || !belowHealthy(r, healthy, r.seen)) return [];
    const volts = Math.max(1, ...path.threats.map((t) => t.volts));
    const limit = Math.min(LEAK_UP_TO_OHMS[r.mode], Math.max(LEAK_FROM_OHMS, volts ** 2 / LEAK_WATTS));
    const ohms = r.mode === 'diode' ? r.seen.value / 1e-3 : r.seen.value;
    return ohms < limit ? [`${told}, lower than a healthy board: a short or leak where power goes.`] : [];
  }

  private unseen(able: ReadonlySet<number>): readonly string[] {
    const list = this.readings.path.threats.filter((_, i) => !able.has(i));
    return [...new Set(list.map((t) => `${t.red} to ${t.black}`))];
  }
}

const plain = ({ mode, red, black }: ColdPoint): ColdPoint => ({ mode, red, black });

function listed(words: readonly string[], of: number): string {
  return `${words.join(', ')}${of > words.length ? ' …' : ''}`;
}

/** What the odds say about power, by the meter alone and with what other instruments showed: the worse of each. */
function oddsOf(
  diagnoser: Diagnoser | undefined,
  cold: readonly PresentReading[],
  signals: readonly PresentReading[],
): { readonly odds: SupplyShorts | null; readonly feedbackOpen: string | null } {
  if (!diagnoser) return { odds: null, feedbackOpen: null };
  const plain = new SupplyShorts(diagnoser, cold);
  if (signals.length === 0) return { odds: plain, feedbackOpen: plain.feedbackOpen };
  const told = new SupplyShorts(diagnoser, [...cold, ...signals]);
  return { odds: told.mass > plain.mass ? told : plain, feedbackOpen: plain.feedbackOpen ?? told.feedbackOpen };
}

function isColdReading(r: PresentReading): r is PresentReading & ColdPoint {
  return isCold(r.mode);
}

/** The last reading at each point. */
function newest<R extends PresentReading>(readings: readonly R[]): readonly R[] {
  return [...new Map(readings.map((r) => [pointKey(r), r])).values()];
}

function missing(readings: number, left: number, assumed: boolean): string {
  if (assumed && readings === 0)
    return 'What was read so far was read where the places are only assumed: that earns nothing. Say in Trace what is there, then read it again.';
  const what = left === 1 ? 'one short or leak that matters is' : `${left} shorts or leaks that matter are`;
  return readings === 0
    ? 'Nothing has been read yet: a permit is earned by readings.'
    : `By the readings so far ${what} not ruled out.`;
}

/** A switch or a part of the feedback that is not fitted, with no other in its place. */
function notFitted(board: Board): readonly string[] {
  return board.parts.flatMap((part) => {
    const feedback = part.kind === 'opto' || part.kind === 'shunt-reference';
    const own = switchedNets(part);
    if (part.fitted || !(feedback || part.kind === 'mosfet')) return [];
    const twin = board.parts.some(
      (p) =>
        p.fitted &&
        p.kind === part.kind &&
        (own ? switchedNets(p)?.join() === own.join() : p.nets.map(netKey).join() === part.nets.map(netKey).join()),
    );
    return twin
      ? []
      : [`${part.ref} is not fitted: without ${feedback ? 'its feedback' : 'the switch'} it must not be powered.`];
  });
}

function forbidden(findings: readonly Finding[]): readonly string[] {
  return findings
    .filter((f) => f.severity === 'danger')
    .map((f) => `${f.words}${f.place === '' ? '' : ` (${f.place})`}: not to be powered until it is put right.`);
}
