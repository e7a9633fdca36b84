import { findPart, netKey } from '../circuit';
import { isElectrolytic, partFigure, sheetFact, SHEET_FACTS, PART_FIGURES } from '../part';
import type { Board } from '../circuit';
import type { Part, SheetFact } from '../part';
import { operatingPoint, printedOutputs, supplyOf } from '../operate';
import type { OperatingPoint } from '../operate';
import { formatQuantity, weakestBasis } from '../quantity';
import type { Basis, Unit } from '../quantity';
import { energyStores } from '../safety';
import { junctionDrop } from '../stages';

/**
 * One figure that a board knows and a sum can use.
 *
 * key    names it as long as the board has it: `C1.value`, `OUT+.volts`, `U1.fbRef`.
 * ref, net  where it belongs, for picking on the schematic.
 * rank   the lower, the sooner it is offered among those of its unit.
 */
export interface Figure {
  readonly key: string;
  readonly ref: string | null;
  readonly net: string | null;
  readonly words: string;
  readonly unit: Unit;
  readonly value: number;
  readonly basis: Basis;
  readonly why: string;
  readonly rank: number;
}

const RATINGS = [
  ['ratedVolts', 'rated volts'],
  ['ratedAmps', 'rated amps'],
  ['ratedWatts', 'rated watts'],
  ['seriesOhms', 'ESR'],
  ['windingOhms', 'winding resistance'],
  ['transferRatio', 'transfer ratio'],
  ['referenceVolts', 'reference'],
  ['tolerance', 'tolerance'],
] as const;

const VALUE_WORDS = { resistor: 'resistance', capacitor: 'capacitance', inductor: 'inductance' } as const;
const VALUE_UNITS = { resistor: 'ohm', capacitor: 'F', inductor: 'H' } as const;

/** Every figure of a board: values and ratings of its parts, data-sheet facts, the nameplate, what stores may hold, rails at work. */
export function boardFigures(board: Board): readonly Figure[] {
  const point = operatingPoint(board);
  const known = figuresOf.get(point);
  if (known) return known;
  const figures = [
    ...storeFigures(board),
    ...plateFigures(board),
    ...workFigures(point),
    ...partFigures(board),
    ...turnFigures(board),
  ];
  const once = [...new Map(figures.map((f) => [f.key.toLowerCase(), f])).values()].sort((a, b) => a.rank - b.rank);
  figuresOf.set(point, once);
  return once;
}

/** A board never changes: its figures are kept as long as what is known of its volts. */
const figuresOf = new WeakMap<OperatingPoint, readonly Figure[]>();

/** End of the keys of what stands on rails at work. */
const WORK = '.work';

/** What the engine of the unit under power found on its rails. */
function workFigures(point: OperatingPoint): readonly Figure[] {
  return point.computed.map(({ red, black, nominal, why }) => ({
    key: `${red}${WORK}`,
    ref: null,
    net: red,
    words: `${red} at work, against ${black}`,
    unit: 'V' as const,
    value: nominal,
    basis: 'assumed' as const,
    why,
    rank: 27,
  }));
}

/** The figure with this key, or undefined where the board has it no more. Keys are compared without case. */
export function figureOf(board: Board, key: string): Figure | undefined {
  const wanted = key.toLowerCase();
  return boardFigures(board).find((f) => f.key.toLowerCase() === wanted);
}

/** The more energy, the sooner it is offered: 1 J stands at 33, a microjoule at 39. */
function energyRank(joules: number): number {
  return 33 - Math.max(-6, Math.min(3, Math.log10(joules)));
}

function storeFigures(board: Board): readonly Figure[] {
  return energyStores(board).flatMap((store, i) => [
    {
      key: `${store.refs[0]}.store`,
      ref: store.refs[0]!,
      net: store.plus,
      words: `what may stand on ${store.refs[0]}`,
      unit: 'V' as const,
      value: store.volts.nominal,
      basis: store.volts.basis,
      why: store.volts.why,
      rank: 10 + i,
    },
    ...(store.refs.length > 1
      ? [
          {
            key: `${store.refs[0]}.bank`,
            ref: store.refs[0]!,
            net: store.plus,
            words: `${store.refs.join(', ')} together`,
            unit: 'F' as const,
            value: store.farads,
            basis: weakestBasis(store.refs.map((ref) => findPart(board, ref)!.basis)),
            why: `${store.refs.length} capacitors on one pair of rails`,
            rank: energyRank(store.joules) + 0.5,
          },
        ]
      : []),
  ]);
}

