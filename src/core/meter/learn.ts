import { DEFAULT_METER } from './profile';
import type { MeterProfile } from './profile';

/** What a meter showed at three touches: leads shorted in ohms, a silicon rectifier, a resistor of 10 kohm. */
export interface Touches {
  /** Ohms with the leads on each other. */
  readonly short: number;
  /** Volts in the diode test across a rectifier of the 1 A class (1N400x), forward, at room temperature. */
  readonly rectifier: number;
  /** Ohms across the resistor, and volts in the diode test across it; null: overload. */
  readonly resistor: number;
  readonly resistorVolts: number | null;
}

/** What was learned, and from what, a line each. */
export interface LearnedMeter {
  readonly profile: MeterProfile;
  readonly why: readonly string[];
}

const TEN_KILO = 10e3;
/** Saturation current and slope of a rectifier of that class at 25 °C, amperes and volts: 0.57 V at 1 mA, middle of its data sheets. */
const [SATURATION, SLOPE] = [14e-9, 0.0513];
/** Test currents that meters are made with, amperes. */
const USUAL = [0.1e-3, 0.2e-3, 0.3e-3, 0.4e-3, 0.5e-3, 0.6e-3, 0.8e-3, 1e-3, 1.2e-3, 1.5e-3, 2e-3] as const;
/** The 10 kohm carry the test current themselves where that is no less than this share of what the rectifier tells. */
const OWN_CURRENT = 0.6;

/**
 * A meter's own figures from three touches; those that they do not tell stay as they were.
 *
 * The rectifier tells the current of the diode test by I = Is (exp(V / nVt) - 1), within a factor of about 1.6, which is
 * brought to a usual one. Volts across 10 kohm are I times 10 kohm where the meter can still drive that, and then tell the
 * current exactly; else they are the most it drives. known: the profile so far.
 */
export function learnMeter(touches: Touches, known: MeterProfile = DEFAULT_METER): LearnedMeter {
  const { short, rectifier, resistor, resistorVolts } = touches;
  const why: string[] = [];
  const lowRangeFloorOhms = Math.max(0.05, short);
  why.push(`leads and contacts ${short.toPrecision(2)} ohm: below that a reading says nothing`);
  const told = SATURATION * Math.expm1(rectifier / SLOPE);
  const usual = USUAL.reduce((best, i) => (Math.abs(Math.log(i / told)) < Math.abs(Math.log(best / told)) ? i : best));
  const through = resistorVolts === null ? null : resistorVolts / TEN_KILO;
  const own = through !== null && through >= OWN_CURRENT * told ? through : null;
  const diodeAmps = own ?? usual;
  why.push(
    own === null
      ? `diode test at ${(1e3 * usual).toPrecision(2)} mA: a rectifier of the 1 A class shows ${rectifier.toPrecision(3)} V there`
      : `diode test at ${(1e3 * own).toPrecision(3)} mA: that is what 10 kohm carried`,
  );
  const limit = resistorVolts !== null && own === null ? resistorVolts : null;
  if (limit !== null) why.push(`diode test up to ${limit.toPrecision(3)} V: more it did not drive through 10 kohm`);
  const off = Math.abs(resistor / TEN_KILO - 1);
  const ohmsFraction = Math.max(known.ohmsFraction, off);
  why.push(`10 kohm read ${(100 * off).toPrecision(2)} % off, the resistor's own tolerance included`);
  const diodeLimitVolts = limit ?? known.diodeLimitVolts;
  return {
    profile: {
      ...known,
      lowRangeFloorOhms,
      diodeAmps,
      diodeLimitVolts,
      diodeOverloadVolts: Math.min(known.diodeOverloadVolts, diodeLimitVolts),
      ohmsFraction,
    },
    why,
  };
}
