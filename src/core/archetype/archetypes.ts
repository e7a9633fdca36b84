import type { Board, Nameplate, NameplateOutput } from '../circuit';
import { assumeAll, readNetlist } from '../netlist';
import { invariant } from '../problem';
import { BUCK_TEXT } from './buckText';
import * as dc from './dcTexts';
import { FLYBACK_TEXT } from './flybackText';
import * as inverter from './inverterTexts';
import * as battery from './batteryTexts';
import * as mains from './mainsTexts';
import * as special from './specialTexts';
import { TYPICAL_FACTS } from './facts';
import { CONTROLLERS, MODELS } from './models';

/** A generic board of one topology, all values assumed, to start a job from. On screen: a typical circuit. */
export interface Archetype {
  readonly name: string;
  readonly title: string;
  readonly describes: string;
  readonly topology: string;
  readonly netlist: string;
  /** The nets that a nameplate's figures belong to. */
  readonly nameplate: Nameplate;
}

const withParts = (text: string): string => `${text}${MODELS}${CONTROLLERS}.end\n`;

const offline = (outputs: readonly NameplateOutput[], inputMin = 198): Nameplate => ({
  source: 'mains',
  inputRail: 'L',
  inputReturn: 'N',
  inputMin,
  inputNominal: 230,
  inputMax: 264,
  hertz: 50,
  outputs,
});

const fed = (
  source: 'dc' | 'battery',
  [rail, back]: readonly [string, string],
  [inputMin, inputNominal, inputMax]: readonly [number, number, number],
  outputs: readonly NameplateOutput[],
): Nameplate => ({ source, inputRail: rail, inputReturn: back, inputMin, inputNominal, inputMax, hertz: 0, outputs });

const dcOut = (rail: string, back: string, volts: number, amps: number): NameplateOutput => ({
  rail,
  return: back,
  volts,
  amps,
  kind: 'dc',
});

