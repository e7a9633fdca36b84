import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { ARCHETYPES, archetypeBoard } from '../src/core/archetype';
import type { UnpoweredMode } from '../src/core/meter';
import { brokenBoard, open, origin, takeIn, write, logLines } from './bench';

const word = (page: Page) => page.locator('header [data-hazard]');
const proof = (refs: readonly string[]): object => ({
  kind: 'discharge-proof',
  body: { storeKey: 'x', refs, volts: 0.03, meterProved: true },
});
const powered = { kind: 'recharged', body: { why: 'lamp test' } };

test('what another bench writes raises the hazard here within five seconds, on the job and on the bench', async ({
  page,
  context,
  request,
}) => {
  const board = await takeIn(request, 'SF-1');
  await write(request, 'SF-1', proof(['C1']), board);
  await open(page, '/jobs/SF-1/safe');
  await expect(word(page)).toHaveAttribute('data-hazard', 'DISCHARGED');
  const bench = await context.newPage();
  await open(bench, '/');
  const row = bench.getByRole('row').filter({ hasText: 'SF-1' });
  await expect(row.locator('[data-hazard]')).toHaveAttribute('data-hazard', 'DISCHARGED');
  // One round of news, so that the bench knows what it has seen.
  await bench.waitForTimeout(2000);
  await write(request, 'SF-1', powered, null);
  await Promise.all([
    expect(word(page)).toHaveAttribute('data-hazard', 'NOT PROVED', { timeout: 5000 }),
    expect(row.locator('[data-hazard]')).toHaveAttribute('data-hazard', 'NOT PROVED', { timeout: 5000 }),
  ]);
  await expect(page.getByRole('complementary', { name: 'Job log' })).toContainText('lamp test');
});

test('without contact the state is unknown, never discharged, and it comes back with the contact', async ({
  page,
  context,
  request,
}) => {
  const board = await takeIn(request, 'SF-2');
  await write(request, 'SF-2', proof(['C1']), board);
  await open(page, '/jobs/SF-2/safe');
  await expect(word(page)).toHaveAttribute('data-hazard', 'DISCHARGED');
  await context.setOffline(true);
  await expect(word(page)).toHaveAttribute('data-hazard', 'UNKNOWN', { timeout: 12_000 });
  await expect(word(page)).toContainText(/UNKNOWN since \d\d:\d\d/u);
  await expect(page.getByRole('status').filter({ hasText: 'No contact with the log' })).toBeVisible();
  await context.setOffline(false);
  await expect(word(page)).toHaveAttribute('data-hazard', 'DISCHARGED', { timeout: 12_000 });
});

test('while a page cannot judge for itself it shows what the server said of it, and nothing once there is news', async ({
  page,
  context,
  request,
}) => {
  const board = await takeIn(request, 'SF-12');
  await write(request, 'SF-12', proof(['C1']), board);
  let broken = true;
  // What judges stores is in no script that this page begins with.
  await context.route('**/_next/static/chunks/*.js', async (route) => {
    const answer = await route.fetch();
    return broken && (await answer.text()).includes('what is not traced is not empty')
      ? route.abort()
      : route.fulfill({ response: answer });
  });
  await open(page, '/jobs/SF-12/drawing');
  const told = page.getByText('What computes could not be fetched');
  await expect(told).toBeVisible();
  await expect(word(page)).toHaveAttribute('data-hazard', 'DISCHARGED');
  await write(request, 'SF-12', { kind: 'finding', body: { place: 'C1', severity: 'note', words: 'domed' } }, board);
  await expect(word(page)).toHaveAttribute('data-hazard', 'UNKNOWN', { timeout: 5000 });
  broken = false;
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(word(page)).toHaveAttribute('data-hazard', 'DISCHARGED');
  await expect(told).toBeHidden();
});

