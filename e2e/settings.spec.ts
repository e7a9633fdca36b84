import { expect, test } from '@playwright/test';
import { FIRST_SETTINGS } from '../src/wire/settings';
import { DEMO_SETTINGS } from '../src/demo/demoSettings';
import { choose, open, openProbe, origin, takeIn } from './bench';

test.afterEach(async ({ request }) => {
  const answer = await request.put('/api/settings', { data: DEMO_SETTINGS, headers: { origin: origin() } });
  expect(answer.status()).toBe(200);
});

test('the workshop sets how figures and times are written; what is typed may have either mark', async ({ page }) => {
  await takeIn(page.request, 'SE-1', { board: { from: 'typical', name: 'buck-module' } });
  await open(page, '/');
  await page.getByRole('link', { name: 'Settings' }).click();
  const name = page.getByRole('textbox', { name: 'Name', exact: true });
  await expect(name).toHaveValue(DEMO_SETTINGS.workshop.name);
  await name.fill('Net loft');
  await page.getByRole('radio', { name: '4,7' }).click();
  await choose(page.getByLabel('Time zone'), 'Asia/Tokyo');
  // A bench without a name is said at its field; nothing is kept until it is right.
  await page.getByRole('button', { name: 'Another bench' }).click();
  await page.getByRole('button', { name: 'Keep the settings' }).click();
  await expect(page.getByText('A bench needs a name.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Bench 3' }).fill('Loft');
  await page.getByRole('button', { name: 'Keep the settings' }).click();
  await expect(page.getByText('kept: figures are written like 4,7')).toBeVisible();

  await openProbe(page, 'SE-1');
  await choose(page.getByLabel('by', { exact: true }), 'Loft');
  const field = page.getByRole('textbox', { name: 'Reading' });
  const diode = (await page.locator('[data-point]').getAttribute('data-point'))?.startsWith('diode') === true;
  for (const typed of diode ? ['0,512', '0.512', '512'] : ['4,7k', '4.7k', '4k7']) {
    await field.fill(typed);
    await expect(page.getByText(diode ? /^0,512\s?V$/u : /^4,7\s?kΩ$/u).first()).toBeVisible();
  }
  await field.press('Enter');
  if (await page.getByText('as typed, or').isVisible()) await page.keyboard.press('1');
  const log = page.getByRole('complementary', { name: 'Job log' });
  await expect(log).toContainText(diode ? '0,512' : '4,7');
  await expect(log).toContainText('Loft');
  // Files keep the point, and times of the world.
  // A line shows before it is written.
  const csv = async (): Promise<string> => (await page.request.get('/api/jobs/SE-1/export?as=csv')).text();
  await expect.poll(csv).toContain(diode ? ',0.512,' : ',4700,');
  expect(await csv()).toMatch(/^\d{4}-\d\d-\d\dT[\d:.]+Z,Loft,/mu);
  await open(page, '/jobs/SE-1/report');
  await expect(page.getByText(/^Net loft, .* Asia\/Tokyo$/u)).toBeVisible();
});

for (const one of [
  {
    unit: 'SE-2',
    mode: 'cap',
    name: 'Capacitance',
    typed: '9,1 u',
    shown: /^9\.1\s?µF$/u,
    line: /capacitance 9\.1\s?µF/u,
    kept: /,cap,[^,]+,[^,]+,0?\.?0*9\.?1?[^,]*,/u,
  },
  {
    unit: 'SE-4',
    mode: 'ring',
    name: 'Ring tester',
    typed: '12',
    shown: /^12\s?cycles$/u,
    line: /ring test 12\s?cycles/u,
    kept: /,ring,[^,]+,[^,]+,12,/u,
  },
] as const)
  test(`with other instruments than the meter what diode test does not see is planned, read and judged: ${one.name}`, async ({
    page,
  }) => {
    const data = { ...DEMO_SETTINGS, instruments: ['esr', 'capacitance', 'ring'] };
    expect((await page.request.put('/api/settings', { data, headers: { origin: origin() } })).status()).toBe(200);
    await takeIn(page.request, one.unit, { board: { from: 'typical', name: 'buck-module' } });
    await openProbe(page, one.unit);
    const point = page.locator('[data-point]');
    const field = page.getByRole('textbox', { name: 'Reading' });
    const at = async (): Promise<string> => (await point.getAttribute('data-point')) ?? '';
    // What a steady current tells is asked for first; all of that is put off until an instrument's turn comes.
    for (let k = 0; k < 60 && !(await at()).startsWith(one.mode); k++) {
      const before = await at();
      await field.press('n');
      await expect(async () => expect(await at()).not.toBe(before)).toPass();
    }
    expect((await at()).split(' ')[0]).toBe(one.mode);
    await expect(point).toContainText(one.name);
    await expect(point).toContainText('a charge destroys this instrument');
    await field.fill(one.typed);
    await expect(page.getByText(one.shown).first()).toBeVisible();
    await field.press('Enter');
    const log = page.getByRole('complementary', { name: 'Job log' });
    await expect(log).toContainText(one.line);
    const csv = async (): Promise<string> => (await page.request.get(`/api/jobs/${one.unit}/export?as=csv`)).text();
    await expect.poll(csv).toMatch(one.kept);
  });

test('settings that are none are refused whole, with what is wrong', async ({ request }) => {
  const put = (data: object, headers: Record<string, string> = { origin: origin() }) =>
    request.put('/api/settings', { data, headers });
  expect((await put(FIRST_SETTINGS, {})).status()).toBe(403);
  const refused = await put({ ...FIRST_SETTINGS, zone: 'Nowhere/Atoll' });
  expect(refused.status()).toBe(422);
  expect(await refused.text()).toContain('No time zone of that name');
});

test('on a machine with cores to spare threads help with what is worked out, and end when they have', async ({
  page,
}) => {
  await page.addInitScript(() => Object.defineProperty(navigator, 'hardwareConcurrency', { value: 6 }));
  const begun = new Map<string, number>();
  let ended = 0;
  page.on('worker', (worker) => {
    begun.set(worker.url(), (begun.get(worker.url()) ?? 0) + 1);
    worker.on('close', () => ended++);
  });
  await takeIn(page.request, 'SE-3', { board: { from: 'typical', name: 'buck-module' } });
  await openProbe(page, 'SE-3');
  // Three of one kind; one that broke down would not have been ended by who asked it.
  expect(Math.max(...begun.values())).toBe(3);
  await expect.poll(() => ended).toBe(3);
});
