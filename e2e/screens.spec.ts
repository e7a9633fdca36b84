import { expect, test } from '@playwright/test';
import { choose, open, openProbe, watchTasks, logLines } from './bench';

test('a broken netlist names its lines, keeps what was typed, and saves nothing; a good one is taken', async ({
  page,
}) => {
  await open(page, '/jobs/new');
  await page.getByLabel('Tag', { exact: true }).fill('BAD-1');
  await page.getByLabel('Unit').fill('Something traced badly');
  const file = (text: string) => ({ name: 'board.cir', mimeType: 'text/plain', buffer: Buffer.from(text) });
  await page.getByLabel('Choose a board file').setInputFiles(file('bad\nR1 a b\nD1 a b NOPE\nZZ 1 2\n'));
  const trouble = page.getByRole('alert').filter({ hasText: 'board file' });
  await expect(trouble).toContainText('3 errors; nothing of it was taken');
  for (const line of ['Line 2', 'Line 3', 'Line 4']) await expect(trouble).toContainText(line);
  await expect(page.getByLabel('Tag', { exact: true })).toHaveValue('BAD-1');
  expect((await page.request.get('/jobs/BAD-1/intake')).status()).toBe(404);
  await page
    .getByLabel('Choose a board file')
    .setInputFiles(file('two resistors\nXJ1 a b CONN\nR1 a b 1k\nR2 a b 2k\n'));
  await expect(page.getByText('two resistors, 3 parts')).toBeVisible();
  await page.getByLabel('It came in with nothing connected').check();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page.getByRole('heading', { name: 'Make safe' })).toBeVisible();
  await expect(page.getByText('What is not traced is not empty: no bulk store')).toBeVisible();
});

test('a tag that is taken is said, and the form is kept', async ({ page }) => {
  await open(page, '/jobs/new?from=SP-115');
  await expect(page.getByLabel('Unit')).toHaveValue('Tidewell PC-5 pump control supply');
  await page.getByLabel('Tag', { exact: true }).fill('SP-118');
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page.getByRole('alert').first()).toContainText('already on another job');
  await page.getByLabel('Tag', { exact: true }).fill('SP-201');
  await page.getByLabel('It came in with nothing connected').check();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page).toHaveURL(/SP-201\/safe/u);
  await page.keyboard.press('g');
  await page.keyboard.press('3');
  await expect(page.getByRole('heading', { name: /Tidewell PC-5/u })).toBeVisible();
  await expect(page.getByText('20 parts')).toBeVisible();
});

test('a job gets a second board, the two are joined, and each is worked on by itself', async ({ page }) => {
  await open(page, '/jobs/SP-120/intake');
  await page.getByRole('button', { name: 'Add a board' }).click();
  await page.getByLabel('Name of the board').fill('Standby board');
  await page.getByText(/^Buck module/u).click();
  await page.getByRole('button', { name: 'Add this board' }).click();
  await expect(page.getByText('Standby board Typical buck')).toBeVisible();
  await choose(page.getByLabel('Harness from'), 1);
  await choose(page.getByLabel('to', { exact: true }), 1);
  await page.getByRole('button', { name: 'Join' }).click();
  const log = page.getByRole('complementary', { name: 'Job log' });
  await expect(log).toContainText('harness: Main board J1 pin 1 to Standby board J1 pin 1');
  await choose(page.getByLabel('Board worked on'), 'Standby board');
  await page
    .getByRole('navigation', { name: 'Steps of the job' })
    .getByRole('link', { name: /^Trace/u })
    .click();
  await expect(page.getByText('20 parts on')).toBeVisible();
  await choose(page.getByLabel('Board worked on'), 'Main board');
  await expect(page.getByText('45 parts on')).toBeVisible();
});

test('on a typical circuit each place says what it is on this board; the log can take it back', async ({ page }) => {
  await open(page, '/jobs/SP-120/board');
  await expect(page.getByRole('img', { name: /Schematic/u })).toBeVisible({ timeout: 30_000 });
  await page.getByLabel('Search parts and nets').fill('R5');
  await page.getByRole('button', { name: 'R5', exact: true }).click();
  const panel = page.getByRole('region', { name: 'About R5' });
  await expect(panel).toContainText('assumed');
  await expect(panel).toContainText('R5 330');
  await panel.getByLabel('Value').fill('0R47');
  await panel.getByRole('button', { name: 'Keep as seen' }).click();
  await expect(panel).toContainText('seen on the part');
  await expect(panel).toContainText('470');
  const log = page.getByRole('complementary', { name: 'Job log' });
  await expect(log).toContainText('R5 is=470m basis=seen');
  await page.reload();
  await page.getByRole('button', { name: 'R5', exact: true }).click();
  await expect(page.getByRole('region', { name: 'About R5' })).toContainText('seen on the part');
  await page.getByLabel('Search parts and nets').fill('RX1');
  await page.getByRole('button', { name: 'RX1', exact: true }).click();
  await page.getByRole('button', { name: 'Not on my board' }).click();
  await expect(page.getByRole('region', { name: 'About RX1' })).toContainText('not fitted');
});