test('a line that waits in this window raises the hazard at once; a proof that waits lowers nothing', async ({
  page,
  request,
}) => {
  const board = await takeIn(request, 'SF-3');
  await write(request, 'SF-3', proof(['C1']), board);
  await open(page, '/jobs/SF-3/safe');
  await expect(word(page)).toHaveAttribute('data-hazard', 'DISCHARGED');
  await page.route('**/lines', (route) => route.abort());
  await page.getByRole('button', { name: 'It was powered again' }).click();
  await expect(word(page)).toHaveAttribute('data-hazard', 'NOT PROVED', { timeout: 2000 });
  await page.getByLabel('Meter proved on a known source').check();
  await page.getByLabel('DC volts read').fill('0.02');
  await page.keyboard.press('Enter');
  await expect(word(page)).toHaveAttribute('data-hazard', 'NOT PROVED');
  await page.unroute('**/lines');
  // Both arrive in their order, and then it is proved.
  await expect(word(page)).toHaveAttribute('data-hazard', 'DISCHARGED', { timeout: 15_000 });
});

test('an empty board is not an empty unit: traced first, proved by place', async ({ page, request }) => {
  await takeIn(request, 'SF-4', { board: { from: 'empty' } });
  await open(page, '/');
  const row = page.getByRole('row').filter({ hasText: 'SF-4' });
  await expect(row).toContainText('Trace the board, or choose a typical circuit');
  await expect(row.locator('[data-hazard]')).toHaveAttribute('data-hazard', 'NOT PROVED');
  await open(page, '/jobs/SF-4/safe');
  await expect(page.getByText('What is not traced is not empty: no bulk store')).toBeVisible();
  await expect(page.locator('[data-store="not-traced"]')).toContainText('plus to minus of the rectifier');
  await page.getByLabel('Meter proved on a known source').check();
  await page.getByLabel('DC volts read').fill('0.02');
  await page.keyboard.press('Enter');
  await expect(word(page)).toHaveAttribute('data-hazard', 'DISCHARGED');
  await expect(page.getByRole('link', { name: 'Trace the board, or choose a typical circuit' })).toBeVisible();
});

test('a marking that may be 180 uF is taken for that until somebody says what it is', async ({ page, request }) => {
  const board = await takeIn(request, 'SF-5');
  await write(request, 'SF-5', { kind: 'trace', body: { text: 'C5 180 FB M' } }, board);
  await open(page, '/jobs/SF-5/safe');
  const store = page.locator('[data-store="C5"]');
  await expect(store).toContainText(/marked 180: taken for 180.µF/u);
  await store.getByRole('button', { name: /It is 18\D/u }).click();
  await expect(store).toHaveCount(0);
});

test('a permit to power is earned by the readings of its list, by keys, and ends with what is found out at them', async ({
  page,
  request,
}) => {
  const circuit = ARCHETYPES.find((a) => a.name === 'buck-module')!;
  const { source, inputRail, inputReturn, inputMax, outputs } = circuit.nameplate;
  const board = await takeIn(request, 'SF-6', {
    nameplate: { source, inputRail, inputReturn, inputMax, outputs },
    board: { from: 'netlist', text: circuit.netlist },
  });
  const meter = brokenBoard(archetypeBoard('buck-module')!, '', 8);
  await write(request, 'SF-6', { kind: 'override', body: { what: 'proof', reason: 'shorting lead' } }, null);
  await open(page, '/jobs/SF-6/probe');
  const permit = page.locator('[data-permit]');
  await expect(permit).toHaveAttribute('data-permit', 'shut', { timeout: 60_000 });
  await expect(permit).toContainText('Nothing has been read yet: a permit is earned by readings');
  const missing = permit.getByRole('listitem').getByRole('button');
  await expect(missing.first()).toBeVisible();
  for (let k = 0; k < 6 && (await permit.getAttribute('data-permit')) === 'shut'; k++) {
    const before = await missing.count();
    await expect(missing.first()).toContainText(/rules out a short/u);
    await missing.first().focus();
    await page.keyboard.press('Enter');
    await expect(missing.first()).toHaveAttribute('aria-current', 'true');
    const point = (await page.locator('[data-point]').getAttribute('data-point')) ?? '';
    const [mode = '', red = '', black = ''] = point.split(' ');
    await page.keyboard.type(meter(mode as UnpoweredMode, red, black));
    await page.keyboard.press('Enter');
    // What one reading rules out leaves the list, sometimes more than it promised.
    await expect.poll(() => missing.count()).toBeLessThan(before);
  }
  await expect(permit).toHaveAttribute('data-permit', 'open');
  await expect(permit).toContainText('May be powered');
  await expect(permit).toContainText('Not a word on whether it is safe to touch');
  await expect(permit.locator('li').first()).toContainText(/rules out a short/u);
  const rail = String(circuit.nameplate.outputs![0]!.rail);
  await write(request, 'SF-6', { kind: 'trace', body: { text: `R77 472 ${rail} ZZ` } }, board);
  await expect(permit).toHaveAttribute('data-permit', 'shut', { timeout: 60_000 });
});