function plateFigures(board: Board): readonly Figure[] {
  const supply = supplyOf(board);
  const figures: Figure[] = [];
  const add = (
    key: string,
    words: string,
    unit: Unit,
    value: number | null,
    net: string | null,
    rank: number,
  ): void => {
    if (value !== null && value > 0)
      figures.push({ key, ref: null, net, words, unit, value, basis: 'seen', why: 'printed on the nameplate', rank });
  };
  add('input.nominal', 'nominal input', 'V', supply.nominal, supply.rail, 20);
  const printed = supply.highestBasis === 'seen' ? supply.highest : null;
  add('input.max', 'highest input', 'V', printed, supply.rail, 21);
  add('input.min', 'lowest input', 'V', supply.lowest, supply.rail, 22);
  add('input.hertz', 'mains frequency', 'Hz', supply.hertz, null, 20);
  printedOutputs(board).forEach((o, i) => {
    add(`${o.name}.volts`, `${o.name}, printed volts`, 'V', o.volts, o.rail, 25 + i);
    add(`${o.name}.amps`, `${o.name}, printed amps`, 'A', o.amps, o.rail, 20 + i);
    add(`${o.name}.watts`, `${o.name}, printed watts`, 'W', o.watts, o.rail, 20 + i);
  });
  return figures;
}

function partFigures(board: Board): readonly Figure[] {
  return board.parts
    .filter((p) => p.fitted)
    .flatMap((part) => [...ownFigures(board, part), ...sheetFigures(board, part)]);
}

function ownFigures(board: Board, part: Part): readonly Figure[] {
  const figures: Figure[] = [];
  const add = (key: string, words: string, unit: Unit, value: number, why: string, rank: number): void => {
    figures.push({
      key: `${part.ref}.${key}`,
      ref: part.ref,
      net: null,
      words: `${part.ref}, ${words}`,
      unit,
      value,
      basis: part.basis,
      why,
      rank,
    });
  };
  if (part.kind === 'resistor' || part.kind === 'capacitor' || part.kind === 'inductor') {
    // The capacitors that hold most are what one asks about; other parts stand in the order of the board.
    const joules =
      part.kind === 'capacitor' && isElectrolytic(part)
        ? (part.value * (partFigure(part, 'ratedVolts') ?? 16) ** 2) / 2
        : 0;
    add(
      'value',
      VALUE_WORDS[part.kind],
      VALUE_UNITS[part.kind],
      part.value,
      part.basis === 'assumed' ? 'assumed' : 'read off the part',
      joules > 0 ? energyRank(joules) : 40,
    );
  }
  if (part.kind === 'diode') add('drop', 'drop at 1 mA', 'V', junctionDrop(board, part), 'its junction', 60);
  for (const [figure, words] of RATINGS) {
    const { key, unit } = PART_FIGURES[figure];
    const value = partFigure(part, figure);
    if (value !== undefined && value > 0)
      add(key, words, unit, value, key === 'tol' ? 'its tolerance' : 'printed or known', 70);
  }
  return figures;
}

function sheetFigures(board: Board, part: Part): readonly Figure[] {
  return (Object.keys(SHEET_FACTS) as SheetFact[]).flatMap((key) => {
    const value = sheetFact(board.facts, part.ref, key);
    const known = SHEET_FACTS[key];
    return value !== undefined
      ? [
          {
            key: `${part.ref}.${key}`,
            ref: part.ref,
            net: null,
            words: `${part.ref}, ${known[0]}`,
            unit: known[1],
            value,
            basis: 'confirmed' as const,
            why: 'data sheet',
            rank: 30,
          },
        ]
      : [];
  });
}

/** Turns ratios between windings of one core, either way round, from their inductances. */
function turnFigures(board: Board): readonly Figure[] {
  return board.couplings.flatMap((k) => {
    const [a, b] = [findPart(board, k.first), findPart(board, k.second)];
    if (a?.kind !== 'inductor' || b?.kind !== 'inductor' || a.value <= 0 || b.value <= 0) return [];
    const basis = weakestBasis([a.basis, b.basis]);
    return (
      [
        [a, b],
        [b, a],
      ] as const
    ).map(([over, under]) => ({
      key: `${over.ref}/${under.ref}.turns`,
      ref: over.ref,
      net: null,
      words: `${over.ref} over ${under.ref}, turns`,
      unit: '1' as const,
      value: Math.sqrt(over.value / under.value),
      basis,
      why: `√(${formatQuantity(over.value, 'H')} / ${formatQuantity(under.value, 'H')})`,
      rank: 20,
    }));
  });
}

/** Whether a figure is one that the engine of the unit under power has not worked out yet. */
export function isPending(board: Board, key: string): boolean {
  return key.toLowerCase().endsWith(WORK) && operatingPoint(board).computed.length === 0;
}

/** The figures of one unit that hang on a picked part or net, or all of that unit; best first. */
export function figuresFor(
  board: Board,
  unit: Unit,
  picked?: { readonly ref?: string; readonly net?: string },
): readonly Figure[] {
  return boardFigures(board).filter((f) => {
    if (f.unit !== unit) return false;
    if (picked?.ref !== undefined) return f.ref?.toLowerCase() === picked.ref.toLowerCase();
    if (picked?.net !== undefined) return f.net !== null && netKey(f.net) === netKey(picked.net);
    return true;
  });
}
