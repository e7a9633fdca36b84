import { isElectrolytic, marking, safetyClass, partFigure, partText, isFuse } from '../part';
import type { Part, PartFigure } from '../part';
import { formatQuantity } from '../quantity';

/** What a technician wants to fit. SI units; absent where not stated. */
export interface FittedPart {
  readonly source: 'new' | 'salvaged';
  /** The same part number or marking: nothing else is compared for value and rating. */
  readonly samePart: boolean;
  readonly value?: number | undefined;
  readonly ratedVolts?: number | undefined;
  readonly ratedAmps?: number | undefined;
  readonly ratedWatts?: number | undefined;
  readonly lowEsr?: boolean | undefined;
  readonly celsius105?: boolean | undefined;
  /** X, Y, fusible, MOV …: what is printed on the new one. */
  readonly safetyClass?: string | undefined;
  readonly fuseSpeed?: 'T' | 'F' | 'TT' | 'FF' | 'M' | undefined;
  readonly fuseBreaking?: 'L' | 'H' | 'E' | undefined;
}

/** A substitution judged. `refused` stands; `doubt` may be fitted knowingly. Each line says why. */
export interface SubstitutionVerdict {
  readonly verdict: 'fits' | 'doubt' | 'refused';
  readonly reasons: readonly string[];
}

type SafetyKind =
  | 'fuse'
  | 'X capacitor'
  | 'Y capacitor'
  | 'varistor'
  | 'fusible resistor'
  | 'inrush NTC'
  | 'thermal link'
  | 'optocoupler'
  | 'transformer'
  | 'mains lead';

/** The safety role of a part, or null: these are replaced by the same class or not at all, and never salvaged. */
export function safetyKind(part: Part): SafetyKind | null {
  switch (part.kind) {
    case 'fuse':
      return /therm/iu.test(marking(part) ?? '') ? 'thermal link' : 'fuse';
    case 'mov':
      return 'varistor';
    case 'ntc':
      return (partFigure(part, 'ohmsAt25') ?? Infinity) <= 100 ? 'inrush NTC' : null;
    case 'opto':
      return 'optocoupler';
    case 'capacitor':
      return safetyClass(part) === 'X' ? 'X capacitor' : safetyClass(part) === 'Y' ? 'Y capacitor' : null;
    case 'inductor':
      return /^T\d/iu.test(partText(part, 'pkg') ?? '') ? 'transformer' : null;
    case 'resistor':
      return isFuse(part) || partText(part, 'flameproof') !== undefined ? 'fusible resistor' : null;
    case 'connector':
      return /mains lead/iu.test(marking(part) ?? '') ? 'mains lead' : null;
    default:
      return null;
  }
}

/**
 * Judges a replacement against the part it replaces.
 *
 * Rules: value within tolerance and voltage not lower; electrolytics also low ESR or ripple and 105 °C; safety parts
 * the same class or refused, never salvaged; a fuse the same rating, time characteristic and breaking capacity, never
 * larger; X may be replaced by Y of the same voltage, never the reverse.
 */
export function judgeSubstitution(old: Part, fitted: FittedPart): SubstitutionVerdict {
  const refused: string[] = [];
  const doubts: string[] = [];
  const safety = safetyKind(old);
  if (safety !== null) {
    if (fitted.source === 'salvaged') refused.push(`A ${safety} is a safety part: never fit a salvaged one.`);
    checkSafetyClass(old, safety, fitted, refused);
  }
  if (!fitted.samePart) {
    if (old.kind === 'fuse') checkFuse(old, fitted, refused);
    else checkRatings(old, fitted, safety !== null ? refused : doubts, refused);
  }
  if (fitted.source === 'salvaged' && safety === null)
    doubts.push('Salvaged: test it before fitting and note the reading.');
  const verdict = refused.length > 0 ? 'refused' : doubts.length > 0 ? 'doubt' : 'fits';
  const reasons = [...refused, ...doubts];
  return {
    verdict,
    reasons: reasons.length > 0 ? reasons : [fitted.samePart ? 'The same part.' : 'Value and ratings are not worse.'],
  };
}

