import type { Leg } from './cells';
import type { Branch } from './partGraph';
import type { Core } from './shapes';
import type { Transistor } from './transistors';

export const TOPOLOGIES = [
  'flyback',
  'forward',
  'two-switch-forward',
  'half-bridge',
  'full-bridge',
  'push-pull',
  'buck',
  'synchronous-buck',
  'boost',
  'boost-pfc',
  'buck-boost',
  'royer',
  'blocking-oscillator',
  'linear',
  'line-frequency-inverter',
  'three-phase-inverter',
  'solid-state-relay',
  'unknown',
] as const;
export type Topology = (typeof TOPOLOGIES)[number];

/**
 * One converter: its topology, switches, the windings they work on, the supply it draws from and the rails it makes.
 */
export interface Converter {
  readonly topology: Topology;
  readonly why: string;
  readonly transistors: readonly Transistor[];
  readonly ics: readonly Branch[];
  readonly legs: readonly Leg[];
  /** Driven windings or the choke. */
  readonly coils: readonly Branch[];
  readonly core: Core | null;
  /** Switching nodes. */
  readonly nodes: readonly string[];
  readonly supply: string;
  readonly outputs: ReadonlySet<string>;
}

export interface SwitchNode {
  readonly net: string;
  readonly leg: Leg | null;
  readonly transistors: readonly Transistor[];
  readonly ics: readonly Branch[];
}

/** Switches, integrated switches and coils of a converter. */
export function branchesOf(c: Pick<Converter, 'transistors' | 'ics' | 'coils'>): readonly Branch[] {
  return [...c.transistors.map((t) => t.branch), ...c.ics, ...c.coils];
}
