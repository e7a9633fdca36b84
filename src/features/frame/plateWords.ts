import type { Nameplate } from '@/core/circuit';
import { formatQuantity } from '@/core/quantity';

/** A nameplate in words: the input as printed, then each output. */
export function plateWords(plate: Nameplate): string {
  const outputs = (plate.outputs ?? []).map((o) => `${formatQuantity(o.volts, 'V')} ${formatQuantity(o.amps, 'A')}`);
  return [plate.input ?? '', outputs.length > 0 && `out ${outputs.join(' and ')}`].filter(Boolean).join(', ');
}
