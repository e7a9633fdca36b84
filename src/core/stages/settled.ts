import { partText } from '../part';
import type { Part } from '../part';
import { TOPOLOGIES, branchesOf } from './converter';
import type { Converter, Topology } from './converter';
import { PIN_ROLES } from './pinScene';
import type { PinRole } from './pinScene';

/** The topology that someone set for a converter at one of its parts, or null. */
export function settledTopology(c: Pick<Converter, 'transistors' | 'ics' | 'coils'>): Topology | null {
  const said = branchesOf(c).flatMap((b) => b.parts.map((p) => partText(p, 'topology')));
  return TOPOLOGIES.find((t) => said.includes(t)) ?? null;
}

/** The role that someone set for a pin, by its number, or null. */
export function settledRole(part: Part, pin: number): PinRole | null {
  const said = partText(part, `role${pin}`);
  return PIN_ROLES.find((r) => r === said) ?? null;
}
