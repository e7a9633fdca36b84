import { z } from 'zod';

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
};

/** Settings as they are stored, by another version perhaps: what is missing or not understood is as it is at first. */
export const StoredSettings = z
  .object(
    Object.fromEntries(
      Object.entries(Settings.shape).map(([key, schema]) => [
        key,
        (schema as z.ZodType).catch(FIRST_SETTINGS[key as keyof Settings]),
      ]),
    ),
  )
  .transform((body) => Settings.parse(body));
