import { strongest } from './affinity';
import type { Affinity } from './affinity';
import { ReferenceReadings } from './referenceReadings';
import type { Reference } from './referenceReadings';
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

/** A pin is found by as many checks of pairs as a rule, however many it may be joined to. */
const CHECKS_OF_A_PIN = 5;
/** Groups that may be one net are read from so many references. */
const MOST_REFERENCES = 4;
/** A ground goes before all that is no ground. */
const GROUND_MATES = 1e6;
/** Pins to be found that are on a part of a net read something from there. */
const OWN_PARTS_MATES = 100;
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
  private readonly readings = new ReferenceReadings();
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

  /** Takes in what a pin reads by diode test with the other lead on a reference, volts; Infinity for overload. */
  read(reference: Reference, pin: number, volts: number): void {
    const group = this.group(pin);
    const own = this.group(reference.pin);
    for (const other of this.readings.take(reference, own, group, volts, (p) => this.group(p) === own))
      this.part(group, other);
  }

  /**
   * The pin to read next by diode test from a reference, while that parts more than asking pairs would: first every pin from
   * the net that most pins are likely to be on, then those that may still be one net with many others from another reference.
   */
  nextReading(): { readonly reference: Reference; readonly pin: number } | null {
    const live = this.members.flatMap((m, i) => (m.length > 0 ? [i] : []));
    if (live.length < 2) return null;
    const [first] = this.readings.references;
    if (!first)
      return this.checksLeft(live) > live.length
        ? this.fromReference({ pin: this.likeliest(live), red: true }, live)
        : null;
    const unread = live.filter((g) => !this.readings.has(0, g));
    if (unread.length > 0 && this.checksLeft(live) > unread.length) return this.fromReference(first, unread);
    for (const like of this.unparted(live)) {
      if (this.checksLeft(like) <= like.length) continue;
      const tried = this.readings.references.filter((_, r) => like.some((g) => this.readings.has(r, g))).length;
      // What was begun is gone through.
      for (let r = 1; r < this.readings.references.length; r++) {
        if (this.isAgain(r)) continue;
        const left = like.filter((g) => !this.readings.has(r, g));
        if (left.length > 0 && left.length < like.length) return this.fromReference(this.readings.references[r]!, left);
      }
      if (tried >= MOST_REFERENCES) continue;
      const dark = like.every((g) => this.readings.volts(0, g) === Infinity);
      if (dark) return this.fromReference({ pin: this.likeliest(like), red: true }, like);
    }
    return null;
  }

  /** Whether a reference turned out to be on the net of one before it. */
  private isAgain(r: number): boolean {
    const { pin, red } = this.readings.references[r]!;
    return this.readings.references.slice(0, r).some((e) => e.red === red && this.group(e.pin) === this.group(pin));
  }

  private fromReference(
    reference: Reference,
    groups: readonly number[],
  ): { readonly reference: Reference; readonly pin: number } | null {
    const own = this.group(reference.pin);
    const others = groups.filter((g) => g !== own);
    // Pins that are on no net yet come first.
    const group = others.find((g) => this.isAlone(g)) ?? others[0];
    return group === undefined ? null : { reference, pin: this.members[group]![0]! };
  }

  /** The pin of some groups that is likely to have the most others on its net. */
  private likeliest(groups: readonly number[]): number {
    let best = groups[0]!;
    let most = -1;
    const types = (g: number): ReadonlySet<string> => new Set(this.members[g]!.map((i) => this.pins[i]!.type));
    for (const g of groups) {
      // Ground is known by sight, and much reads something from there.
      let mates = netClass(types(g)) === 'ground' ? GROUND_MATES : 0;
      const parts = new Set(this.members[g]!.map((i) => this.pins[i]!.part));
      for (const part of parts) for (const i of this.ofPart.get(part)!) if (this.isAlone(i)) mates += OWN_PARTS_MATES;
      for (const h of groups)
        if (g !== h && !this.apart[g]!.has(h)) mates += Math.exp(Math.min(this.pairScore(g, h), 4));
      if (mates > most) [best, most] = [g, mates];
    }
    return this.members[best]![0]!;
  }

  private isAlone(pin: number): boolean {
    return this.members[this.group(pin)]!.length === 1;
  }

  /** About how many checks of pairs would settle some groups: a pin alone is soon found, of what has grown every pair is asked. */
  private checksLeft(groups: readonly number[]): number {
    let checks = 0;
    for (const g of groups) {
      const others = groups.filter((h) => h !== g && !this.apart[g]!.has(h));
      checks += this.isAlone(g)
        ? Math.min(others.length / 2, CHECKS_OF_A_PIN)
        : others.filter((h) => !this.isAlone(h)).length / 2;
    }
    return checks;
  }

  /** Groups that hang together by pairs which may still be one net, the largest first. */
  private unparted(live: readonly number[]): readonly (readonly number[])[] {
    const left = new Set(live);
    const sets: number[][] = [];
    for (const start of live) {
      if (!left.delete(start)) continue;
      const set = [start];
      for (const g of set)
        for (const h of [...left].filter((h) => !this.apart[g]!.has(h))) {
          set.push(h);
          left.delete(h);
        }
      sets.push(set);
    }
    return sets.sort((a, b) => b.length - a.length);
  }

  isApart(a: number, b: number): boolean {
    return this.apart[this.group(a)]!.has(this.group(b));
  }

  /** The most promising check: of all pairs of groups not known to be apart the likeliest. */
  next(): Proposal | null {
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
    for (const other of this.readings.join(keep, gone)) this.part(keep, other);
  }

  private part(p: number, q: number): void {
    if (p === q) return;
    this.apart[p]!.add(q);
    this.apart[q]!.add(p);
  }
}