test('a line that the server cannot take, however often, is set aside with its reason and the next goes on', async ({
  page,
  request,
}) => {
  await takeIn(request, 'SF-7');
  await open(page, '/jobs/SF-7/safe');
  const log = logLines(page);
  const before = await log.count();
  await page.route('**/lines', async (route) => {
    const stuck = route.request().postData()?.includes('"wet":true');
    const problem = { code: 'server-trouble', sentence: 'The server could not do this now.', remedy: 'Try again.' };
    await (stuck ? route.fulfill({ status: 503, json: { problem } }) : route.continue());
  });
  await page.getByRole('button', { name: 'It is wet' }).click();
  await page.getByRole('button', { name: 'It is dry' }).click();
  await expect(page.getByText('The place is dry.')).toBeVisible({ timeout: 40_000 });
  await expect(log).toHaveCount(before + 1);
  await expect(page.getByRole('alert').filter({ hasText: 'A line was set aside, the others went on' })).toContainText(
    'wet',
  );
});

test('only names on the list are answered; nothing may frame the pages or bring scripts from elsewhere', async ({
  request,
}) => {
  const home = await request.get('/');
  expect(home.status()).toBe(200);
  const policy = home.headers()['content-security-policy'] ?? '';
  for (const rule of ["default-src 'self'", "frame-ancestors 'none'", "object-src 'none'"])
    expect(policy).toContain(rule);
  expect(home.headers()['permissions-policy']).toContain('camera=()');
  for (const path of ['/', '/api/pulse', '/jobs/SP-118/safe', '/api/jobs/SP-118/pulse'])
    expect((await request.get(path, { headers: { host: 'elsewhere.example' } })).status()).toBe(421);
});

test('odd addresses and numbers are answered with a sentence, never with trouble of the server', async ({
  request,
}) => {
  for (const path of [
    '/api/jobs/%00/pulse',
    '/api/jobs/constructor/export?as=json',
    '/api/jobs/SP-118/pulse?after=99999999999999999999',
    '/api/jobs/SP-118/photos/999999999999999999999',
    '/api/boards/1e9',
    '/jobs/%E0%A4%A/safe',
    '/jobs/__proto__/safe',
  ]) {
    const status = (await request.get(path)).status();
    expect([path, status >= 400 && status < 500]).toEqual([path, true]);
  }
  const data =
    '{"clientKey":"7d444840-9dc0-41d1-b245-5ffdce74fad2","actor":"a\\u0000","boardId":null,"entry":{"kind":"action","body":{"words":"x"}}}';
  const answer = await request.post('/api/jobs/SP-118/lines', {
    data,
    headers: { origin: origin(), 'content-type': 'application/json' },
  });
  expect(answer.status()).toBe(422);
});
