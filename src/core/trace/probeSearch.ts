import { strongest } from './affinity';
import type { Affinity } from './affinity';
import { NET_CLASSES, netClass } from './netClass';
import type { NetClass } from './netClass';

/** A pin as the search sees it: which part and what type. */
export interface TracePin {
  readonly part: number;
  readonly type: string;
  /** Whether its part has two pins only: they are never on one net. */
  readonly twoPin: boolean;
  /** Ohms of a resistor as marked, null for other parts. */
  readonly ohms: number | null;
}

export type Answer = 'joined' | 'apart';

/** The check proposed next: one representative pin of each of two groups, and how likely they are one net. */
export interface Proposal {
  readonly a: number;
  readonly b: number;
  readonly score: number;
}

/** How much the place of a part's other end counts beside the types of the pins. */
const PLACE_WEIGHT = 0.4;
/** Large groups count more than small ones. */
const SIZE_WEIGHT = 0.35;
/** How much a pair's score gives way to the other things its sides may be joined to. */
const RIVALS_WEIGHT = 0.5;

/**
 * The groups of pins known to be joined, which groups are known to be apart, and the check most likely to join two.
 *
 * A check counts for groups, not pins: what was found apart stays apart when groups grow.
 */
export class ProbeSearch {
  private readonly groupOf: Int32Array;
  private readonly members: number[][];
  private readonly apart: Set<number>[];
  /** Sum of the lifts between the pins of two groups. */
  private readonly sums: Float64Array[];
  private readonly ofPart = new Map<number, number[]>();
  private readonly lifts = new Map<string, Float64Array>();

  constructor(
    private readonly pins: readonly TracePin[],
    private readonly affinity: Affinity,
  ) {
    const n = pins.length;
    this.groupOf = Int32Array.from({ length: n }, (_, i) => i);
    this.members = pins.map((_, i) => [i]);
    this.apart = pins.map(() => new Set());
    this.sums = pins.map((p) => Float64Array.from(pins, (q) => affinity.lift(p.type, q.type, p.part === q.part)));
    pins.forEach((p, i) => this.ofPart.set(p.part, [...(this.ofPart.get(p.part) ?? []), i]));
    for (let i = 0; i < n; i++) {
      for (let j = 0; j < i; j++) if (pins[i]!.part === pins[j]!.part && pins[i]!.twoPin) this.part(i, j);
    }
  }

  /** Group number of a pin. */
  group(pin: number): number {
    return this.groupOf[pin]!;
  }

  /** All groups with their pins. */
  groups(): readonly (readonly number[])[] {
    return this.members.filter((m) => m.length > 0);
  }

  /** Takes a fact in: two pins are on one net, or are not. */
  take(a: number, b: number, answer: Answer): void {
    const [p, q] = [this.group(a), this.group(b)];
    if (p === q) return;
    if (answer === 'apart') this.part(p, q);
    else this.join(p, q);
  }

  /**
   * Reads more out of a figure: when the ohms between two points are those of a marked resistor alone, its ends are
   * here and there. Gives, for each of at most `most` resistors of that value, its end at `a` and its end at `b`
   * (which is which is free while both are unplaced); none where more have that value.
   */
  resistorsBetween(a: number, b: number, ohms: number, most = 4): readonly (readonly [number, number])[] {
    const near = [...this.ofPart.values()].filter(([first]) => {
      const own = this.pins[first!]!.ohms;
      return own !== null && own > 0.3 && Math.abs(ohms / own - 1) < 0.03;
    });
    const fits = (x: number, y: number): boolean => !this.isApart(x, a) && !this.isApart(y, b);
    const placed = near.flatMap((ends): (readonly [number, number])[] => {
      const [p, q] = ends as [number, number];
      return fits(p, q) ? [[p, q]] : fits(q, p) ? [[q, p]] : [];
    });
    return placed.length > most ? [] : placed;
  }

  isApart(a: number, b: number): boolean {
    return this.apart[this.group(a)]!.has(this.group(b));
  }

