import { setReadingSeconds } from '@/core/diagnose';
import { setWorkshopMeter } from '@/core/meter';
import { setDecimalMark } from '@/core/quantity';
import { setWorkshopDerating } from '@/core/stress';
import type { Settings } from './settings';

/** What of the settings the engine goes by. */
export type Choices = Pick<Settings, 'decimal' | 'meter' | 'costs' | 'derating'>;

let current: Choices | null = null;

/** The name by which a worker goes by the choices that the page goes by. */
export const workerName = (): string => (current === null ? '' : JSON.stringify(current));

/** Makes this page, server or worker go by the workshop's choices; before anything is expected or printed. */
export function applyChoices(choices: Choices): void {
  const { decimal, meter, costs, derating } = choices;
  current = { decimal, meter, costs, derating };
  setDecimalMark(decimal);
  setWorkshopMeter(meter);
  setReadingSeconds(costs);
  setWorkshopDerating(derating);
}
