import { z } from 'zod';
import { READING_SECONDS } from '@/core/diagnose';
import { DEFAULT_METER } from '@/core/meter';
import { DERATING } from '@/core/stress';
import type { StressKind } from '@/core/stress';

/** Whether this computer knows a time zone by this name. */
function isZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

const line = (most: number) => z.string().trim().max(most, `At most ${most} characters.`);

/** Volts and hertz of the sockets of a country. */
export const MAINS = [
  '100/50',
  '100/60',
  '110/60',
  '120/60',
  '127/60',
  '220/50',
  '220/60',
  '230/50',
  '240/50',
] as const;

/** The figures of such mains. */
export function mainsFigures(mains: (typeof MAINS)[number]): { readonly volts: number; readonly hertz: number } {
  const [volts = NaN, hertz = NaN] = mains.split('/').map(Number);
  return { volts, hertz };
}

const between = (least: number, most: number) =>
  z.number('This wants a figure.').min(least, `No less than ${least}.`).max(most, `No more than ${most}.`);

/** The workshop's meter: every figure of the contract's profile, SI units. */
export const MeterSettings = z.strictObject({
  diodeAmps: between(1e-6, 0.1),
  diodeLimitVolts: between(0.5, 20),
  diodeOverloadVolts: between(0.3, 20),
  ohmsAmps: z.array(between(1e-10, 0.1)).length(6),
  ohmsRangeVolts: between(0.01, 10),
  ohmsOverload: between(1e4, 1e12),
  beepOhms: between(0.1, 1000),
  diodeFraction: between(0.0001, 0.2),
  diodeFloorVolts: between(0.0001, 0.1),
  ohmsFraction: between(0.0001, 0.2),
  lowRangeFloorOhms: between(0.001, 10),
  lowRangeOhms: between(10, 1e5),
});

/** Instruments that tell what a meter cannot. */
export const INSTRUMENTS = [
  { code: 'esr', words: 'ESR meter' },
  { code: 'capacitance', words: 'capacitance meter' },
  { code: 'ring', words: 'ring tester for windings' },
  { code: 'oscilloscope', words: 'oscilloscope' },
  { code: 'variac', words: 'variable transformer' },
  { code: 'isolation', words: 'isolating transformer' },
  { code: 'lamp', words: 'series lamp' },
  { code: 'insulation', words: 'insulation and earth tester' },
] as const;
const INSTRUMENT_CODES = INSTRUMENTS.map((i) => i.code) as [string, ...string[]];

const KINDS = Object.keys(DERATING) as StressKind[];

/** What a workshop sets once: its name, its benches, how figures and times are written. */
export const Settings = z.strictObject({
  /** For the head of a report. */
  workshop: z.strictObject({ name: line(80), address: line(300) }),
  benches: z
    .array(z.strictObject({ name: line(40).min(1, 'A bench needs a name.'), who: line(60) }))
    .min(1, 'There is one bench at least.')
    .max(20, 'At most 20 benches.')
    .refine(
      (list) => new Set(list.map((b) => b.name.toLowerCase())).size === list.length,
      'Two benches have the same name.',
    ),
  zone: z.string().max(60).refine(isZone, 'No time zone of that name is known here.'),
  decimal: z.enum(['point', 'comma']),
  mains: z.enum(MAINS),
  /** Tones of a reading, until a bench switches them otherwise. */
  sound: z.boolean(),
  meter: MeterSettings,
  instruments: z.array(z.enum(INSTRUMENT_CODES)).max(INSTRUMENTS.length),
  /** What a reading costs, seconds. */
  costs: z.strictObject({
    sameBlackSameMode: between(0.5, 120),
    bothMove: between(0.5, 120),
    modeChange: between(0, 120),
    instrument: between(0.5, 600),
    patience: between(0.5, 600),
    impatience: between(1, 20),
  }),
  /** Share of a rating that is used, by kind of stress. */
  derating: z.strictObject(
    Object.fromEntries(KINDS.map((kind) => [kind, between(0.2, 1)])) as Record<StressKind, ReturnType<typeof between>>,
  ),
  /** Limits of the tests before a unit is handed over: ohms, ohms, amperes. Local codes may ask for others. */
  closeOut: z.strictObject({
    earthOhms: between(0.01, 10),
    insulationOhms: between(1e4, 1e12),
    leakageAmps: between(1e-6, 0.1),
  }),
});
export type Settings = z.infer<typeof Settings>;

/** Before anything was set. */
export const FIRST_SETTINGS: Settings = {
  workshop: { name: '', address: '' },
  benches: [{ name: 'Bench 1', who: '' }],
  zone: 'UTC',
  decimal: 'point',
  mains: '230/50',
  sound: true,
  meter: { ...DEFAULT_METER, ohmsAmps: [...DEFAULT_METER.ohmsAmps] },
  instruments: [],
  costs: { ...READING_SECONDS },
  derating: Object.fromEntries(KINDS.map((kind) => [kind, DERATING[kind].factor])) as Settings['derating'],
  closeOut: { earthOhms: 0.2, insulationOhms: 1e6, leakageAmps: 3.5e-3 },
};

/** What is stored, with what this version knows besides as it is at first. */
function filledUp(stored: unknown, first: unknown): unknown {
  const plain = (v: unknown): v is object => typeof v === 'object' && v !== null && !Array.isArray(v);
  return plain(stored) && plain(first) ? { ...first, ...stored } : stored;
}

/** Settings as they are stored, by another version perhaps: what is missing or not understood is as it is at first. */
export const StoredSettings = z
  .object(
    Object.fromEntries(
      Object.entries(Settings.shape).map(([key, schema]) => [
        key,
        z.preprocess(
          (stored) => filledUp(stored, FIRST_SETTINGS[key as keyof Settings]),
          (schema as z.ZodType).catch(FIRST_SETTINGS[key as keyof Settings]),
        ),
      ]),
    ),
  )
  .transform((body) => Settings.parse(body));
