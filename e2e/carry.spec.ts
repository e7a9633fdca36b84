import { fork } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { choose, open, takeIn, logLines } from './bench';

/** The database of this lane of tests. */
const databaseUrl = (): string | undefined => process.env['DATABASE_URL']?.split(' ')[test.info().parallelIndex];

/** A server of its own on the same database, which may be killed. */
async function server(port: number): Promise<ChildProcess> {
  const child = fork('launcher/serveChild.mjs', [String(port), databaseUrl()!], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  await once(child, 'message');
  return child;
}
const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const asked = createServer().listen(0, '127.0.0.1', () => {
      const { port } = asked.address() as AddressInfo;
      asked.close(() => resolve(port));
    });
  });
const waiting = (page: Page) => page.getByRole('list', { name: 'Not written yet' }).getByRole('listitem');

test('five lines wait while the server is dead, the tab is closed and opened again: all five arrive once, in their order', async ({
  context,
  request,
}) => {
  test.skip(databaseUrl() === undefined, 'the database of the server under test is not known');
  await takeIn(request, 'CA-1');
  const port = await freePort();
  const path = `http://127.0.0.1:${port}/jobs/CA-1/safe`;
  let running = await server(port);
  try {
    const page = await context.newPage();
    await open(page, path);
    const dead = once(running, 'exit');
    running.kill('SIGKILL');
    await dead;
    for (const word of ['wet', 'dry', 'wet', 'dry', 'wet'])
      await page.getByRole('button', { name: `It is ${word}` }).click();
    // Shown at once, each says so when it would outlast the tab.
    await expect(waiting(page)).toHaveCount(5);
    await expect(waiting(page).filter({ hasText: 'kept here until it is written' })).toHaveCount(5);
    await page.close();
    running = await server(port);
    const again = await context.newPage();
    await open(again, path);
    await expect(waiting(again)).toHaveCount(0, { timeout: 30_000 });
    await expect(again.getByText('To touch: below').first()).toContainText('The place is wet');
    const said = async (): Promise<readonly (boolean | undefined)[]> => {
      const { lines: written } = (await (await request.get('/api/jobs/CA-1/pulse')).json()) as {
        lines: { entry: { kind: string; body: { wet?: boolean } } }[];
      };
      return written.filter((l) => l.entry.kind === 'site').map((l) => l.entry.body.wet);
    };
    await expect.poll(said).toEqual([true, false, true, false, true]);
  } finally {
    running.kill('SIGKILL');
  }
});

test('what was taken in wrongly is put right, undone, the job closed, put away and found again', async ({ page }) => {
  await takeIn(page.request, 'CA-2', { board: { from: 'typical', name: 'flyback-opto' } });
  await open(page, '/jobs/CA-2/intake');
  await page.getByRole('button', { name: 'Correct what was taken in' }).click();
  const form = page.getByRole('form', { name: 'Correct what was taken in' });
  await form.getByLabel('Unit', { exact: true }).fill('Tidewell PC-9');
  await form.getByLabel('Highest, V').fill('13x');
  await expect(form.getByRole('alert')).toBeVisible();
  await form.getByRole('button', { name: 'Write the correction' }).click();
  await expect(form).toBeVisible();
  await form.getByLabel('Highest, V').fill('132');
  await form.getByRole('button', { name: 'Another output' }).click();
  await form
    .getByLabel(/^Output \d, V$/u)
    .last()
    .fill('5,1');
  await form.getByRole('button', { name: 'Another source' }).click();
  await form.getByLabel('Source 2').fill('Panel');
  await choose(form.getByRole('combobox', { name: 'Kind' }).last(), 'solar');
  await form.getByRole('button', { name: 'Write the correction' }).click();
  await expect(form).toBeHidden();
  await expect(page.getByRole('heading', { name: 'Tidewell PC-9' })).toBeVisible();
  await expect(page.getByRole('definition').filter({ hasText: /5[.,]1/u })).toBeVisible();
  await expect(page.getByRole('banner')).toContainText('LIVE');
  await expect(logLines(page).first()).toContainText('corrected: unit, nameplate, sources');
  await logLines(page).first().getByRole('button', { name: /^Undo/u }).click();
  await expect(page.getByRole('heading', { name: 'Tidewell test piece' })).toBeVisible();
  // It was named: it is asked for until somebody has made sure of it.
  await open(page, '/jobs/CA-2/safe');
  await expect(page.getByText('taken off the list: be sure of it all the same')).toBeVisible();
  await page.getByRole('button', { name: 'Disconnected' }).click();
  await expect(page.getByRole('banner')).not.toContainText('LIVE');

  await open(page, '/jobs/CA-2/intake');
  await choose(page.getByRole('combobox', { name: 'Outcome' }), 'returned as it came');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Close it' }).click();
  await page.getByRole('button', { name: 'Put it away' }).click();
  await expect(page.getByText('Put away: the bench finds it again')).toBeVisible();
  await open(page, '/');
  await expect(page.getByRole('link', { name: 'CA-2', exact: true })).toHaveCount(0);
  await page.getByLabel('Search jobs').fill('CA-2');
  await page.getByRole('link', { name: 'CA-2', exact: true }).click();
  await open(page, '/jobs/CA-2/intake');
  await page.getByRole('button', { name: 'Back on the bench' }).click();
  await expect(page.getByRole('button', { name: 'Put it away' })).toBeVisible();
  await open(page, '/');
  await expect(page.getByRole('link', { name: 'CA-2', exact: true })).toBeVisible();
});

