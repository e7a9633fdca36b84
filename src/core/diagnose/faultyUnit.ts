import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { PoweredReader, suppliedWatts } from '../work';
import type { OperatingCondition } from '../work';

/** An output this much off its sound volts is not working; a load pulls one down that falls to this share. */
const WORKS = 0.9;

/** A unit with a fault, worked out without load and at its full load. */
export interface FaultyUnit {
  readonly idle: PoweredReader;
  readonly loaded: PoweredReader;
}

/** Works one out, each way when it is first asked for; sound: the same without its faults, to begin at. */
export function faultyUnit(
  board: Board,
  source: number,
  faults: readonly Fault[],
  sound: FaultyUnit | null,
): FaultyUnit {
  const at = (load: OperatingCondition['load'], near: PoweredReader | undefined): PoweredReader =>
    PoweredReader.at(board, { source, load }, faults, near?.operation ?? null);
  let [idle, loaded]: [PoweredReader | null, PoweredReader | null] = [null, null];
  return {
    get idle() {
      return (idle ??= at('none', sound?.idle));
    },
    get loaded() {
      return (loaded ??= at('full', sound?.loaded));
    },
  };
}

/** Watts that a unit takes. */
export const taken = ({ operation }: PoweredReader): number => suppliedWatts(operation);

/** Whether every direct output stands near what a sound unit gives there. */
export function works(now: PoweredReader, sound: PoweredReader): boolean {
  const { outputs } = now.operation.unit.plan;
  return outputs.every((o) => {
    const [own, right] = [now, sound].map((r) => outputVolts(r, o));
    return Math.abs(own! - right!) <= (1 - WORKS) * Math.abs(right!);
  });
}

/** Volts of the first output over those of the sound unit there; null where that has none. */
export function outputShare(now: PoweredReader, sound: PoweredReader): number | null {
  const [output] = now.operation.unit.plan.outputs;
  if (!output) return null;
  const [own, right] = [now, sound].map((r) => outputVolts(r, output));
  return Math.abs(right!) < 0.05 ? null : own! / right!;
}

/** Volts of an output as it stands, without a meter: mean of a direct one, rms of an alternating one. */
function outputVolts(
  { operation: { unit, volts, alternating } }: PoweredReader,
  { kind, rail, return: back }: { readonly kind: string; readonly rail: string; readonly return: string },
): number {
  if (kind === 'ac') return alternating?.volts(rail, back) ?? 0;
  const [a, b] = [unit.node(rail), unit.node(back)];
  return a < 0 || b < 0 ? 0 : volts[a]! - volts[b]!;
}
