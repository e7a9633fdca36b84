import { expect, test } from '@playwright/test';
import { onlyPrimary, open, takeIn, write } from './bench';

const word = '[data-hazard]';
const MODULE = {
  board: { from: 'typical', name: 'buck-module' },
  nameplate: { source: 'dc', inputMin: 7, inputNominal: 12, inputMax: 30 },
  sources: [{ name: 'DC input', kind: 'dc' }],
};

test('under power: what every point should show by keys, the verdict, LIVE from the first figure', async ({
  page,
  request,
}) => {
  const board = await takeIn(request, 'PW-1', MODULE);
  const proof = { kind: 'discharge-proof', body: { storeKey: 'x', refs: ['C1'], volts: 0.03, meterProved: true } };
  await write(request, 'PW-1', proof, board);
  await open(page, '/jobs/PW-1/probe');
  await page.getByRole('tab', { name: 'Under power' }).click();
  const points = page.getByRole('table', { name: 'Points under power' });
  await expect(points).toBeVisible({ timeout: 30_000 });
  await expect(points.getByRole('row').filter({ hasText: 'source' })).toContainText('11.88');
  await expect(
    points
      .getByRole('row')
      .filter({ hasText: /^output/u })
      .first(),
  ).toContainText(/4\.[789]\d*\s?V to 5\.[012]\d*\s?V/u);
  expect(await onlyPrimary(page)).toBe('Keep the reading');
  // The field takes digits wherever focus is; n goes on, the steps name the parts that hold the rail.
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.type('12.02');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-outcome="agree"]')).toContainText('12.02');
  await expect(page.locator(`header ${word}`)).toHaveAttribute('data-hazard', 'LIVE');
  await points.getByRole('button', { name: 'output', exact: true }).click();
  await expect(page.getByRole('list', { name: 'How it comes about' })).toContainText('R3');
  await page.keyboard.type('3.1');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-outcome="disagree"]')).toContainText('3.1');
  await expect(page.getByText(/Not as a sound unit: OUT\+ against GND read 3\.1/u)).toBeVisible();
  // Another load is another unit: nothing read at half load stands beside it.
  await page.getByRole('radio', { name: 'Full' }).click();
  await expect(
    points
      .getByRole('row')
      .filter({ hasText: /^output/u })
      .first(),
  ).toContainText('—', { timeout: 30_000 });
  await expect(page.getByRole('complementary', { name: 'Job log' })).toContainText('DC volts 3.1');
  await open(page, '/jobs/PW-1/report');
  await expect(page.getByRole('heading', { name: 'Read under power' })).toBeVisible();
  await expect(page.getByRole('cell', { name: /12\s?V, half load/u }).first()).toBeVisible();
  const told = page.getByRole('row').filter({ hasText: /3\.1\s?V/u });
  await expect(told.getByLabel('disagree')).toBeVisible({ timeout: 30_000 });
  const csv = await (await page.request.get('/api/jobs/PW-1/export?as=csv')).text();
  expect(csv).toMatch(/,dcv,OUT\+,GND,3\.1,,,,V,powered,,,12\.02,half\n/u);
  // What was proved before counts no more, and isolating alone proves nothing.
  await write(request, 'PW-1', { kind: 'isolation', body: { source: 'DC input' } }, null);
  await page.reload();
  await expect(page.locator(`header ${word}`)).toHaveAttribute('data-hazard', 'NOT PROVED');
});

test('what cannot be a figure is said and kept; a source that is none asks for volts', async ({ page, request }) => {
  await takeIn(request, 'PW-2', MODULE);
  await open(page, '/jobs/PW-2/probe');
  await page.getByRole('tab', { name: 'Under power' }).click();
  await expect(page.getByRole('table', { name: 'Points under power' })).toBeVisible({ timeout: 30_000 });
  const field = page.getByLabel('Reading under power');
  await field.fill('12 ohm');
  await expect(page.getByRole('button', { name: 'Keep the reading' })).toBeDisabled();
  await page.keyboard.press('Enter');
  await expect(field).toHaveValue('12 ohm');
  await page.getByLabel('Fed with, V').fill('much');
  await expect(page.getByText('Volts, such as 230.')).toBeVisible();
  await page.getByLabel('Fed with, V').fill('9');
  const row = page.getByRole('table', { name: 'Points under power' }).getByRole('row').filter({ hasText: 'source' });
  await expect(row).toContainText('8.91', { timeout: 30_000 });
});

test('rails at work: under the worst case in Make safe, a figure for a sum, what a change moves', async ({
  page,
  request,
}) => {
  const board = await takeIn(request, 'PW-3', MODULE);
  await open(page, '/jobs/PW-3/safe');
  const store = page.locator('[data-store]').filter({ hasText: 'At work' }).first();
  // The input capacitor bears its source less a diode; its worst case stays what it is emptied for.
  await expect(store).toContainText(/At work 11\.6\s?V/u, { timeout: 30_000 });
  const most = async (): Promise<number> => parseFloat((await store.locator('.figure').first().textContent())!);
  expect(await most()).toBeGreaterThan(30);
  await open(page, '/jobs/PW-3/sums?sum=discharge-time');
  await page.getByLabel('voltage at the start', { exact: true }).fill('@');
  await page.getByLabel('Find a figure of the board').fill('OUT+ at work');
  await expect(page.getByRole('option').first()).toContainText('OUT+ at work', { timeout: 30_000 });
  await page.keyboard.press('Enter');
  await expect(page.getByText(/follows OUT\+ at work/u)).toBeVisible();
  // Another visit has it again as soon as the unit is worked out, and never calls it lost.
  await page.reload();
  await expect(page.getByText(/follows OUT\+ at work/u)).toBeVisible({ timeout: 30_000 });
  await open(page, '/jobs/PW-3/modify');
  await page.getByLabel('Wanted output, V').fill('6.2');
  await expect(page.getByText(/At work, full load: OUT\+ [45][.\d]*\s?V → 6\.\d+\s?V/u)).toBeVisible({
    timeout: 30_000,
  });
  expect(board).not.toBe('');
});
