import { netKey, pinIndex } from '../circuit';
import type { Board } from '../circuit';
import { partFigure, sheetFact } from '../part';
import type { Part } from '../part';
import { formatQuantity } from '../quantity';
import type { Basis } from '../quantity';
import { findPowerPath, rails, recogniseStages } from '../stages';
import { dividerOutput, runOne } from '../sums';
import { findDividers } from './dividers';
import type { Divider } from './dividers';
import { furtherSupplies, printedOutputs, supplyOf } from './supply';
import type { PrintedRail } from './supply';
import type { Conditions, Statement } from './volts';

/** A meter's own share of a reading of volts. */
const METER_SHARE = 0.005;
/** How exactly a reference and a regulator hold, where nothing is noted. */
const REFERENCE_TOLERANCE = 0.02;
const REGULATOR_TOLERANCE = 0.04;
/** How exactly an output keeps to its print. */
const PRINT_TOLERANCE = 0.05;
/** Between its peaks and under load a bus behind a rectifier sags to this share of its peak. */
const BUS_SAG = 0.8;

/** All that is known of the volts of a board at work, best source first. */
export function statementsOf(board: Board, conditions: Conditions): readonly Statement[] {
  const at = (net: string): ReadonlySet<string> => rails(board).at(net);
  return [
    ...(conditions.measured ?? []).map((m): Statement => {
      const off = METER_SHARE * Math.abs(m.volts);
      return {
        plus: at(m.red),
        minus: at(m.black),
        nominal: m.volts,
        low: m.volts - off,
        high: m.volts + off,
        alternating: false,
        source: 'measured',
        basis: 'measured',
        why: `${formatQuantity(m.volts, 'V', 4)} were read there`,
      };
    }),
    ...(conditions.computed ?? []).map(({ red, black, nominal, low, high, why }): Statement => ({
      plus: at(red),
      minus: at(black),
      nominal,
      low,
      high,
      alternating: false,
      source: 'computed',
      basis: 'assumed',
      why,
    })),
    ...regulatedRails(board, at),
    ...printedRails(board, at),
    ...suppliedRails(board, conditions, at),
  ];
}

type At = (net: string) => ReadonlySet<string>;

/** What dividers, references, regulators and the inner regulators of controllers hold. */
function regulatedRails(board: Board, at: At): readonly Statement[] {
  const held = (
    plus: string,
    minus: string,
    volts: number,
    tolerance: number,
    why: string,
    basis: Basis = 'confirmed',
  ): Statement => ({
    plus: at(plus),
    minus: at(minus),
    nominal: volts,
    low: volts * (1 - tolerance),
    high: volts * (1 + tolerance),
    alternating: false,
    source: 'regulated',
    basis,
    why,
  });
  const divided = findDividers(board).flatMap((d) => dividedRail(d, at) ?? []);
  const parts = board.parts.flatMap((part): readonly Statement[] => {
    if (!part.fitted) return [];
    if (part.kind === 'regulator') {
      const volts = sheetFact(board.facts, part.ref, 'vOut');
      const [, ground, out] = part.nets;
      return volts === undefined
        ? []
        : [held(out!, ground!, volts, REGULATOR_TOLERANCE, `${part.ref} gives ${formatQuantity(volts, 'V')}`)];
    }
    if (part.kind !== 'shunt-reference') return [];
    const [tap, anode, cathode] = part.nets;
    const volts = partFigure(part, 'referenceVolts') ?? sheetFact(board.facts, part.ref, 'vRef');
    return volts === undefined || netKey(tap!) !== netKey(cathode!)
      ? []
      : [held(cathode!, anode!, volts, REFERENCE_TOLERANCE, `${part.ref} holds ${formatQuantity(volts, 'V')}`)];
  });
  const controllers = Object.entries(recogniseStages(board).pins).flatMap(([ref, pins]) => {
    const part = board.parts.find((p) => p.ref === ref);
    const net = (role: string): string | undefined => {
      const pin = pins.find((p) => p.role === role)?.pin;
      return part && pin !== undefined ? part.nets[pinIndex(board, part, pin)] : undefined;
    };
    const ground = net('GND');
    return (
      [
        ['VCC', 'vccOut'],
        ['VOUT', 'vOut'],
      ] as const
    ).flatMap(([role, fact]) => {
      const [rail, volts] = [net(role), sheetFact(board.facts, ref, fact)];
      return rail === undefined || ground === undefined || volts === undefined
        ? []
        : [
            held(
              rail,
              ground,
              volts,
              REGULATOR_TOLERANCE,
              `${ref} holds ${formatQuantity(volts, 'V')} at its ${role}`,
              'seen',
            ),
          ];
    });
  });
  return [...divided, ...parts, ...controllers];
}

