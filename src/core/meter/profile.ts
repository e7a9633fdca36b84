/**
 * A meter as the contract describes it (`netlist.md` section 3). Every figure may be changed by its owner.
 */
export interface MeterProfile {
  readonly diodeAmps: number;
  readonly diodeLimitVolts: number;
  readonly diodeOverloadVolts: number;
  /** Test currents of the resistance ranges, amperes, lowest range first. */
  readonly ohmsAmps: readonly number[];
  readonly ohmsRangeVolts: number;
  readonly ohmsOverload: number;
  readonly beepOhms: number;
  /** Spread of a reading, one sigma. */
  readonly diodeFraction: number;
  readonly diodeFloorVolts: number;
  readonly ohmsFraction: number;
  readonly lowRangeFloorOhms: number;
  /** The lowest range ends here, ohm. */
  readonly lowRangeOhms: number;
}

/** The default meter of the contract. */
export const DEFAULT_METER: MeterProfile = {
  diodeAmps: 1e-3,
  diodeLimitVolts: 3,
  diodeOverloadVolts: 2.5,
  ohmsAmps: [0.5e-3, 50e-6, 5e-6, 0.5e-6, 50e-9, 5e-9],
  ohmsRangeVolts: 0.3,
  ohmsOverload: 60e6,
  beepOhms: 30,
  diodeFraction: 0.005,
  diodeFloorVolts: 0.003,
  ohmsFraction: 0.004,
  lowRangeFloorOhms: 0.1,
  lowRangeOhms: 600,
};

let own: MeterProfile = DEFAULT_METER;

/** The workshop's meter, by which readings of this process are expected and weighed; the contract's until one is set. */
export const workshopMeter = (): MeterProfile => own;

/** Sets it, once, before anything is expected: page, server and each worker do at their begin. */
export function setWorkshopMeter(meter: MeterProfile): void {
  own = meter;
}
