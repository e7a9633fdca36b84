import { isFuse, partFigure } from '../part';
import type { UnitUnderPower } from './unit';

/** A fuse that cannot last: what flows through it and what it is made for, ampere. */
export interface Overload {
  readonly ref: string;
  readonly amps: number;
  readonly rating: number;
}

/** Times its rating that a fuse goes soon rather than late. */
const BLOWS = 1.9;
/** Times its watts at which a fusible resistor opens. */
const BURNS = 12;

/** The fuse that is furthest beyond what it can carry in a solution; null where every one holds. */
export function overloadedFuse(unit: UnitUnderPower, x: Float64Array): Overload | null {
  let worst: Overload | null = null;
  for (const part of unit.plan.board.parts) {
    if (!part.fitted || !isFuse(part)) continue;
    const [a, b] = unit.pinsOf(part.ref) as [number, number];
    const own = unit.circuit.devices.find((d) => d.name === part.ref && d.model.kind === 'resistor');
    if (!own) continue;
    const ohms = Math.max(unit.circuit.parameters[own.at]!, 1e-3);
    const amps = unit.line?.wayAmps(own) ?? Math.abs(x[a]! - x[b]!) / ohms;
    const watts = partFigure(part, 'ratedWatts');
    const rated = partFigure(part, 'ratedAmps');
    const rating =
      part.kind === 'fuse' ? rated : watts === undefined ? rated : Math.sqrt((BURNS * watts) / ohms) / BLOWS;
    if (rating === undefined || amps <= BLOWS * rating) continue;
    if (!worst || amps / rating > worst.amps / worst.rating) worst = { ref: part.ref, amps, rating };
  }
  return worst;
}
