import { request as httpRequest } from 'node:http';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { choose, FRONT, open, openProbe, origin, takeIn, write } from './bench';

const waiting = (page: Page) => page.getByRole('list', { name: 'Not written yet' });
const wet = (page: Page) => page.getByRole('button', { name: 'It is wet' });
const words = async (page: Page, tag: string): Promise<readonly string[]> => {
  const news = (await (await page.request.get(`/api/jobs/${tag}/pulse`)).json()) as {
    lines: { entry: { kind: string; body: { words?: string; wet?: boolean } } }[];
  };
  return news.lines.map((l) => l.entry.kind);
};

test('two windows that cannot reach the server keep both lines, and each is written once when it answers', async ({
  context,
  request,
}) => {
  await takeIn(request, 'LA-1');
  const pages = [await context.newPage(), await context.newPage()];
  for (const page of pages) await open(page, '/jobs/LA-1/safe');
  await context.route('**/lines', (route) => route.abort());
  for (const page of pages) {
    await wet(page).click();
    await expect(waiting(page)).toContainText('wet');
  }
  // Both reload in the middle: each finds what the other has left, and nobody writes over anybody.
  for (const page of pages) await page.reload();
  for (const page of pages) await expect(waiting(page).locator('li')).toHaveCount(2);
  await context.unroute('**/lines');
  for (const page of pages) await expect(waiting(page)).toHaveCount(0, { timeout: 30_000 });
  expect((await words(pages[0]!, 'LA-1')).filter((k) => k === 'site')).toHaveLength(2);
});

test('a full store of the browser is told, and the line is written all the same', async ({ page, request }) => {
  await takeIn(request, 'LA-2');
  await open(page, '/jobs/LA-2/safe');
  const browser = await page.context().newCDPSession(page);
  await browser.send('Storage.overrideQuotaForOrigin', { origin: new URL(page.url()).origin, quotaSize: 1 });
  await page.route('**/lines', (route) => route.abort());
  await wet(page).click();
  await expect(page.getByText('own store is full')).toBeVisible();
  await page.unroute('**/lines');
  await expect(waiting(page)).toHaveCount(0, { timeout: 30_000 });
  expect(await words(page, 'LA-2')).toContain('site');
});

test('what was set aside is still told after a reload, until it has been seen', async ({ page, request }) => {
  await takeIn(request, 'LA-3');
  await open(page, '/jobs/LA-3/safe');
  const problem = { code: 'bad-input', sentence: 'This cannot be taken.', remedy: 'Write it anew.' };
  await page.route('**/lines', (route) => route.fulfill({ status: 422, json: { problem } }));
  await wet(page).click();
  await expect(page.getByText('This cannot be taken.')).toBeVisible();
  await page.reload();
  await expect(page.getByText('the place is wet: This cannot be taken.')).toBeVisible();
  await page.getByRole('button', { name: 'seen' }).click();
  await page.reload();
  await expect(page.locator('html[data-listening="yes"]')).toHaveCount(1);
  await expect(page.getByText('This cannot be taken.')).toHaveCount(0);
});

test('a figure half typed stays with its board: another board has its own plan, and no reading goes to the wrong one', async ({
  page,
  request,
}) => {
  const first = await takeIn(request, 'LA-4');
  const added = await request.post('/api/jobs/LA-4/boards', {
    data: { kind: 'add', label: 'Panel', board: { from: 'typical', name: 'buck-module' }, actor: 'Bench A' },
    headers: { origin: origin() },
  });
  expect(added.status(), await added.text()).toBe(200);
  await openProbe(page, 'LA-4');
  const point = page.locator('[data-point]');
  const field = page.getByRole('textbox', { name: 'Reading' });
  const here = await point.getAttribute('data-point');
  await page.keyboard.type('4k7');
  const boards = page.getByRole('combobox', { name: 'Board worked on' });
  await choose(boards, 'Panel');
  // Nothing of the first board is shown while the second is worked out.
  await expect(point.and(page.locator(`[data-point="${here}"]`))).toHaveCount(0);
  await expect(page.locator('[data-point][data-settled="yes"]')).toBeVisible({ timeout: 60_000 });
  await expect(field).toHaveValue('');
  const there = (await point.getAttribute('data-point'))!;
  await page.keyboard.type('o');
  await expect(page.locator('[data-outcome]')).toBeVisible();
  await choose(boards, 'Main board');
  await expect(field).toHaveValue('4k7', { timeout: 60_000 });
  await expect(point).toHaveAttribute('data-point', here!);
  await field.press('Enter');
  if (await page.getByText('as typed, or').isVisible()) await page.keyboard.press('1');
  const readings = async () => {
    const news = (await (await request.get('/api/jobs/LA-4/pulse')).json()) as {
      lines: { boardId: string; entry: { kind: string; body: { mode: string; red: string; black: string } } }[];
    };
    return news.lines.flatMap(({ boardId, entry: { kind, body } }) =>
      kind === 'reading' ? [[boardId === first, `${body.mode} ${body.red} ${body.black}`]] : [],
    );
  };
  await expect.poll(readings).toEqual([
    [false, there],
    [true, here],
  ]);
});

