import type { StageKind } from './stageKinds';

/** What a stage is for, what usually fails there and what is checked there, in the trade's words. */
export interface StageNotes {
  readonly does: string;
  readonly fails: string;
  readonly checks: string;
}

export const STAGE_NOTES: Readonly<Record<StageKind, StageNotes>> = {
  'mains-input': {
    does: 'brings the line in',
    fails: 'lead at its strain relief, fuse, switch, terminal',
    checks: 'continuity of both conductors to the bridge; earth to the case below 0.2 Ω',
  },
  surge: {
    does: 'clamps surges',
    fails: 'varistor shorted or cracked after a surge',
    checks: 'ohms across it: OL; look for a crack',
  },
  'emi-filter': {
    does: 'keeps switching noise in',
    fails: 'X capacitor low, choke open, discharge resistor open',
    checks: 'capacitance of the X capacitors; both windings of the choke; the discharge resistor',
  },
  inrush: {
    does: 'limits the current at switch-on',
    fails: 'thermistor open or cracked, relay stuck',
    checks: 'ohms cold against the marking; the relay contact',
  },
  rectifier: {
    does: 'makes direct current of the line',
    fails: 'one or two diodes shorted',
    checks: 'diode test of all four, both ways',
  },
  pfc: {
    does: 'draws a sine from the line and raises the bus',
    fails: 'switch with its shunt and gate resistor, diode',
    checks: 'drain to source, the diode both ways, the shunt',
  },
  bulk: {
    does: 'stores energy',
    fails: 'dried out, bulged, shorted',
    checks: 'proved discharged first; capacitance and ESR; balance of two halves',
  },
  startup: {
    does: 'gives the controller its first current',
    fails: 'high-value resistor open or drifted high',
    checks: 'each resistor of the chain with one leg lifted or its volts at power',
  },
  controller: {
    does: 'decides when to switch',
    fails: 'dead after the switch failed; supply pin leaky',
    checks: 'every pin to ground in diode test; the supply pin for a short',
  },
  'gate-drive': {
    does: 'carries the drive to the switch',
    fails: 'gate resistor open after a shorted switch, driver with it',
    checks: 'ohms of the gate resistor; gate to source',
  },
  switch: {
    does: 'switches the power',
    fails: 'drain to source shorted',
    checks: 'drain to source both ways, gate to both',
  },
  'current-sense': {
    does: 'tells the controller the current',
    fails: 'shunt burnt open with the switch',
    checks: 'ohms of the shunt; the filter resistor to the pin',
  },
  clamp: {
    does: 'takes the spike',
    fails: 'resistor burnt, diode shorted, capacitor cracked',
    checks: 'the diode both ways; the resistor',
  },
  transformer: {
    does: 'carries the power across',
    fails: 'shorted turns (rare), cracked joint at a pin',
    checks: 'ring test; continuity of each winding; joints',
  },
  tank: { does: 'resonates', fails: 'capacitor low or shorted', checks: 'capacitance out of circuit' },
  'aux-supply': {
    does: 'feeds the controller at work',
    fails: 'small electrolytic dried out',
    checks: 'ESR of the supply capacitor; its diode',
  },
  'output-rectifier': {
    does: 'rectifies the output',
    fails: 'shorted, or leaky when hot',
    checks: 'diode test in both directions; compare the halves',
  },
  multiplier: {
    does: 'stacks up volts',
    fails: 'one capacitor or diode shorted',
    checks: 'each diode; each capacitor',
  },
  'output-filter': {
    does: 'smooths the output',
    fails: 'electrolytics dried out by heat',
    checks: 'ESR; look for bulging',
  },
  regulator: {
    does: 'holds a rail',
    fails: 'shorted through, or its output capacitor',
    checks: 'in to out, out to ground; volts at both',
  },
  'inverter-bridge': {
    does: 'makes alternating current',
    fails: 'a device of one leg, the other with it, and its driver',
    checks: 'compare the legs with each other in diode test',
  },
  discharge: {
    does: 'empties or loads a rail',
    fails: 'open: the store stays charged',
    checks: 'ohms; never trust it to have emptied anything',
  },
  feedback: {
    does: 'tells the controller the output',
    fails: 'opto weak, reference shorted, divider drifted',
    checks: 'LED both ways; the divider; nothing powered while it is open',
  },
  sensing: {
    does: 'measures for the controller',
    fails: 'divider drifted, thermistor open',
    checks: 'ohms of the divider against the markings',
  },
  'charge-control': { does: 'steers a charge', fails: 'shunt, sense line', checks: 'the sense line at the terminals' },
  protection: {
    does: 'keeps harm away',
    fails: 'done its work: blown, shorted',
    checks: 'why did it act? then the part itself',
  },
  indicator: { does: 'shows that a rail is up', fails: 'lamp or its resistor', checks: 'diode test lights it faintly' },
  barrier: {
    does: 'the only parts that may cross the isolation',
    fails: 'leaky; replaced by the wrong class',
    checks: 'printed class; insulation above 1 MΩ',
  },
  connector: {
    does: 'leads off the board',
    fails: 'cracked joint, burnt contact',
    checks: 'wiggle it; joints under a glass',
  },
};
