import type { Board } from '../circuit';
import { faultWords, parseFaults } from '../fault';
import { formatQuantity } from '../quantity';
import { PoweredReader, suppliedWatts } from '../work';
import type { OperatingCondition } from '../work';

/** What a filament lamp in series with a unit does at the first power, were one suspect the one. */
export interface LimiterStep {
  /** The fault as the command line has it; `none`: nothing is broken. */
  readonly fault: string;
  readonly words: string;
  readonly share: number;
  readonly lamp: 'bright' | 'dim' | 'dark' | 'pulses';
  /** What the lamp does, in words. */
  readonly shows: string;
  /** What else is to be seen: the rails of the outputs. */
  readonly rails: readonly { readonly net: string; readonly black: string; readonly volts: number | null }[];
  /** Watts that the unit takes at its source. */
  readonly watts: number;
}

/** A lamp glows from this share of its watts, and is bright from this one. */
const [GLOWS, BRIGHT] = [0.12, 0.6];
/** Filament lamps that are sold, watts. */
const LAMPS = [25, 40, 60, 100, 150, 200, 300, 500] as const;
/** The lamp is made for this share of what the unit takes at its full load: it lets it start without one. */
const LAMP_SHARE = 0.6;

/** The lamp for a unit that takes so many watts at its full load. */
export const limiterWatts = (full: number): number =>
  LAMPS.find((w) => w >= Math.max(LAMP_SHARE * full, LAMPS[0])) ?? LAMPS.at(-1)!;

/** What the limiter's lamp does with the sound unit and under each suspect, with no load connected. */
export function limiterSteps(
  board: Board,
  { source }: OperatingCondition,
  suspects: readonly { readonly fault: string; readonly share: number }[],
): readonly LimiterStep[] {
  const sound = PoweredReader.at(board, { source, load: 'none' }, []);
  const lamp = limiterWatts(suppliedWatts(PoweredReader.at(board, { source, load: 'full' }, [], null).operation));
  const outputs = sound.operation.unit.plan.outputs;
  return [{ fault: 'none', share: NaN }, ...suspects.filter((s) => s.fault !== 'none')].map(({ fault, share }) => {
    const faults = parseFaults(board, fault);
    const reader =
      faults.length === 0 ? sound : PoweredReader.at(board, { source, load: 'none' }, faults, sound.operation);
    const { operation } = reader;
    const watts = operation.found ? suppliedWatts(operation) : 0;
    const shorted = operation.destroys.length > 0;
    const does =
      shorted || watts > BRIGHT * lamp
        ? 'bright'
        : operation.unitState === 'hiccup'
          ? 'pulses'
          : watts > GLOWS * lamp
            ? 'dim'
            : 'dark';
    return {
      fault,
      words: fault === 'none' ? 'nothing broken' : faultWords(board, fault),
      share,
      lamp: does,
      shows: SHOWS[does](charges(reader), operation.period),
      rails: outputs
        .filter((o) => o.kind !== 'pulse')
        .map((o) => ({
          net: o.rail.toUpperCase(),
          black: o.return.toUpperCase(),
          volts: shorted ? null : shown(reader.read(o.kind === 'ac' ? 'acv' : 'dcv', o.rail, o.return)?.value ?? null),
        })),
      watts,
    };
  });
}

/** Less than this shows as nothing, V. */
const NOTHING = 0.02;
const shown = (volts: number | null): number | null => (volts !== null && Math.abs(volts) < NOTHING ? 0 : volts);

/** Whether a reservoir behind the mains takes a rush of current: a lamp flashes for that. */
function charges({ operation: { unit } }: PoweredReader): boolean {
  const { line } = unit;
  return line?.rails.some((r) => (line.result?.mean.get(r.main) ?? 0) > CHARGED) === true;
}

const CHARGED = 20;

const SHOWS: Readonly<Record<LimiterStep['lamp'], (charges: boolean, period: number | null) => string>> = {
  bright: () => 'stays bright: switch off within 3 s',
  dim: (charges) => (charges ? 'flashes, then glows' : 'glows'),
  dark: (charges) => (charges ? 'flashes once, then dark' : 'stays dark'),
  pulses: (_, period) => `pulses${period === null ? '' : ` every ${formatQuantity(period, 's', 2)}`}`,
};
