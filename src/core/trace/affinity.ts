import { ARCHETYPES, archetypeBoard } from '../archetype';
import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { NET_CLASSES, netClass } from './netClass';
import type { NetClass } from './netClass';
import { pinType } from './pinType';

interface CountedPin {
  readonly part: number;
  readonly net: string;
  readonly type: string;
}

/**
 * What pins of each type tend to be joined to, counted over boards whose nets are known.
 *
 * Two tables: how often pins of two types share a net, and on what class of net a pin of a type sits, given the class
 * of the net that the rest of its part sits on. Both as logarithms of the ratio to chance, smoothed by a few counts.
 */
export class Affinity {
  private readonly pairs = new Table();
  private readonly places = new Table();
  private readonly classShare: Readonly<Record<NetClass, number>>;
  private readonly base: number;

  constructor(boards: readonly Board[]) {
    const classes: NetClass[] = [];
    let [shared, all] = [0, 0];
    for (const board of boards) {
      const pins = countedPins(board);
      const nets = new Map<string, CountedPin[]>();
      for (const p of pins) nets.set(p.net, [...(nets.get(p.net) ?? []), p]);
      const classOf = (net: string, without?: CountedPin): NetClass =>
        netClass(
          new Set(
            nets
              .get(net)!
              .filter((p) => p !== without)
              .map((p) => p.type),
          ),
        );
      pins.forEach((p, i) => {
        for (const q of pins.slice(i + 1)) {
          const own = p.part === q.part;
          if (own && board.parts[p.part]!.nets.length === 2) continue;
          this.pairs.count(`${own ? 'own ' : ''}${pairKey(p.type, q.type)}`, p.net === q.net);
          shared += p.net === q.net ? 1 : 0;
          all++;
        }
        const own = classOf(p.net, p);
        classes.push(own);
        const context = strongest(pins.filter((q) => q.part === p.part && q !== p).map((q) => classOf(q.net, q)));
        for (const name of NET_CLASSES) {
          this.places.count(`${p.type}|${context}|${name}`, name === own);
          this.places.count(`${p.type}|${name}`, name === own);
        }
      });
    }
    this.base = shared / Math.max(1, all);
    this.classShare = Object.fromEntries(
      NET_CLASSES.map((name) => [
        name,
        (classes.filter((c) => c === name).length + 1) / (classes.length + NET_CLASSES.length),
      ]),
    ) as Record<NetClass, number>;
  }

  /** For two pins by their types: ln of the odds of sharing a net to the odds of any two pins. */
  lift(a: string, b: string, samePart = false): number {
    return Math.log(this.pairs.rate(`${samePart ? 'own ' : ''}${pairKey(a, b)}`, this.base, 4) / this.base);
  }

  /** For a pin whose part's other end sits on a net of class `context`: ln of the ratio for each class of net. */
  placeLifts(type: string, context: NetClass): Float64Array {
    return Float64Array.from(NET_CLASSES, (name) => {
      const share = this.classShare[name];
      const broad = this.places.rate(`${type}|${name}`, share, 3);
      return Math.log(this.places.rate(`${type}|${context}|${name}`, broad, 2) / share);
    });
  }
}

/** Of several classes the most telling: the first in the list of classes. */
export function strongest(classes: readonly NetClass[]): NetClass {
  return NET_CLASSES.find((c) => classes.includes(c)) ?? 'none';
}

function countedPins(board: Board): readonly CountedPin[] {
  return board.parts.flatMap((part, index) =>
    part.nets.flatMap((net, i) =>
      netKey(net) === 'nc' ? [] : [{ part: index, net: netKey(net), type: pinType(board, part, i) }],
    ),
  );
}

/** Counts of yes among all, by key. */
class Table {
  private readonly yes = new Map<string, number>();
  private readonly all = new Map<string, number>();

  count(key: string, yes: boolean): void {
    this.all.set(key, (this.all.get(key) ?? 0) + 1);
    if (yes) this.yes.set(key, (this.yes.get(key) ?? 0) + 1);
  }

  rate(key: string, base: number, weight: number): number {
    return ((this.yes.get(key) ?? 0) + weight * base) / ((this.all.get(key) ?? 0) + weight);
  }
}

function pairKey(a: string, b: string): string {
  return a < b ? `${a}|${b}` : `${b}|${a}`;
}

let typical: Affinity | null = null;

/** The affinity of the typical circuits, counted at its first use. */
export function typicalAffinity(): Affinity {
  typical ??= new Affinity(ARCHETYPES.map((a) => archetypeBoard(a.name)!));
  return typical;
}
