import { expect, test } from '@playwright/test';
import { open } from './bench';

test('anything is found by what it is called: Ctrl-K from a field, slash from the page, the button by touch', async ({
  page,
}) => {
  await open(page, '/jobs/SP-118/intake');
  const find = page.getByRole('dialog', { name: 'Find' });
  // Nothing typed: where one may go.
  await page.getByLabel('Waiting for').focus();
  await page.keyboard.press('Control+k');
  await expect(find.getByRole('option', { name: /^Make safe/u })).toBeVisible();
  // A part, by its designator: it is picked on the drawing.
  await page.keyboard.type('r12');
  await expect(find.getByRole('option').first()).toContainText('R12');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'About R12' })).toBeVisible();
  // A net by a place on it, from the page itself.
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('/');
  await page.keyboard.type('M1 drain');
  await find.getByRole('option', { name: /^DRAIN/u }).click();
  await expect(page.getByRole('region', { name: 'About net DRAIN' })).toBeVisible();
  // A sum stays in the job, so that it takes its figures from the board.
  await page.getByRole('button', { name: 'Find' }).click();
  await page.keyboard.type('discharge');
  await find
    .getByRole('option', { name: /discharge|empty/iu })
    .first()
    .click();
  await expect(page).toHaveURL(/\/jobs\/SP-118\/sums\?sum=/u);
  // Another job, by its unit, spelt not quite right.
  await page.getByRole('button', { name: 'Find' }).click();
  await page.keyboard.type('wether station');
  await find.getByRole('option', { name: /^SP-119/u }).click();
  await expect(page).toHaveURL(/SP-119/u);
  await expect(page).toHaveTitle(/SP-119 · Rough Lantern$/u);
});

test('help and finding are there on every page; where something is typed a key is what it types', async ({ page }) => {
  for (const path of ['/', '/sums', '/settings', '/jobs/new', '/jobs/SP-118/probe']) {
    await open(page, path);
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press('?');
    const keys = page.getByRole('dialog', { name: 'Keys' });
    await expect(keys).toContainText('Ctrl-K');
    await expect(keys.getByText('keep the reading')).toHaveCount(path.includes('SP-118') ? 1 : 0);
    await page.keyboard.press('Escape');
    await expect(keys).toHaveCount(0);
  }
  await open(page, '/');
  await page.getByLabel('Search jobs').focus();
  await page.keyboard.type('a/?g1');
  await expect(page.getByLabel('Search jobs')).toHaveValue('a/?g1');
  // The empty reading field leaves letters to the frame, a begun one keeps them.
  await open(page, '/jobs/SP-118/probe');
  await page.getByRole('textbox', { name: 'Reading' }).focus({ timeout: 60_000 });
  await page.keyboard.press('/');
  await expect(page.getByRole('dialog', { name: 'Find' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('textbox', { name: 'Reading' })).toHaveValue('');
});

test('who watches over the server is told its version and whether the database answers; what is not there says so', async ({
  page,
  request,
}) => {
  const health = (await (await request.get('/api/health')).json()) as { version: string; database: { state: string } };
  expect(health.version).toMatch(/^\d+\.\d+\.\d+$/u);
  expect(health.database.state).toBe('ok');
  const answer = await page.goto('/jobs/NO-SUCH/board');
  expect(answer?.status()).toBe(404);
  await expect(page.getByRole('heading', { name: 'Nothing here' })).toBeVisible();
  await page.getByRole('link', { name: 'To the bench' }).click();
  await expect(page.getByRole('heading', { name: 'Rough Lantern' })).toBeVisible();
});
