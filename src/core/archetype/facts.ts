/*
 * What a data sheet would tell of the controllers of the typical circuits: middle values of the kind, fitted to the parts
 * around them. Assumed like everything else of a typical circuit.
 */

type Facts = Readonly<Record<string, Readonly<Record<string, number>>>>;

/** A controller that starts through a resistor and hears an optocoupler at its feedback pin. */
const RESISTOR_STARTED = { vccStart: 15, vccStop: 9, iStart: 50e-6, iRun: 3e-3 };
const OPTO_LAW = { fbPullup: 10_000, fbRail: 5, fbOffset: 1, fbDivide: 3 };
const HALF_DRIVER = { vccStart: 8.5, vccStop: 8, iStart: 50e-6, iRun: 0.2e-3 };

/** Facts by circuit and designator. */
export const TYPICAL_FACTS: Readonly<Record<string, Facts>> = {
  'flyback-opto': { U1: { ...RESISTOR_STARTED, ...OPTO_LAW, csMax: 1, fSwitch: 65e3, dutyMax: 0.8 } },
  forward: { U1: { ...RESISTOR_STARTED, ...OPTO_LAW, csMax: 1, fSwitch: 70e3, dutyMax: 0.48 } },
  'two-switch-forward': { U1: { ...RESISTOR_STARTED, ...OPTO_LAW, csMax: 0.5, fSwitch: 80e3, dutyMax: 0.48 } },
  'half-bridge': { U1: { ...RESISTOR_STARTED, ...OPTO_LAW, csMax: 0.8, fSwitch: 50e3, dutyMax: 0.46 } },
  'full-bridge': {
    U1: { ...RESISTOR_STARTED, ...OPTO_LAW, csMax: 0.4, fSwitch: 70e3, dutyMax: 0.46 },
    U2: HALF_DRIVER,
    U3: HALF_DRIVER,
  },
  'push-pull': {
    U1: {
      ...{ vccStart: 8, vccStop: 7, iRun: 12e-3, fSwitch: 40e3, dutyMax: 0.47, csMax: 0.2 },
      ...{ fbPullup: 2500, fbRail: 5, fbOffset: 0.6, fbDivide: 1 },
    },
  },
  'boost-pfc': { U1: { vccStart: 10, vccStop: 8.5, iRun: 8e-3, fbRef: 2.5, fSwitch: 65e3, csMax: 1 } },
  'buck-module': {
    U1: { fbRef: 0.8, fSwitch: 340e3, iLimit: 4.5, dutyMax: 0.9, iRun: 2e-3, enableOn: 0.95, enableOff: 0.9 },
  },
  'synchronous-buck': { U1: { fbRef: 0.8, fSwitch: 350e3, iLimit: 16, dutyMax: 0.9, iRun: 8e-3, vccOut: 6.5 } },
  boost: { U1: { fbRef: 1.19, fSwitch: 600e3, iLimit: 4, dutyMax: 0.9, iRun: 2e-3, enableOn: 1.5, enableOff: 0.6 } },
  'buck-boost': { U1: { fbRef: -1.27, fSwitch: 150e3, iLimit: 6, dutyMax: 0.8, iRun: 6e-3 } },
  'line-frequency-inverter': { U1: { vccStart: 5, vccStop: 4, iRun: 15e-3, fSwitch: 50 } },
  'three-phase-inverter': {
    U1: HALF_DRIVER,
    U2: HALF_DRIVER,
    U3: HALF_DRIVER,
    U4: { iRun: 10e-3, fSwitch: 16e3, deadTime: 1e-6 },
  },
  'flyback-primary-sensed': {
    U1: { vccStart: 15, vccStop: 7, iStart: 5e-6, iRun: 0.5e-3, fbRef: 2.5, csMax: 0.8, fSwitch: 50e3, dutyMax: 0.6 },
  },
  'high-voltage-multiplier': {
    U1: HALF_DRIVER,
    U2: { ...RESISTOR_STARTED, fbPullup: 40_000, fbRail: 5, fbOffset: 0.6, fbDivide: 1, fSwitch: 40e3, dutyMax: 0.46 },
  },
  'traction-stage': {
    U1: HALF_DRIVER,
    U2: HALF_DRIVER,
    U3: HALF_DRIVER,
    U4: HALF_DRIVER,
    U5: { iRun: 60e-3, fSwitch: 16e3, deadTime: 1e-6, pin12: 5 },
    U6: { vOut: 5 },
    RY1: { coilOn: 8, coilOff: 2 },
  },
  'solar-charger': {
    U1: HALF_DRIVER,
    U3: { iRun: 30e-3, fSwitch: 60e3, dutyMax: 0.95, fbRef: 2.5 },
    U4: { fbRef: 1.2, fSwitch: 150e3, iLimit: 1, dutyMax: 0.9, iRun: 2e-3, enableOn: 1.2, enableOff: 1.1 },
    U5: { vOut: 5 },
  },
  linear: { U1: { vOut: 12, iRun: 5e-3 } },
  'phase-control': { U1: { vOut: 5, iRun: 3e-3 }, U2: { iRun: 4e-3 } },
};