test('the outcome is a line with who said so, may be taken back, and stands on the report', async ({
  page,
  request,
}) => {
  await takeIn(request, 'LA-5');
  await open(page, '/jobs/LA-5/intake');
  await page.getByLabel('Waiting for').fill('a coil');
  await choose(page.getByLabel('Outcome'), 'returned as it came');
  await page.getByRole('button', { name: 'Keep' }).click();
  // Closing asks first; nothing is written until it is said.
  const asked = page.getByRole('alertdialog', { name: 'Close LA-5 as returned as it came?' });
  await expect(asked.getByRole('button', { name: 'Leave it' })).toBeFocused();
  await asked.getByRole('button', { name: 'Close it' }).click();
  const log = page.getByRole('complementary', { name: 'Job log' });
  await expect(log).toContainText('job closed: returned');
  await open(page, '/jobs/LA-5/report');
  await expect(page.getByRole('article')).toContainText(/returned, Bench A, /u);
  await open(page, '/');
  await expect(page.getByRole('row').filter({ hasText: 'LA-5' })).toContainText('a coil');
});

test('a script that somebody slipped into a page does not run', async ({ page }) => {
  const refused: string[] = [];
  page.on('console', (message) => {
    if (/content security policy/iu.test(message.text())) refused.push(message.text());
  });
  await open(page, '/jobs/SP-118/probe');
  for (const path of ['/', '/sums', '/shorthand', '/jobs/new', '/jobs/SP-118/board', '/jobs/SP-121/sweep'])
    await open(page, path);
  // Nothing of our own is refused.
  expect(refused).toEqual([]);
  await page.evaluate(() => {
    document.body.insertAdjacentHTML('beforeend', '<img src="/none" onerror="window.slipped = 1">');
    const script = document.createElement('script');
    script.textContent = 'window.slipped = 2';
    document.body.append(script);
  });
  await expect.poll(() => refused.length).toBeGreaterThan(1);
  expect(await page.evaluate(() => (window as { slipped?: number }).slipped)).toBeUndefined();
});

interface Answer {
  readonly status: number;
  readonly body: string;
}

/** Sends a body as a plain client does, in pieces, its length told or not. */
function send(path: string, bytes: Buffer, told: boolean, headers: Record<string, string> = {}): Promise<Answer> {
  const url = new URL(path, origin());
  return new Promise((resolve, reject) => {
    const length = told ? { 'content-length': String(bytes.length) } : { 'transfer-encoding': 'chunked' };
    const sent = httpRequest(
      url,
      { method: 'POST', headers: { origin: origin(), 'content-type': 'application/json', ...length, ...headers } },
      (answer) => {
        let body = '';
        answer.on('data', (chunk: Buffer) => (body += chunk.toString()));
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, body }));
      },
    );
    sent.on('error', reject);
    const step = 256_000;
    for (let at = 0; at < bytes.length; at += step) sent.write(bytes.subarray(at, at + step));
    sent.end();
  });
}

for (const told of [true, false])
  test(`what is too large hears its 413, its length ${told ? 'told' : 'not told'}`, async () => {
    for (const [path, size] of [
      ['/api/jobs/SP-118/lines', 2_000_000],
      ['/api/jobs/SP-118/photos?board=1&side=front', 20_000_000],
      ['/api/netlist', 5_000_000],
    ] as const) {
      const { status, body } = await send(path, Buffer.alloc(size, 32), told);
      expect([path, status]).toEqual([path, 413]);
      expect(body).toContain('too-large');
    }
  });

test('twenty large uploads at once are worked in turn: each gets its answer, and small requests do not wait', async ({
  request,
}) => {
  const board = await takeIn(request, 'LA-6', { board: { from: 'netlist', text: FRONT } });
  const noise = Buffer.alloc(9_000_000, 'not a picture ');
  const slowest = (async () => {
    let most = 0;
    for (let i = 0; i < 10; i++) {
      const begun = performance.now();
      expect((await request.get('/api/jobs/LA-6/pulse')).status()).toBe(200);
      most = Math.max(most, performance.now() - begun);
    }
    return most;
  })();
  const path = `/api/jobs/LA-6/photos?board=${board}&side=front`;
  const answers = await Promise.all(Array.from({ length: 20 }, () => send(path, noise, true)));
  expect(answers.map((a) => a.status)).toEqual(Array.from({ length: 20 }, () => 422));
  expect(answers.every((a) => a.body.includes('not-a-picture'))).toBe(true);
  expect(await slowest).toBeLessThan(3000);
  await write(request, 'LA-6', { kind: 'action', body: { words: 'still here' } }, null);
});

test('a photograph is answered under its own job only', async ({ request }) => {
  const pulse = (await (await request.get('/api/jobs/SP-118/pulse')).json()) as { boardIds: string[] };
  const { photos } = (await (await request.get(`/api/jobs/SP-118/photos?board=${pulse.boardIds[0]}`)).json()) as {
    photos: { id: string }[];
  };
  expect(photos).not.toHaveLength(0);
  for (const tag of ['SP-119', 'SP-120']) {
    const other = await request.get(`/api/jobs/${tag}/photos?board=${pulse.boardIds[0]}`);
    expect(other.status()).toBe(404);
    for (const { id } of photos) expect((await request.get(`/api/jobs/${tag}/photos/${id}`)).status()).toBe(404);
  }
});

test('the host list holds on every route, those of scripts and pictures too', async ({ request }) => {
  for (const path of ['/', '/icon.svg', '/_next/static/none.js', '/api/pulse', '/none'])
    expect((await request.get(path, { headers: { host: 'elsewhere.example' } })).status()).toBe(421);
});