  /**
   * The most promising check: of all pairs of groups not known to be apart the likeliest, with at least `least` as score.
   * A pin that is still alone is never given up: dangling copper is rare.
   */
  next(least = -Infinity): Proposal | null {
    const live = this.members.flatMap((m, i) => (m.length > 0 ? [i] : []));
    const { classes, means } = this.describe(live);
    const count = live.length;
    const scores = new Float64Array(count * count).fill(-Infinity);
    const weight = new Float64Array(count).fill(1e-3);
    for (let x = 0; x < count; x++) {
      for (let y = 0; y < x; y++) {
        const [p, q] = [live[x]!, live[y]!];
        if (this.apart[p]!.has(q)) continue;
        const place = PLACE_WEIGHT * (means[x]![classes[y]!]! + means[y]![classes[x]!]!);
        const score = this.pairScore(p, q) + place;
        scores[x * count + y] = score;
        weight[x]! += Math.exp(score);
        weight[y]! += Math.exp(score);
      }
    }
    let best: Proposal | null = null;
    let bestValue = -Infinity;
    for (let x = 0; x < count; x++) {
      for (let y = 0; y < x; y++) {
        const score = scores[x * count + y]!;
        if (score === -Infinity) continue;
        const [p, q] = [this.members[live[x]!]!, this.members[live[y]!]!];
        if (score < least && p.length > 1 && q.length > 1) continue;
        // The share that this pair has among all that either side may still join.
        const value = score - RIVALS_WEIGHT * Math.min(Math.log(weight[x]!), Math.log(weight[y]!));
        if (value <= bestValue) continue;
        bestValue = value;
        best = { a: p[0]!, b: q[0]!, score };
      }
    }
    return best;
  }

  /** The class of each live group, and the mean of its pins' lifts for each class of the net they might join. */
  private describe(live: readonly number[]): { readonly classes: Int32Array; readonly means: readonly Float64Array[] } {
    const names = live.map((g) => netClass(new Set(this.members[g]!.map((i) => this.pins[i]!.type))));
    const classOf = new Map(live.map((g, i) => [g, names[i]!]));
    const means = live.map((g) => {
      const mean = new Float64Array(NET_CLASSES.length);
      for (const pin of this.members[g]!) {
        const lifts = this.liftsOf(pin, classOf);
        for (let c = 0; c < mean.length; c++) mean[c]! += lifts[c]! / this.members[g]!.length;
      }
      return mean;
    });
    return { classes: Int32Array.from(names, (name) => NET_CLASSES.indexOf(name)), means };
  }

  private liftsOf(pin: number, classOf: ReadonlyMap<number, NetClass>): Float64Array {
    const { part, type } = this.pins[pin]!;
    const others = this.ofPart.get(part)!.filter((i) => i !== pin && this.members[this.group(i)]!.length > 1);
    const context = strongest(others.map((i) => classOf.get(this.group(i))!));
    const key = `${type}|${context}`;
    let lifts = this.lifts.get(key);
    if (!lifts) {
      lifts = this.affinity.placeLifts(type, context);
      this.lifts.set(key, lifts);
    }
    return lifts;
  }

  /** How likely two groups are one net by the types of their pins alone. */
  private pairScore(p: number, q: number): number {
    const pairs = this.members[p]!.length * this.members[q]!.length;
    return this.sums[p]![q]! / pairs ** 0.5 + SIZE_WEIGHT * Math.log(pairs);
  }

  private join(p: number, q: number): void {
    const [keep, gone] = this.members[p]!.length >= this.members[q]!.length ? [p, q] : [q, p];
    for (const pin of this.members[gone]!) this.groupOf[pin] = keep;
    const [kept, lost] = [this.sums[keep]!, this.sums[gone]!];
    for (let x = 0; x < kept.length; x++) {
      kept[x]! += lost[x]!;
      this.sums[x]![keep] = kept[x]!;
    }
    this.members[keep]!.push(...this.members[gone]!);
    this.members[gone] = [];
    for (const other of this.apart[gone]!) this.part(keep, other);
  }

  private part(p: number, q: number): void {
    if (p === q) return;
    this.apart[p]!.add(q);
    this.apart[q]!.add(p);
  }
}