test('a whole job out and in again under another tag: its report is the same, its drawing is in the file', async ({
  page,
}) => {
  await open(page, '/jobs/SP-115/report');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Whole job (.zip)' }).click();
  const path = (await (await saved).path())!;
  // Names stand in the file as they are: the drawing is among them.
  expect(readFileSync(path).includes('drawings/1-main-board.svg')).toBe(true);
  const report = async (tag: string): Promise<string> => {
    await open(page, `/jobs/${tag}/report`);
    // What is computed comes a moment later.
    await expect(page.getByText(/Working out|being worked out/u).first()).toBeHidden({ timeout: 60_000 });
    await expect(page.getByText('What it can give')).toBeVisible();
    await expect(page.getByRole('img', { name: /^Drawing of/u })).toBeVisible();
    // The sheet of the drawing says when it was printed.
    const text = (await page.locator('article').innerText()).replace(/\d{4}-\d\d-\d\d \d\d:\d\d · A4/u, 'WHEN · A4');
    return text.replaceAll(tag, 'TAG');
  };
  const before = await report('SP-115');
  await open(page, '/jobs/new');
  await page.getByLabel('Job file').setInputFiles(path);
  await expect(page.getByText('Tag SP-115 is already on another job.')).toBeVisible();
  await page.getByLabel('Other tag').fill('CA-3');
  await page.getByRole('button', { name: 'Bring it in so' }).click();
  // What is brought in counts as connected: one unit of a bench may be.
  await expect(page.getByText('is still LIVE on Bench B')).toBeVisible();
  await choose(page.getByRole('combobox', { name: 'Bench it stands on' }), 'Bench A');
  await page.getByRole('button', { name: 'Bring it in so' }).click();
  await expect(page).toHaveURL(/CA-3\/safe/u);
  await expect(page.getByText('Brought in from a file')).toBeVisible();
  await expect(page.getByRole('banner')).toContainText('LIVE');
  expect(await report('CA-3')).toBe(before);
  // No unit is left connected on a bench for the others.
  await open(page, '/jobs/CA-3/safe');
  const off = page.getByRole('button', { name: /^(?:Unplugged|Taken off, ends taped|Disconnected)$/u });
  for (let left = await off.count(); left > 0; left--) {
    await off.first().click();
    await expect(off).toHaveCount(left - 1);
  }
  await expect(page.getByRole('banner')).not.toContainText('LIVE');
  await open(page, '/jobs/new');
  await page
    .getByLabel('Job file')
    .setInputFiles({ name: 'x.zip', mimeType: 'application/zip', buffer: Buffer.from('no') });
  await expect(page.getByText('This is no zip file, or it is cut short.')).toBeVisible();
});

test('a worker that cannot be fetched is told, and begins anew when it is asked to', async ({ page, context }) => {
  await takeIn(page.request, 'CA-4', { board: { from: 'typical', name: 'buck-module' } });
  let broken = true;
  await context.route('**/*worker*.js', (route) => (broken ? route.abort() : route.continue()));
  await open(page, '/jobs/CA-4/expect');
  const told = page.getByText('What computes could not be fetched');
  await expect(told).toBeVisible();
  broken = false;
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(told).toBeHidden();
  await expect(page.getByRole('table', { name: 'What every point should show' })).toBeVisible({ timeout: 30_000 });
});

test('a drawing that takes too long is stopped, and drawn when it is asked for', async ({ page, context }) => {
  await takeIn(page.request, 'CA-5', { board: { from: 'typical', name: 'buck-module' } });
  let release = (): void => {};
  const held = new Promise<void>((resolve) => (release = resolve));
  await context.route('**/*worker*.js', async (route) => {
    await held;
    await route.continue().catch(() => undefined);
  });
  await open(page, '/jobs/CA-5/board');
  await expect(page.getByText('Drawing the schematic')).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByText('The schematic is not drawn')).toBeVisible();
  release();
  await page.getByRole('button', { name: 'Draw it' }).click();
  await expect(page.getByRole('img', { name: /Schematic/u })).toContainText('L1', { timeout: 30_000 });
});