function checkSafetyClass(old: Part, safety: SafetyKind, fitted: FittedPart, refused: string[]): void {
  if (fitted.samePart || safety === 'fuse' || safety === 'thermal link') return;
  const given = fitted.safetyClass?.trim().toUpperCase() ?? '';
  if (safety === 'X capacitor') {
    if (!/^[XY]/u.test(given)) refused.push(`${old.ref} is an X capacitor: only X, or Y of the same voltage.`);
  } else if (safety === 'Y capacitor') {
    if (!given.startsWith('Y')) refused.push(`${old.ref} is a Y capacitor across the barrier: only Y, never X.`);
  } else if (given === '' || !sameClass(safety, given)) {
    refused.push(`${old.ref} is a ${safety}: only the same class, named on the part.`);
  }
}

function sameClass(safety: SafetyKind, given: string): boolean {
  const words: Readonly<Record<string, RegExp>> = {
    varistor: /MOV|VARISTOR|VDR/u,
    'fusible resistor': /FUSIBLE|FLAME/u,
    'inrush NTC': /NTC/u,
    optocoupler: /OPTO/u,
    transformer: /SAME/u,
    'mains lead': /LEAD/u,
  };
  return words[safety]?.test(given) ?? false;
}

function checkFuse(old: Part, fitted: FittedPart, refused: string[]): void {
  const amps = partFigure(old, 'ratedAmps');
  const volts = partFigure(old, 'ratedVolts');
  const print = marking(old) ?? '';
  if (amps !== undefined && fitted.ratedAmps === undefined) refused.push('State the rating of the new fuse.');
  if (amps !== undefined && fitted.ratedAmps !== undefined && Math.abs(fitted.ratedAmps / amps - 1) > 1e-6) {
    const way = fitted.ratedAmps > amps ? 'A larger fuse is never fitted' : 'A smaller fuse will blow in use';
    refused.push(`${way}: ${formatQuantity(fitted.ratedAmps, 'A')} for ${formatQuantity(amps, 'A')}.`);
  }
  if (volts !== undefined && (fitted.ratedVolts ?? 0) < volts) refused.push(`Rated volts must be at least ${volts} V.`);
  const speed = /^(TT|FF|T|F|M)\d/iu.exec(print)?.[1]?.toUpperCase();
  if (speed !== undefined && fitted.fuseSpeed !== speed) refused.push(`Time characteristic must be ${speed}.`);
  const breaking = /\d(?:A|mA)?([LHE])\d*V?/iu.exec(print)?.[1]?.toUpperCase();
  if (breaking !== undefined && fitted.fuseBreaking !== breaking)
    refused.push(`Breaking capacity must be ${breaking}.`);
}

function checkRatings(old: Part, fitted: FittedPart, valueList: string[], refused: string[]): void {
  if (old.kind === 'resistor' || old.kind === 'capacitor' || old.kind === 'inductor') {
    const unit = { resistor: 'ohm', capacitor: 'F', inductor: 'H' } as const;
    const tolerance = partFigure(old, 'tolerance') ?? (old.kind === 'resistor' ? 0.05 : 0.2);
    if (fitted.value === undefined) valueList.push('State the value of the new part.');
    else if (old.value > 0 && Math.abs(fitted.value / old.value - 1) > tolerance + 1e-9) {
      valueList.push(
        `${formatQuantity(fitted.value, unit[old.kind])} is outside ${formatQuantity(old.value, unit[old.kind])} ± ${Math.round(tolerance * 100)} %.`,
      );
    }
  }
  const compare = (name: string, key: PartFigure, given: number | undefined, unit: 'V' | 'A' | 'W'): void => {
    const was = partFigure(old, key);
    if (was === undefined) return;
    if (given === undefined)
      valueList.push(`State the rated ${name} of the new part: the old one had ${formatQuantity(was, unit)}.`);
    else if (given < was)
      refused.push(`Rated ${name} ${formatQuantity(given, unit)} is lower than ${formatQuantity(was, unit)}.`);
  };
  compare('volts', 'ratedVolts', fitted.ratedVolts, 'V');
  if (old.kind !== 'capacitor') compare('amperes', 'ratedAmps', fitted.ratedAmps, 'A');
  if (old.kind === 'resistor') compare('watts', 'ratedWatts', fitted.ratedWatts, 'W');
  if (isElectrolytic(old)) {
    if (fitted.lowEsr !== true) valueList.push('An electrolytic here needs the same low ESR or ripple rating.');
    if (fitted.celsius105 !== true) valueList.push('Fit a 105 °C part.');
  }
}
