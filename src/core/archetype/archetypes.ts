import type { Board, Nameplate } from '../circuit';
import { assumeAll, readNetlist } from '../netlist';
import { invariant } from '../problem';
import { BUCK_TEXT } from './buckText';
import { FLYBACK_TEXT } from './flybackText';

/** A generic board of one topology, all values assumed, to start a job from. On screen: a typical circuit. */
export interface Archetype {
  readonly name: string;
  readonly title: string;
  readonly describes: string;
  readonly netlist: string;
  /** The nets that a nameplate's figures belong to. */
  readonly nameplate: Nameplate;
}

export const ARCHETYPES: readonly Archetype[] = [
  {
    name: 'flyback-opto',
    title: 'Offline flyback with opto feedback',
    describes: 'mains in, one isolated output, optocoupler and shunt reference',
    netlist: FLYBACK_TEXT,
    nameplate: {
      source: 'mains',
      inputRail: 'L',
      inputReturn: 'N',
      inputMin: 90,
      inputNominal: 230,
      inputMax: 264,
      hertz: 50,
      outputs: [{ rail: 'OUT+', return: 'OUT-', volts: 24, amps: 2.5, kind: 'dc' }],
    },
  },
  {
    name: 'buck-module',
    title: 'Buck module',
    describes: 'low-voltage DC in, one lower output, no isolation',
    netlist: BUCK_TEXT,
    nameplate: {
      source: 'dc',
      inputRail: 'VIN+',
      inputReturn: 'GND',
      inputMin: 7,
      inputNominal: 12,
      inputMax: 30,
      hertz: 0,
      outputs: [{ rail: 'OUT+', return: 'GND', volts: 5, amps: 2, kind: 'dc' }],
    },
  },
];

/** The board of a typical circuit, every part assumed; null when there is none of that name. */
export function archetypeBoard(name: string): Board | null {
  const archetype = ARCHETYPES.find((a) => a.name === name);
  if (!archetype) return null;
  const read = readNetlist(archetype.netlist);
  invariant(read.ok, `typical circuit ${name} reads`);
  return { ...assumeAll(read.value.board), nameplate: archetype.nameplate };
}
