import type { Coupling, LayoutItem, Subcircuit } from '../circuit';
import type { Model, Part } from '../part';
import type { NetlistProblem } from './problems';

/** What has been read of a file so far. */
export interface Draft {
  readonly parts: { part: Part; line: number }[];
  /** Parts inside of .subckts. */
  readonly inner: { part: Part; line: number }[];
  readonly couplings: { coupling: Coupling; line: number }[];
  readonly models: Map<string, Model>;
  readonly subcircuits: Map<string, Subcircuit>;
  readonly layout: LayoutItem[];
  readonly problems: NetlistProblem[];
}
