/** One `.model`: what kind of device and its parameters in SI units, keyed by lower-case name. */
export interface Model {
  readonly name: string;
  readonly type: 'D' | 'NPN' | 'PNP' | 'NMOS' | 'PMOS';
  readonly numbers: Readonly<Record<string, number>>;
  readonly written: string;
}

/** Thermal voltage at 300.15 K in volts (contract). */
export const THERMAL_VOLTS = 0.0258649;

/** A junction: saturation current, emission coefficient, series resistance, breakdown (Infinity: none), zero-bias capacitance. */
export interface JunctionFigures {
  readonly saturationAmps: number;
  readonly emission: number;
  readonly seriesOhms: number;
  readonly breakdownVolts: number;
  readonly breakdownAmps: number;
  readonly zeroBiasFarads: number;
}

/** A junction with nothing but these. */
export function plainJunction(saturationAmps: number, emission: number, seriesOhms = 0): JunctionFigures {
  return {
    saturationAmps,
    emission,
    seriesOhms,
    breakdownVolts: Infinity,
    breakdownAmps: 1e-3,
    zeroBiasFarads: 0,
  };
}

/** The junction of a `D` model; of none, the contract's default diode. */
export function junctionFigures(model: Model | undefined): JunctionFigures {
  const n = model?.numbers ?? {};
  return {
    saturationAmps: n['is'] ?? 1e-14,
    emission: n['n'] ?? 1,
    seriesOhms: n['rs'] ?? 0,
    breakdownVolts: n['bv'] ?? Infinity,
    breakdownAmps: n['ibv'] ?? 1e-3,
    zeroBiasFarads: n['cjo'] ?? 0,
  };
}

/** Volts across a junction that carries `amps`, its series resistance left out. */
export function junctionVolts(junction: JunctionFigures, amps: number): number {
  return junction.emission * THERMAL_VOLTS * Math.log(amps / junction.saturationAmps);
}

/** A transport transistor: polarity +1 NPN, -1 PNP. */
export interface TransistorFigures {
  readonly polarity: 1 | -1;
  readonly saturationAmps: number;
  readonly forwardGain: number;
  readonly reverseGain: number;
  readonly forwardEmission: number;
  readonly reverseEmission: number;
}

/** The transistor of an `NPN` or `PNP` model; of none, the contract's default NPN. */
export function transistorFigures(model: Model | undefined): TransistorFigures {
  const n = model?.numbers ?? {};
  return {
    polarity: model?.type === 'PNP' ? -1 : 1,
    saturationAmps: n['is'] ?? 1e-14,
    forwardGain: n['bf'] ?? 100,
    reverseGain: n['br'] ?? 1,
    forwardEmission: n['nf'] ?? 1,
    reverseEmission: n['nr'] ?? 1,
  };
}

/** A channel and its body diode (null: none). `thresholdVolts` counts in the device's own polarity, so it is positive for an enhancement PMOS too. */
export interface ChannelFigures {
  readonly polarity: 1 | -1;
  readonly thresholdVolts: number;
  readonly transconductance: number;
  readonly onOhms: number;
  readonly body: JunctionFigures | null;
  readonly insulatedBipolar: boolean;
}

/** The channel of an `NMOS` or `PMOS` model; of none, the contract's default NMOS. */
export function channelFigures(model: Model | undefined): ChannelFigures {
  const n = model?.numbers ?? {};
  const polarity = model?.type === 'PMOS' ? -1 : 1;
  const bodyAmps = n['bodyis'] ?? 1e-8;
  return {
    polarity,
    thresholdVolts: polarity * (n['vto'] ?? 3 * polarity),
    transconductance: n['kp'] ?? 1,
    onOhms: n['ron'] ?? 0.5,
    body: bodyAmps === 0 ? null : plainJunction(bodyAmps, n['bodyn'] ?? 1.7),
    insulatedBipolar: n['igbt'] === 1,
  };
}
