/** The diode test with one lead resting on a reference: pins that are one net read the same so. */
export interface Reference {
  /** A pin of its net. */
  readonly pin: number;
  /** Whether the red lead rests there and the black one is moved; else the other way round. */
  readonly red: boolean;
}

interface Column extends Reference {
  /** What each group of pins read, volts, by its number; Infinity where the meter showed overload. */
  readonly volts: Map<number, number>;
}

/** One meter reads one place so nearly the same twice: volts, and a share of the figure. */
const SAME_VOLTS = 0.008;
const SAME_SHARE = 0.012;
/** Near the end of its range a meter may show a figure once and overload the next time. */
const LAST_VOLTS = 2.3;

/** Whether two diode tests from one reference may be two readings of one net; NaN for one that could not be taken. */
export function mayBeOneNet(a: number, b: number): boolean {
  if (Number.isNaN(a) || Number.isNaN(b)) return true;
  const [low, high] = a < b ? [a, b] : [b, a];
  return high === Infinity ? low > LAST_VOLTS : high - low <= SAME_VOLTS + SAME_SHARE * low;
}

/** What groups of pins read by diode test from references: two that read differently are two nets. */
export class ReferenceReadings {
  private readonly columns: Column[] = [];

  get references(): readonly Reference[] {
    return this.columns;
  }

  /** Notes what a group reads from a reference, of which `own` is the group. Gives the groups that it differs from. */
  take(
    reference: Reference,
    own: number,
    group: number,
    volts: number,
    sameNet: (pin: number) => boolean,
  ): readonly number[] {
    let column = this.columns.find((c) => c.red === reference.red && sameNet(c.pin));
    if (!column) {
      column = { ...reference, volts: new Map([[own, 0]]) };
      this.columns.push(column);
    }
    if (column.volts.has(group)) return [];
    column.volts.set(group, volts);
    return differing(column, group);
  }

  /** Whether a group was read from a reference. */
  has(reference: number, group: number): boolean {
    return this.columns[reference]!.volts.has(group);
  }

  volts(reference: number, group: number): number | undefined {
    return this.columns[reference]!.volts.get(group);
  }

  /** Two groups are one now, under the number `keep`. Gives the groups that it differs from by what the other had read. */
  join(keep: number, gone: number): readonly number[] {
    const apart: number[] = [];
    for (const column of this.columns) {
      const told = column.volts.get(gone);
      column.volts.delete(gone);
      if (told === undefined || column.volts.has(keep)) continue;
      column.volts.set(keep, told);
      apart.push(...differing(column, keep));
    }
    return apart;
  }
}

function differing({ volts }: Column, group: number): readonly number[] {
  const own = volts.get(group)!;
  return [...volts].flatMap(([other, v]) => (other !== group && !mayBeOneNet(own, v) ? [other] : []));
}
