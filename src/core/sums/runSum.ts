import { refuse } from '../problem';
import type { Result } from '../problem';
import { bulkRipple } from './bulkRipple';
import { dischargeTime } from './dischargeTime';
import { doublerBulk } from './doublerBulk';
import { snubber } from './snubber';
import { creepage } from './creepage';
import { dividerRetarget } from './dividerRetarget';
import { uvloDivider } from './uvloDivider';
import { capBankOutlier } from './capBankOutlier';
import { bleeder } from './bleeder';
import { shockCurrent } from './shockCurrent';
import { lampLimiter } from './lampLimiter';
import { precharge } from './precharge';
import { pulseEnergy } from './pulseEnergy';
import { variacRig } from './variacRig';
import { dividerOutput } from './dividerOutput';
import { auxSense } from './auxSense';
import { sensePeak } from './sensePeak';
import { senseStart } from './senseStart';
import { flybackPower } from './flybackPower';
import { flybackStress } from './flybackStress';
import { buckLoss } from './buckLoss';
import { converterInput } from './converterInput';
import { startupTime } from './startupTime';
import { turnsFromVolts } from './turnsFromVolts';
import { resistorHeat } from './resistorHeat';
import { batteryLife } from './batteryLife';
import { capLife } from './capLife';
import { ringQ } from './ringQ';
import { sag } from './sag';
import { mainsPeak } from './mainsPeak';
import { storedEnergy } from './storedEnergy';
import { runOne } from './runOne';
import type { SumDone } from './runOne';
import type { BadInput, SumDefinition, UnknownSum } from './sumDefinition';

/** Every sum there is; a new one is one file and one line here. */
export const SUMS: readonly SumDefinition[] = [
  bulkRipple,
  doublerBulk,
  snubber,
  creepage,
  dividerRetarget,
  uvloDivider,
  capBankOutlier,
  storedEnergy,
  dischargeTime,
  mainsPeak,
  bleeder,
  shockCurrent,
  lampLimiter,
  precharge,
  pulseEnergy,
  variacRig,
  dividerOutput,
  auxSense,
  sensePeak,
  senseStart,
  flybackPower,
  flybackStress,
  buckLoss,
  converterInput,
  startupTime,
  turnsFromVolts,
  resistorHeat,
  batteryLife,
  capLife,
  ringQ,
  sag,
];

/** Runs one sum by name. Refuses with `unknown-sum`, or what `runOne` refuses. */
export function runSum(
  name: string,
  inputs: Readonly<Record<string, unknown>>,
): Result<SumDone, UnknownSum | BadInput> {
  const sum = SUMS.find((s) => s.name === name);
  if (!sum) {
    return refuse({
      code: 'unknown-sum',
      sentence: `There is no sum “${name}”.`,
      remedy: `There are ${SUMS.map((s) => s.name).join(', ')}.`,
      details: { name },
    });
  }
  return runOne(sum, inputs);
}