export const ARCHETYPES: readonly Archetype[] = [
  {
    name: 'flyback-opto',
    title: 'Offline flyback with opto feedback',
    describes: 'mains in, one isolated output, optocoupler and shunt reference',
    topology: 'flyback',
    netlist: FLYBACK_TEXT,
    nameplate: offline([dcOut('OUT+', 'OUT-', 24, 2.5)], 90),
  },
  {
    name: 'forward',
    title: 'Offline forward supply',
    describes: 'mains in, one switch, output choke behind the rectifier',
    topology: 'forward',
    netlist: withParts(mains.FORWARD_TEXT),
    nameplate: offline([dcOut('OUT+', 'OUT-', 12, 10)]),
  },
  {
    name: 'two-switch-forward',
    title: 'Two-switch forward supply or charger',
    describes: 'mains in, a switch at either end of the winding',
    topology: 'two-switch-forward',
    netlist: withParts(mains.TWO_SWITCH_FORWARD_TEXT),
    nameplate: offline([dcOut('OUT+', 'OUT-', 28.6, 8)]),
  },
  {
    name: 'half-bridge',
    title: 'Half-bridge supply',
    describes: 'mains in, capacitor midpoint, drive transformer',
    topology: 'half-bridge',
    netlist: withParts(mains.HALF_BRIDGE_TEXT),
    nameplate: offline([dcOut('OUT+', 'OUT-', 13.8, 15)]),
  },
  {
    name: 'full-bridge',
    title: 'Full-bridge converter',
    describes: 'high-voltage bus in, four switches, isolated output',
    topology: 'full-bridge',
    netlist: withParts(inverter.FULL_BRIDGE_TEXT),
    nameplate: fed('dc', ['BUS+', 'HV-'], [320, 360, 400], [dcOut('OUT+', 'OUT-', 48, 10)]),
  },
  {
    name: 'push-pull',
    title: 'Push-pull step-up from a battery',
    describes: 'battery in, two banks of switches, high-voltage rail',
    topology: 'push-pull',
    netlist: withParts(inverter.PUSH_PULL_TEXT),
    nameplate: fed('battery', ['BAT+', 'GND'], [10.5, 12, 15], [dcOut('HV+', 'HV-', 360, 1)]),
  },
  {
    name: 'boost-pfc',
    title: 'Boost power-factor front end',
    describes: 'mains in, choke and switch, 390 V bus',
    topology: 'boost-pfc',
    netlist: withParts(mains.BOOST_PFC_TEXT),
    nameplate: {
      ...offline([dcOut('HV+', 'HV-', 390, 1.2)], 90),
      auxInputs: [{ rail: 'VCC', return: 'HV-', volts: 15 }],
    },
  },
  {
    name: 'buck-module',
    title: 'Buck module',
    describes: 'low-voltage DC in, one lower output, no isolation',
    topology: 'buck',
    netlist: BUCK_TEXT,
    nameplate: fed('dc', ['VIN+', 'GND'], [7, 12, 30], [dcOut('OUT+', 'GND', 5, 2)]),
  },
  {
    name: 'synchronous-buck',
    title: 'Synchronous buck module',
    describes: 'low-voltage DC in, two transistors outside the controller',
    topology: 'synchronous-buck',
    netlist: withParts(dc.SYNCHRONOUS_BUCK_TEXT),
    nameplate: fed('dc', ['VIN', 'GND'], [8, 12, 24], [dcOut('OUT', 'GND', 3.3, 8)]),
  },
  {
    name: 'boost',
    title: 'Boost module',
    describes: 'a cell or low voltage in, a higher output',
    topology: 'boost',
    netlist: withParts(dc.BOOST_TEXT),
    nameplate: fed('battery', ['VIN', 'GND'], [3, 3.7, 4.2], [dcOut('OUT', 'GND', 12, 0.5)]),
  },
  {
    name: 'buck-boost',
    title: 'Inverting converter',
    describes: 'positive supply in, negative output',
    topology: 'buck-boost',
    netlist: withParts(dc.BUCK_BOOST_TEXT),
    nameplate: fed('dc', ['VIN', 'GND'], [9, 12, 15], [dcOut('GND', 'NEG', 12, 1)]),
  },
  {
    name: 'royer',
    title: 'Resonant push-pull oscillator',
    describes: 'low-voltage DC in, high-voltage AC out, no controller',
    topology: 'royer',
    netlist: withParts(inverter.ROYER_TEXT),
    nameplate: fed('dc', ['VIN', 'GND'], [10, 12, 14], []),
  },
  {
    name: 'blocking-oscillator',
    title: 'Blocking oscillator for a pulse capacitor',
    describes: 'battery in, one transistor, storage capacitor',
    topology: 'blocking-oscillator',
    netlist: withParts(dc.BLOCKING_OSCILLATOR_TEXT),
    nameplate: fed(
      'battery',
      ['BAT+', 'GND'],
      [4.5, 6, 7],
      [{ rail: 'HV+', return: 'GND', volts: 320, amps: 0.004, kind: 'pulse' }],
    ),
  },
  {
    name: 'linear',
    title: 'Linear supply',
    describes: 'mains transformer, bridge, three-terminal regulator',
    topology: 'linear',
    netlist: withParts(dc.LINEAR_TEXT),
    nameplate: offline([dcOut('OUT', 'GND', 12, 0.5)], 207),
  },
  {
    name: 'line-frequency-inverter',
    title: 'Inverter with a line-frequency transformer',
    describes: 'battery in, 230 V out straight from the transformer',
    topology: 'line-frequency-inverter',
    netlist: withParts(inverter.LINE_FREQUENCY_INVERTER_TEXT),
    nameplate: fed(
      'battery',
      ['BAT+', 'GND'],
      [21, 24, 30],
      [{ rail: 'ACO', return: 'ACN', volts: 230, amps: 2, kind: 'ac', hertz: 50 }],
    ),
  },
  {
    name: 'three-phase-inverter',
    title: 'Three-phase bridge for a motor',
    describes: 'DC bus in, three legs, bootstrap drivers',
    topology: 'three-phase-inverter',
    netlist: withParts(inverter.THREE_PHASE_TEXT),
    nameplate: fed(
      'battery',
      ['DC+', 'GND'],
      [40, 48, 58],
      [{ rail: 'U', return: 'V', volts: 30, amps: 12, kind: 'ac', hertz: 50, rails: ['U', 'V', 'W'] }],
    ),
  },
  {
    name: 'solid-state-relay',
    title: 'Solid-state relay',
    describes: 'a small DC input fires a triac in series with the load',
    topology: 'solid-state-relay',
    netlist: withParts(inverter.SOLID_STATE_RELAY_TEXT),
    nameplate: fed('dc', ['IN+', 'IN-'], [4, 12, 32], []),
  },
  {
    name: 'flyback-primary-sensed',
    title: 'Offline flyback sensed at its auxiliary winding',
    describes: 'mains in, one isolated output, no opto, integrated switch',
    topology: 'flyback',
    netlist: withParts(special.PRIMARY_SENSED_FLYBACK_TEXT),
    nameplate: offline([dcOut('OUT', 'GND', 5, 1)], 90),
  },
  {
    name: 'high-voltage-multiplier',
    title: 'High-voltage supply with a multiplier',
    describes: 'mains in, half bridge, voltage multiplier of diodes and capacitors',
    topology: 'half-bridge',
    netlist: withParts(special.HIGH_VOLTAGE_TEXT),
    nameplate: offline([dcOut('OUT', 'HG', 12000, 0.0005)]),
  },
  {
    name: 'traction-stage',
    title: 'Traction stage',
    describes: 'battery in, precharge, boost leg, three-phase bridge, bleeder',
    topology: 'boost+three-phase-inverter',
    netlist: withParts(battery.TRACTION_TEXT),
    nameplate: {
      ...fed(
        'battery',
        ['BAT+', 'BAT-'],
        [160, 200, 230],
        [{ rail: 'U', return: 'V', volts: 130, amps: 50, kind: 'ac', hertz: 50, rails: ['U', 'V', 'W'] }],
      ),
      auxInputs: [{ rail: '12V', return: 'BAT-', volts: 12 }],
    },
  },
  {
    name: 'solar-charger',
    title: 'Solar charge controller',
    describes: 'panel in, synchronous buck, battery out, processor',
    topology: 'synchronous-buck+buck',
    netlist: withParts(battery.SOLAR_CHARGER_TEXT),
    nameplate: fed('dc', ['PV+', 'PV-'], [18, 36, 60], [dcOut('BAT', 'GND', 27.6, 20)]),
  },
  {
    name: 'phase-control',
    title: 'Phase control of a motor',
    describes: 'mains in, triac in series with the load, capacitive dropper, processor',
    topology: 'solid-state-relay',
    netlist: withParts(special.PHASE_CONTROL_TEXT),
    nameplate: offline([]),
  },
];

/** The board of a typical circuit, every part assumed; null when there is none of that name. */
export function archetypeBoard(name: string): Board | null {
  const archetype = ARCHETYPES.find((a) => a.name === name);
  if (!archetype) return null;
  const read = readNetlist(archetype.netlist);
  invariant(read.ok, `typical circuit ${name} reads`);
  const facts = TYPICAL_FACTS[name];
  return { ...assumeAll(read.value.board), nameplate: archetype.nameplate, ...(facts ? { facts } : {}) };
}
