import { netKey } from '@/core/circuit';
import type { DrawnRail } from '@/core/drawing';
import { formatQuantity } from '@/core/quantity';
import type { RailVolts } from '@/core/work';

/** What is written at a net: what should stand there, what was read there. */
export interface NetWords {
  readonly expected: string | null;
  readonly read: string | null;
}

/** Volts below this are none. */
const NOUGHT = 0.005;
const words = (volts: number): string => formatQuantity(Math.abs(volts) < NOUGHT ? 0 : volts, 'V');

/** What is written at nets, by key: what was worked out, else what the rail is for; and what was read. */
export function netWords(
  rails: readonly DrawnRail[],
  expected: readonly RailVolts[],
  read: ReadonlyMap<string, number> = new Map(),
): ReadonlyMap<string, NetWords> {
  const told = new Map(rails.map((r) => [netKey(r.net), r.text.slice(r.net.length + 1)]));
  for (const { net, volts } of expected) told.set(netKey(net), words(volts));
  const readWords = (key: string): string | null => {
    const volts = read.get(key);
    return volts === undefined ? null : words(volts);
  };
  return new Map(
    [...new Set([...told.keys(), ...read.keys()])].map((key) => [
      key,
      { expected: told.get(key) ?? null, read: readWords(key) },
    ]),
  );
}

/** The same in one line. */
export const netSentence = ({ expected, read }: NetWords): string =>
  [expected, read === null ? null : `read ${read}`].filter((w) => w !== null).join(', ');
