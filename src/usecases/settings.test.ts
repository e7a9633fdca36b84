import { formatQuantity, setDecimalMark } from '@/core/quantity';
import { jobByTag } from '@/data/job/jobTable';
import { testDatabase } from '@/data/testDatabase';
import { NewJob } from '@/wire/jobForm';
import { readingSeconds } from '@/core/diagnose';
import { workshopMeter } from '@/core/meter';
import { workshopDerating } from '@/core/stress';
import { applyChoices } from '@/wire/choices';
import { FIRST_SETTINGS, Settings } from '@/wire/settings';
import { createJob } from './createJob';
import { changeSettings, workshopSettings } from './settings';

const NOW = new Date('2026-11-25T10:00:00Z');
let db: Awaited<ReturnType<typeof testDatabase>>;
beforeAll(async () => {
  db = await testDatabase();
});
afterAll(() => db.close());
afterEach(() => applyChoices(FIRST_SETTINGS));

const wanted: Settings = {
  workshop: { name: 'Net loft', address: 'North Quay' },
  benches: [{ name: 'Bench Z', who: 'whoever is in' }],
  zone: 'America/Halifax',
  decimal: 'comma',
  mains: '120/60',
  sound: false,
  meter: { ...FIRST_SETTINGS.meter, diodeAmps: 0.5e-3 },
  instruments: ['esr'],
  costs: { ...FIRST_SETTINGS.costs, bothMove: 12 },
  derating: { ...FIRST_SETTINGS.derating, fuse: 0.6 },
  closeOut: { ...FIRST_SETTINGS.closeOut, earthOhms: 0.1 },
};

test('as at first, then as they were set, for every process that reads them; figures follow', async () => {
  expect(await workshopSettings(db.pool)).toEqual(FIRST_SETTINGS);
  await changeSettings(db.pool, wanted, NOW);
  expect(formatQuantity(4700, 'ohm')).toBe('4,7\u2009kΩ');
  setDecimalMark('point');
  expect(await workshopSettings(db.pool)).toEqual(wanted);
  // The engine of this process goes by them.
  expect([workshopMeter().diodeAmps, workshopDerating().fuse.factor]).toEqual([0.5e-3, 0.6]);
  const far = { mode: 'ohms', red: 'A', black: 'B', settle: 0 } as const;
  expect(readingSeconds(far, null)).toBe(12);
  expect(formatQuantity(4700, 'ohm')).toBe('4,7\u2009kΩ');
  // Set again, it is still one row.
  await changeSettings(db.pool, { ...wanted, decimal: 'point' }, NOW);
  const { rows } = await db.pool.query('select count(*)::int as n from workshop_setting');
  expect(rows).toEqual([{ n: 1 }]);
});

test('settings of another version: what is missing or not understood is as at first, the rest stands', async () => {
  const body = { workshop: wanted.workshop, zone: 'Nowhere/Atoll', decimal: 'comma', lamps: 7 };
  await db.pool.query('update workshop_setting set body = $1', [JSON.stringify(body)]);
  expect(await workshopSettings(db.pool)).toEqual({
    ...FIRST_SETTINGS,
    workshop: wanted.workshop,
    decimal: 'comma',
  });
});

test.each([
  [
    'two benches of one name',
    {
      benches: [
        { name: 'A', who: '' },
        { name: 'a', who: '' },
      ],
    },
  ],
  ['no bench', { benches: [] }],
  ['a zone that nobody knows', { zone: 'Nowhere/Atoll' }],
  ['mains that no country has', { mains: '250/75' }],
  ['what is no setting', { lamps: 7 }],
])('%s is refused', (_, change) => expect(Settings.safeParse({ ...wanted, ...change }).success).toBe(false));

test('a new job on a typical circuit begins with the mains of the country, where the unit is made for it', async () => {
  await changeSettings(db.pool, wanted, NOW);
  const take = async (tag: string, plate: object): Promise<object | undefined> => {
    const job = NewJob.parse({
      tag,
      unit: 'A supply',
      nameplate: { source: 'mains', ...plate },
      complaint: '',
      symptoms: [],
      sources: [{ name: 'Mains lead', kind: 'mains' }],
      board: { from: 'typical', name: 'flyback-opto' },
      disconnected: true,
    });
    await createJob(db.pool, job, NOW);
    return (await jobByTag(db.pool, tag))?.nameplate;
  };
  expect(await take('S-1', { inputMin: 90, inputMax: 264 })).toMatchObject({ inputNominal: 120, hertz: 60 });
  expect(await take('S-2', { inputMin: 198, inputMax: 264 })).toMatchObject({ inputNominal: 230, hertz: 50 });
  expect(await take('S-3', { inputMin: 90, inputMax: 264, inputNominal: 100 })).toMatchObject({ inputNominal: 100 });
});