test('going on without proof keeps the reason; a slip of the prefix is asked about; undo takes a reading back', async ({
  page,
}) => {
  await open(page, '/jobs/SP-120/probe');
  await page.getByRole('button', { name: 'Go on without these proofs' }).click();
  await page.getByLabel('Why the stores are known to be empty').fill('lying open for a month, shorting lead across C1');
  await page.keyboard.press('Enter');
  const log = page.getByRole('complementary', { name: 'Job log' });
  await expect(log).toContainText('shorting lead across C1');
  await expect(page.locator('[data-point][data-settled="yes"]')).toBeVisible({ timeout: 60_000 });
  const lines = logLines(page);
  const before = await lines.count();
  await page.keyboard.type('o');
  await expect(lines).toHaveCount(before + 1);
  await expect(page.locator('[data-outcome]')).toBeVisible();
  await expect(page.locator('[data-point][data-settled="yes"]')).toBeVisible();
  await page.keyboard.press('u');
  await expect(log).toContainText('undone');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
});

test('a line that gets no answer stays, over a reload too, and is written once when the answer comes', async ({
  page,
}) => {
  await openProbe(page, 'SP-120');
  const lines = logLines(page);
  const before = await lines.count();
  let lost = 0;
  let dead = true;
  // The first is written but its answer is lost; then nothing gets through. The way stays watched to the end: taken off
  // while the reloaded page still fetches, it may hold what is under way.
  await page.route('**/lines', async (route) => {
    if (!dead) return route.continue();
    if (lost++ === 0) await route.fetch();
    await route.abort();
  });
  await page.keyboard.type('o');
  const waiting = page.getByRole('list', { name: 'Not written yet' });
  await expect(waiting).toContainText('OL');
  await expect(page.getByText('The application did not answer')).toBeVisible();
  await page.reload();
  await expect(waiting).toContainText('OL');
  expect(lost).toBeGreaterThan(1);
  dead = false;
  await expect(waiting).toHaveCount(0);
  await page.reload();
  await expect(lines).toHaveCount(before + 1);
});

test('changes from another origin, of the wrong shape or too large are refused', async ({ request, baseURL }) => {
  const body = {
    clientKey: '7d444840-9dc0-41d1-b245-5ffdce74fad2',
    actor: 'Bench A',
    boardId: null,
    entry: { kind: 'action', body: { words: 'x' } },
  };
  const post = (origin: string | undefined, data: unknown) =>
    request.post('/api/jobs/SP-119/lines', { data, headers: origin ? { origin } : {} });
  expect((await post('http://elsewhere.example', body)).status()).toBe(403);
  expect((await post(undefined, body)).status()).toBe(403);
  expect((await post(baseURL, { ...body, entry: { kind: 'gossip', body: {} } })).status()).toBe(422);
  expect((await post(baseURL, { ...body, actor: 'x'.repeat(60_000) })).status()).toBe(413);
  expect((await post(baseURL, body)).status()).toBe(200);
});

test('typing in Probe is never blocked: no task of the page takes 100 ms while the plan is made', async ({ page }) => {
  await openProbe(page, 'SP-120');
  const worst: number[] = [];
  for (let k = 0; k < 5; k++) {
    await expect(page.locator('[data-point][data-settled="yes"]')).toBeVisible();
    const busiest = await watchTasks(page);
    await page.keyboard.type('4k7123', { delay: 30 });
    for (let i = 0; i < 6; i++) await page.keyboard.press('Backspace');
    await page.keyboard.type('o');
    await page.waitForTimeout(400);
    worst.push(await busiest());
  }
  // The machine may be slow at one time: what blocks the page would do so in every round.
  const median = [...worst].sort((a, b) => a - b)[2]!;
  expect([worst, median < 100]).toEqual([worst, true]);
});
