import type { Anatomy } from './anatomy';
import type { PowerSwitches } from './cells';
import type { Converter } from './converter';
import type { AmplifierLoop } from './icClasses';
import { railVolts } from './icSupply';
import type { Branch } from './partGraph';
import type { Secondary } from './secondaries';

export const PIN_ROLES = [
  'VCC',
  'GND',
  'GATE',
  'DRAIN',
  'SOURCE',
  'CS',
  'FB',
  'COMP',
  'RT',
  'HV',
  'EN',
  'SW',
  'BST',
  'VIN',
  'VOUT',
  'NC',
  'UNKNOWN',
] as const;
export type PinRole = (typeof PIN_ROLES)[number];

/** One reason for a role: how well it speaks for it, from 0 to 1. */
export interface RoleScore {
  readonly role: PinRole;
  readonly score: number;
  readonly why: string;
}

/** What the rules look at. */
export interface PinScene {
  readonly anatomy: Anatomy;
  readonly switches: PowerSwitches;
  readonly converters: readonly Converter[];
  readonly secondaries: readonly Secondary[];
  readonly ic: Branch;
  /** Nets that a GATE pin drives, of power transistors and drive transformers. */
  readonly gateNets: ReadonlySet<string>;
  readonly outputs: ReadonlySet<string>;
  readonly supplies: ReadonlySet<string>;
  readonly nodes: ReadonlySet<string>;
  readonly loops: readonly AmplifierLoop[];
}

export type Rule = (scene: PinScene, net: string) => readonly RoleScore[];

/** A rail from this printed voltage on is high voltage: what hangs on it is a start-up source or a drain. */
const HIGH_VOLTS = 160;

export const say = (role: PinRole, score: number, why: string): RoleScore => ({ role, score, why });

export function isHigh(a: Anatomy, net: string): boolean {
  return railVolts(a, net) >= HIGH_VOLTS || a.lines.some((l) => l.rectifier.plus === net);
}
