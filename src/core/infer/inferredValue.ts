import { findPart, netKey, pinsOnNet } from '../circuit';
import type { Board } from '../circuit';
import { partFigure, sheetFact } from '../part';
import type { Part } from '../part';
import { printedOutputs, supplyOf } from '../operate';
import { formatQuantity, nearestPreferred, withMark } from '../quantity';
import { recogniseStages } from '../stages';
import type { StageMap } from '../stages';
import { findTwins } from '../trace';

/** A way to a value where nothing is printed: what it would be, and the derivation with its figures. */
export interface InferredValue {
  readonly value: number;
  readonly why: string;
}

/** Watts in per watt out of a small offline supply. */
const EFFICIENCY = 0.85;
const LONGEST_ON = 0.45;
const USUAL_SENSE_VOLTS = 0.8;
const LAMP_AMPERES = 5e-3;
const LAMP_VOLTS = 2;

/**
 * Ways to get the value of a part that carries no mark: from its twin, and from what the circuit implies. Offered as
 * `assumed`, never more.
 */
export function inferredValues(board: Board, ref: string): readonly InferredValue[] {
  const part = findPart(board, ref);
  if (!part || (part.kind !== 'resistor' && part.kind !== 'capacitor')) return [];
  const map = recogniseStages(board);
  const kind = map.stages.find((s) => s.parts.includes(part.ref))?.kind;
  const found = [...fromTwins(board, part)];
  if (part.kind === 'resistor' && kind === 'current-sense') found.push(...fromPower(board, part, map));
  if (part.kind === 'resistor' && kind === 'indicator') found.push(...fromLamp(board, part));
  if (part.kind === 'resistor' && kind === 'feedback') found.push(...fromDivider(board, part));
  if (part.kind === 'capacitor' && kind === 'bulk') found.push(...fromRipple(board));
  return found;
}

/** A part in the same place on the other side, or in parallel, whose value is known. */
function fromTwins(board: Board, part: Part): readonly InferredValue[] {
  const alike = {
    ...board,
    parts: board.parts.map((p) =>
      p.kind === part.kind && 'value' in p && p.basis === 'assumed' && 'value' in part
        ? { ...p, value: part.value }
        : p,
    ),
  };
  const twins = findTwins(alike).find((t) => t.refs.includes(part.ref))?.refs ?? [];
  const beside = board.parts.filter((p) => p !== part && p.kind === part.kind && sameNets(p, part)).map((p) => p.ref);
  return [...new Set([...twins, ...beside])].flatMap((ref) => {
    const twin = findPart(board, ref);
    if (!twin || twin.ref === part.ref || !('value' in twin) || twin.basis === 'assumed') return [];
    return [
      {
        value: twin.value,
        why: `as its twin ${twin.ref}, which is ${formatQuantity(twin.value, twin.kind === 'capacitor' ? 'F' : 'ohm')}`,
      },
    ];
  });
}

function sameNets(a: Part, b: Part): boolean {
  return [...a.nets].map(netKey).sort().join(' ') === [...b.nets].map(netKey).sort().join(' ');
}

function wattsOut(board: Board): number {
  return printedOutputs(board).reduce((sum, o) => sum + o.volts * o.amps, 0);
}

/** The sense resistor from the power: peak current of a flyback at its lowest input, from I = 2 P / (eta V D). */
function fromPower(board: Board, part: Part, map: StageMap): readonly InferredValue[] {
  const { kind, lowest } = supplyOf(board);
  const watts = wattsOut(board);
  const shunt = map.stages.find((s) => s.parts.includes(part.ref))?.reasons[part.ref]?.includes('into volts');
  // With several converters the watts of each are not known.
  if (!shunt || lowest === null || watts <= 0 || map.topology.includes('+')) return [];
  const rail = kind === 'mains' ? lowest * 1.2 : lowest;
  const amps = (2 * watts) / (EFFICIENCY * rail * LONGEST_ON);
  const limits = Object.keys(board.facts ?? {}).map((ref) => sheetFact(board.facts, ref, 'csMax'));
  const volts = Math.abs(limits.find((v) => v !== undefined) ?? USUAL_SENSE_VOLTS);
  const beside = board.parts.filter((p) => p.kind === 'resistor' && p.fitted && sameNets(p, part)).length;
  const value = nearestPreferred((volts / amps) * beside, 'E12');
  const shared = beside > 1 ? `, shared by ${beside} in parallel` : '';
  return [
    {
      value,
      why: `${volts} V / ${withMark(amps.toPrecision(2))} A${shared}; the peak is 2 x ${watts.toPrecision(3)} W / (${withMark('0.85')} x ${Math.round(rail)} V x ${withMark('0.45')})`,
    },
  ];
}

/** The resistor of a light from the volts of its rail. */
function fromLamp(board: Board, part: Part): readonly InferredValue[] {
  const output = printedOutputs(board).find((o) =>
    part.nets.some((n) => o.rail !== null && netKey(n) === netKey(o.rail)),
  );
  if (!output || output.volts <= LAMP_VOLTS) return [];
  const value = nearestPreferred((output.volts - LAMP_VOLTS) / LAMP_AMPERES, 'E12');
  return [{ value, why: `(${output.volts} V - 2 V of the light) / 5 mA` }];
}

/** One resistor of a divider from the other, the output's volts and the reference. */
function fromDivider(board: Board, part: Part): readonly InferredValue[] {
  for (const output of printedOutputs(board)) {
    if (output.rail === null || output.return === null) continue;
    const upper = part.nets.find((n) => netKey(n) === netKey(output.rail!));
    const tap = part.nets.find((n) => n !== upper);
    if (upper === undefined || tap === undefined) continue;
    const reference = pinsOnNet(board, tap).find((p) => p.part.kind === 'shunt-reference' && p.pin === 0)?.part;
    const lower = board.parts.find(
      (p) =>
        p !== part &&
        p.kind === 'resistor' &&
        p.nets.some((n) => netKey(n) === netKey(tap)) &&
        p.nets.some((n) => netKey(n) === netKey(output.return!)),
    );
    if (!reference || lower?.kind !== 'resistor') continue;
    const volts = partFigure(reference, 'referenceVolts') ?? 2.495;
    return [
      {
        value: nearestPreferred(lower.value * (output.volts / volts - 1), 'E96'),
        why: `${formatQuantity(lower.value, 'ohm')} x (${output.volts} V / ${volts} V - 1)`,
      },
    ];
  }
  return [];
}

/** Storage from the power: 2 µF a watt where 100 V mains is allowed, 1 µF a watt on 230 V alone. */
function fromRipple(board: Board): readonly InferredValue[] {
  const watts = wattsOut(board);
  const { kind, lowest } = supplyOf(board);
  if (watts <= 0 || lowest === null || kind !== 'mains') return [];
  const each = lowest < 150 ? 2e-6 : 1e-6;
  return [
    {
      value: nearestPreferred(watts * each, 'E12'),
      why: `${watts.toPrecision(3)} W x ${lowest < 150 ? 2 : 1} µF a watt for ${lowest} V mains`,
    },
  ];
}