/** The rail that a divider and its reference hold; null where its reference is only what the print implies. */
function dividedRail(d: Divider, at: At): Statement | null {
  if (d.vRef === null || d.implied) return null;
  const sum = runOne(dividerOutput, {
    vRef: d.vRef,
    rTop: d.rTop,
    rBottom: d.rBottom,
    tolRef: REFERENCE_TOLERANCE,
    tolTop: loosest(d.top),
    tolBottom: loosest(d.bottom),
  });
  if (!sum.ok) return null;
  const { vMin, vOut, vMax } = sum.value.results as Record<string, number>;
  const legs = (parts: readonly Part[]): string => parts.map((p) => p.ref).join('∥');
  return {
    plus: at(d.rail),
    minus: at(d.return),
    nominal: vOut!,
    low: vMin!,
    high: vMax!,
    alternating: false,
    source: 'regulated',
    // Which pin senses is recognised, not said.
    basis: 'seen',
    why: `${formatQuantity(vOut!, 'V')} = ${formatQuantity(d.vRef, 'V')} x (1 + ${formatQuantity(d.rTop, 'ohm')} / ${formatQuantity(d.rBottom, 'ohm')}), ${legs(d.top)} over ${legs(d.bottom)}, ${d.vRefFrom}`,
  };
}

/** The widest tolerance of the resistors of one leg; 5 % where none is noted, at least 1 %. */
export function loosest(parts: readonly Part[]): number {
  return Math.max(0.01, ...parts.map((p) => partFigure(p, 'tolerance') ?? 0.05));
}

/** Outputs and further supplies as the nameplate prints them. */
function printedRails(board: Board, at: At): readonly Statement[] {
  return [...printedOutputs(board), ...furtherSupplies(board)].flatMap((o: PrintedRail): readonly Statement[] => {
    if (o.rail === null || o.return === null || o.volts <= 0) return [];
    const alternating = o.kind === 'ac';
    const high = alternating ? o.volts * (1 + PRINT_TOLERANCE) : Math.max(o.volts * (1 + PRINT_TOLERANCE), o.peak);
    return [
      {
        plus: at(o.rail),
        minus: at(o.return),
        nominal: o.volts,
        low: o.volts * (1 - PRINT_TOLERANCE),
        high,
        alternating,
        source: 'nameplate',
        basis: 'seen',
        why: `${formatQuantity(o.volts, 'V')} by the nameplate`,
      },
    ];
  });
}

/** The inlet itself and, on mains, the bus behind its rectifier. */
function suppliedRails(board: Board, conditions: Conditions, at: At): readonly Statement[] {
  const supply = supplyOf(board);
  const nominal = conditions.source ?? supply.nominal ?? supply.highest;
  if (nominal === null || supply.rail === null || supply.return === null) return [];
  const low = conditions.source ?? supply.lowest ?? nominal;
  const high = conditions.source ?? supply.highest ?? nominal;
  const mains = supply.kind === 'mains';
  const said = conditions.source === undefined ? `${nominal} V by the nameplate` : `fed with ${conditions.source} V`;
  const inlet: Statement = {
    plus: at(supply.rail),
    minus: at(supply.return),
    nominal,
    low,
    high,
    alternating: mains,
    source: 'nameplate',
    basis: 'seen',
    why: mains ? `${said}, rms` : said,
  };
  if (!mains) return [inlet];
  const [bus] = findPowerPath(board).buses;
  if (!bus || bus.plus === null || bus.minus === null) return [inlet];
  return [
    inlet,
    {
      plus: at(bus.plus),
      minus: at(bus.minus),
      nominal: Math.SQRT2 * nominal,
      low: BUS_SAG * Math.SQRT2 * low,
      high: Math.SQRT2 * high,
      alternating: false,
      source: 'nameplate',
      basis: 'seen',
      why: `${Math.round(Math.SQRT2 * nominal)} V = ${nominal} V x 1.414, the peak behind the rectifier`,
    },
  ];
}
