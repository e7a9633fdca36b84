import { expect, test } from '@playwright/test';
import type { Locator, Page } from '@playwright/test';
import { ARCHETYPES, archetypeBoard } from '../src/core/archetype';
import type { Board } from '../src/core/circuit';
import { Diagnoser, buildWholeDictionary, huntFault, listHypotheses, withAllInstruments } from '../src/core/diagnose';
import type { TakenReading } from '../src/core/diagnose';
import { drawParts } from '../src/core/meter';
import { readNetlist } from '../src/core/netlist';
import { seededRandom } from '../src/core/quantity';
import { boardToJson } from '../src/wire/boardCopy';
import { brokenBoard, choose, FRONT, logLines, open, openProbe, origin, takeIn, takeReading, write } from './bench';

/** A board with a few parts: what a key does is the same on every one. */
const SMALL = { board: { from: 'typical', name: 'buck-module' } };
const FLYBACK = { board: { from: 'typical', name: 'flyback-opto' }, symptoms: ['dead'] };

test('the bench is searched by any word, Enter opens the first', async ({ page }) => {
  await open(page, '/');
  const rows = page.locator('tbody tr');
  const all = await rows.count();
  expect(all).toBeGreaterThan(3);
  await page.getByLabel('Search jobs').focus();
  await page.keyboard.type('weather');
  await expect(rows).toHaveCount(1);
  await page.keyboard.type(' nowhere');
  await expect(page.getByText('No job matches')).toBeVisible();
  await page.getByLabel('Search jobs').fill('live');
  await expect(rows.first()).toContainText('SP-119');
  await page.getByLabel('Search jobs').fill('SP-118');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/SP-118/u);
});

test('what is live is said on the bench and on the screens of other jobs, with the way to it', async ({ page }) => {
  for (const path of ['/', '/jobs/SP-118/board']) {
    await open(page, path);
    const banner = page.getByRole('status').filter({ hasText: 'LIVE:' });
    await expect(banner).toContainText('SP-119');
    await expect(banner.getByRole('link', { name: 'SP-119' })).toHaveAttribute('href', '/jobs/SP-119/safe');
  }
});

test('a second live unit on one bench is refused and the form kept; nothing connected lets it in', async ({ page }) => {
  await takeIn(page.request, 'LV-1', { bench: 'Bench B', disconnected: true });
  await page.addInitScript(() => window.localStorage.setItem('actor', 'Bench B'));
  await open(page, '/jobs/new');
  await page.getByLabel('Tag', { exact: true }).fill('LV-2');
  await page.getByLabel('Unit').fill('Second of the bench');
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page.getByRole('alert').first()).toContainText('still LIVE on Bench B');
  await expect(page.getByLabel('Unit')).toHaveValue('Second of the bench');
  await page.getByLabel('It came in with nothing connected').check();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page).toHaveURL(/LV-2\/safe/u);
  await expect(page.locator('header [data-hazard="NOT PROVED"]')).toBeVisible();
  await expect(page.getByText('isolated by Bench B')).toBeVisible();
});

test('a board of our own JSON is taken; one that does not fit is refused, and nothing is made', async ({ page }) => {
  await open(page, '/jobs/new');
  await page.getByLabel('Tag', { exact: true }).fill('JS-1');
  await page.getByLabel('Unit').fill('From JSON');
  await page.getByLabel('It came in with nothing connected').check();
  const file = (content: unknown) => ({
    name: 'board.json',
    mimeType: 'application/json',
    buffer: Buffer.from(typeof content === 'string' ? content : JSON.stringify(content)),
  });
  const choose = page.getByLabel('Choose a board file');
  for (const bad of ['{ not json', { format: 'something else' }, '[]']) {
    await choose.setInputFiles(file(bad));
    await page.getByRole('button', { name: 'Open the job' }).click();
    await expect(page.getByText('The board JSON was not taken').first()).toBeVisible();
    expect((await page.request.get('/jobs/JS-1/intake')).status()).toBe(404);
  }
  await choose.setInputFiles(file(boardToJson(archetypeBoard('buck-module')!)));
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page).toHaveURL(/JS-1\/safe/u);
});

test('the nameplate is doubted while it is typed', async ({ page }) => {
  await open(page, '/jobs/new');
  for (const [label, text] of [
    ['Lowest input, V', '90'],
    ['Highest, V', '264'],
    ['Output, V', '24'],
    ['Output, A', '2.5'],
  ] as const)
    await page.getByLabel(label).fill(text);
  // 60 W / (0.85 x 0.6 x 90 V), worked by hand.
  await expect(page.getByText('1.31').first()).toBeVisible();
  await page.getByLabel('Fuse, A').fill('16');
  await expect(page.getByText('The fuse is larger than this power needs')).toBeVisible();
  await page.getByLabel('Fuse, A').fill('0.5');
  await expect(page.getByText('The fuse is smaller')).toBeVisible();
  await page.getByLabel('Lowest input, V').fill('400');
  await expect(page.getByText('The lowest input is above the highest')).toBeVisible();
});

test('a store is discharged only by a proof: with the meter proved, low enough, and until it was powered again', async ({
  page,
}) => {
  await takeIn(page.request, 'DP-1', { board: { from: 'netlist', text: FRONT } });
  await open(page, '/jobs/DP-1/safe');
  const word = page.locator('header [data-hazard]');
  const volts = page.getByLabel('DC volts read');
  await expect(word).toHaveAttribute('data-hazard', 'NOT PROVED');
  await volts.fill('0.02');
  await page.keyboard.press('Enter');
  await expect(page.getByText('A low figure proves nothing by a meter that was not proved')).toBeVisible();
  // A high one counts by any meter.
  await volts.fill('61');
  await page.keyboard.press('Enter');
  await expect(word).toHaveAttribute('data-hazard', 'CHARGED');
  await page.getByLabel('Meter proved on a known source').check();
  await volts.fill('some');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Type the volts you read')).toBeVisible();
  // 28 V is low enough to touch even in the wet, by the joules as well; it is said as it was read.
  await volts.fill('28');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/C1 read 28[.0]*\s*V: low enough to touch even in the wet, not for ohms/u)).toBeVisible();
  await expect(word).toHaveAttribute('data-hazard', 'CHARGED');
  await page.getByRole('button', { name: 'It is dry' }).click();
  await expect(page.getByText('The place is dry.')).toBeVisible();
  await volts.fill('20m');
  await page.keyboard.press('Enter');
  await expect(word).toHaveAttribute('data-hazard', 'DISCHARGED');
  // Read again while it is discharged.
  await page.getByText('Read it again after 2 min').click();
  await page.getByLabel('Meter proved on a known source').check();
  await volts.fill('0.1');
  await page.keyboard.press('Enter');
  await expect(logLines(page).first()).toContainText('C1 read 0.100');
  await expect(word).toHaveAttribute('data-hazard', 'DISCHARGED');
  await page.getByRole('button', { name: 'It was powered again' }).click();
  await expect(word).toHaveAttribute('data-hazard', 'NOT PROVED');
  // Its line undone, the proof stays dead.
  await page.getByRole('button', { name: 'Undo: proofs ended' }).click();
  await expect(logLines(page).first()).toContainText('undone');
  await expect(word).toHaveAttribute('data-hazard', 'NOT PROVED');
});

test('Probe takes overload, agreeing and creeping with a key, and keeps what it cannot read', async ({ page }) => {
  await takeIn(page.request, 'PB-1', SMALL);
  await openProbe(page, 'PB-1');
  const field = page.getByLabel('Reading', { exact: true });
  const settled = page.locator('[data-point][data-settled="yes"]');
  const start = await logLines(page).count();
  await page.keyboard.press('o');
  await expect(logLines(page)).toHaveCount(start + 1);
  await expect(logLines(page).first()).toContainText('OL');
  await expect(settled).toBeVisible();
  const before = start + 1;
  await page.keyboard.press('Space');
  await expect(logLines(page)).toHaveCount(before + 1);
  await expect(logLines(page).first()).toContainText('agrees');
  await expect(settled).toBeVisible();
  await page.keyboard.type('~1.2');
  await expect(page.getByText(/^creeping, 1\.2/u)).toBeVisible();
  await page.keyboard.press('Enter');
  if (await page.getByText('as typed, or').isVisible()) await page.keyboard.press('1');
  await expect(logLines(page)).toHaveCount(before + 2);
  await expect(settled).toBeVisible();
  await page.keyboard.type('4k7k');
  await expect(page.getByText('is not a figure I can read')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(logLines(page)).toHaveCount(before + 2);
  await expect(field).toHaveValue('4k7k');
});

test('three figures in one line fill the next three points of the plan', async ({ page }) => {
  await takeIn(page.request, 'PB-2', { board: FLYBACK.board });
  await openProbe(page, 'PB-2');
  const before = await logLines(page).count();
  const field = page.getByLabel('Reading', { exact: true });
  // More figures than points are shown: nothing is kept, nothing is lost.
  await page.keyboard.type('1 1 1 1 1 1');
  await expect(page.getByText(/^1 has no place: \d points are shown/u)).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(field).toHaveValue('1 1 1 1 1 1');
  await field.fill('');
  await expect(logLines(page)).toHaveCount(before);
  await page.keyboard.type('1.9 o 1.8');
  const shown = page.getByRole('list', { name: 'Where the figures go' }).getByRole('listitem');
  await expect(shown).toHaveCount(3);
  const meant = await shown.evaluateAll((items) => items.map((item) => item.children[1]?.textContent));
  await expect(page.getByRole('button', { name: 'Keep 3 readings' })).toBeEnabled();
  await page.keyboard.press('Enter');
  await expect(logLines(page)).toHaveCount(before + 3);
  const words = await logLines(page).allTextContents();
  // A point is a place and what it is read with.
  const where = words.slice(0, 3).map((w) => {
    const [, mode, place] = /(diode test|ohms|ESR|capacitance).*?(red \S+, black \S+)/u.exec(w) ?? [];
    return `${mode} ${place}`;
  });
  expect(where.join()).not.toContain('undefined');
  expect(new Set(where).size).toBe(3);
  // The latest is on top; each was taken with what was said before Enter.
  where.reverse().forEach((w, i) => expect(w.toLowerCase()).toContain(meant[i]!.toLowerCase().replace(' meter', '')));
});

test('what stands in the field is what is kept, also where the page has not caught up with it', async ({ page }) => {
  await takeIn(page.request, 'PB-9', { board: FLYBACK.board });
  await openProbe(page, 'PB-9');
  const before = await logLines(page).count();
  const field = page.getByLabel('Reading', { exact: true });
  // As the browser puts it there, without a word to the page: a drawing by what it knows takes nothing away again.
  const stand = (text: string): Promise<void> =>
    field.evaluate(
      (input, value) =>
        Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(input, value) as undefined,
      text,
    );
  await page.keyboard.type('64');
  await stand('648');
  await page.keyboard.type('m');
  await expect(field).toHaveValue('648m');
  await stand('1.649');
  await page.keyboard.press('Enter');
  const asked = page.getByText('as typed, or');
  await expect(asked.or(logLines(page).nth(before))).toBeVisible();
  if (await asked.isVisible()) await page.keyboard.press('1');
  await expect(logLines(page)).toHaveCount(before + 1);
  await expect(logLines(page).first()).toContainText('1.649');
});

/** Readings of a healthy board in the order of the plan, until the fault is most likely none that these readings see. */
function untilUnlikely(board: Board): readonly TakenReading[] {
  const cold = buildWholeDictionary(board, listHypotheses(board));
  const diagnoser = new Diagnoser(withAllInstruments(cold, ['esr']));
  const { readings } = huntFault(diagnoser, [], drawParts(seededRandom(5)), seededRandom(6));
  const likely = readings.findIndex((_, i) => {
    const { suspects, surety } = diagnoser.standing(readings.slice(0, i));
    return surety === 'no' && suspects[0]!.invisible && suspects[0]!.probability > 0.92;
  });
  // Not from the start, and long before the plan has ruled out the last of what it sees.
  expect(likely).toBeGreaterThan(3);
  expect(likely).toBeLessThan(readings.length - 5);
  return readings.slice(0, likely);
}

/** Takes them on a job over the interface of the server, opens Probe and gives its note. */
async function openAfter(
  page: Page,
  tag: string,
  boardId: string,
  readings: readonly TakenReading[],
): Promise<Locator> {
  for (const { mode, red, black, seen } of readings)
    await write(page.request, tag, { kind: 'reading', body: { mode, red, black, seen } }, boardId);
  await openProbe(page, tag);
  const note = page.getByRole('note').filter({ hasText: 'Most likely nothing that these readings see' });
  await expect(note).toContainText(/\(9\d\s%\)\. Not ruled out of what they see: .+ \(\d+\s%\)/u, { timeout: 60_000 });
  return note;
}

test('once the fault is most likely none that these readings see, that is said with the way to power', async ({
  page,
}) => {
  const { netlist } = ARCHETYPES.find((a) => a.name === 'flyback-opto')!;
  const parsed = readNetlist(netlist);
  if (!parsed.ok) throw new Error('the circuit is no board');
  const { board } = parsed.value;
  const boardId = await takeIn(page.request, 'PB-7', { board: { from: 'netlist', text: netlist } });
  const note = await openAfter(page, 'PB-7', boardId, untilUnlikely(board));
  const earn = note.getByRole('button', { name: /^Earn the permit: (one reading|\d+ readings)$/u });
  const power = note.getByRole('button', { name: 'Read it under power' });
  await expect(earn).toBeVisible();
  const meter = brokenBoard(board, '', 5);
  for (let k = 0; k < 12 && (await power.count()) === 0; k++) {
    // The next point is the first of the permit's list.
    await earn.click();
    await expect(page.locator('[data-permit="shut"] button[aria-current="true"]')).toHaveCount(1);
    await takeReading(page, meter);
    await expect(page.locator('[data-point][data-settled="yes"]')).toBeVisible();
  }
  await power.click();
  await expect(page.getByRole('tab', { name: 'Under power' })).toHaveAttribute('aria-selected', 'true');
});

test('where places are only assumed readings earn no permit: that is said, with the way to Trace', async ({ page }) => {
  const boardId = await takeIn(page.request, 'PB-8', SMALL);
  const note = await openAfter(page, 'PB-8', boardId, untilUnlikely(archetypeBoard('buck-module')!));
  const permit = page.getByRole('region', { name: 'Permit to power' });
  await expect(permit).toContainText('What was read so far was read where the places are only assumed');
  await expect(permit).toContainText('healthy, they earn it once Trace says what is at the assumed places');
  for (const reading of await permit.getByRole('listitem').all())
    await expect(reading).toContainText('(assumed place)');
  await note.getByRole('link', { name: /^Confirm in Trace/u }).click();
  await expect(page).toHaveURL(/\/jobs\/PB-8\/board$/u);
});

test('next sets a point aside and back returns to it; places can be listed; a point stays while it is typed at', async ({
  page,
}) => {
  await takeIn(page.request, 'PB-3', SMALL);
  await openProbe(page, 'PB-3');
  const point = page.locator('[data-point]');
  const first = await point.getAttribute('data-point');
  await page.keyboard.press('n');
  await expect(point).not.toHaveAttribute('data-point', first!);
  await page.keyboard.press('b');
  await expect(point).toHaveAttribute('data-point', first!);
  await page.keyboard.press('a');
  await expect(point.getByText(/^or /u).first()).toBeVisible();
  await page.keyboard.type('47');
  await expect(point).toHaveAttribute('data-point', first!);
  await page
    .getByRole('button', { name: /Diode test|Ohms/u })
    .last()
    .click();
  await page.keyboard.type('5');
  await expect(page.getByLabel('Reading', { exact: true })).toHaveValue('475');
});

test('a fault in one’s own words, a check skipped, a safety part refused: all of it is in the report', async ({
  page,
}) => {
  await takeIn(page.request, 'RP-1', FLYBACK);
  await open(page, '/jobs/RP-1/repair');
  await choose(page.getByLabel('Fault', { exact: true }), 'another, in words or as M1:short(d,s)');
  await page.getByLabel('Another fault').fill('M1:short(d,s)+F1:open');
  await page.getByLabel('What happened, in words').fill('Surge on the pier.');
  await page.getByRole('button', { name: /^Call it/u }).click();
  await expect(page.getByRole('heading', { name: 'Also check before power' })).toBeVisible();
  for (;;) {
    const skip = page.getByRole('button', { name: 'Skip, with a reason' });
    const left = await skip.count();
    if (left === 0) break;
    await skip.first().click();
    await page.getByLabel('Why it is not checked').fill('potted in resin');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Why it is not checked')).toHaveCount(0);
    await expect(skip).toHaveCount(left - 1);
  }
  const fuse = page
    .locator('form')
    .filter({ has: page.getByText('the same part') })
    .nth(1);
  await choose(fuse.getByLabel('Source'), 'salvaged');
  await expect(page.getByText('Refused: A fuse is a safety part')).toBeVisible();
  await expect(fuse.getByRole('button', { name: 'Fitted' })).toBeDisabled();
  await choose(fuse.getByLabel('Source'), 'new');
  await fuse.getByLabel('the same part').uncheck();
  await fuse.getByLabel('Rated A').fill('10');
  await expect(page.getByText('A larger fuse is never fitted')).toBeVisible();
  await open(page, '/jobs/RP-1/report');
  await expect(page.getByText('Surge on the pier.').first()).toBeVisible();
  await expect(page.getByText(/was not checked: potted in resin/u).first()).toBeVisible();
});

test('safety tests are missing until they are made; the report prints on one page of A4 and of Letter, the drawing on another', async ({
  page,
}) => {
  await open(page, '/jobs/SP-115/report');
  await expect(page.getByText(/Electrical safety tests not made: earth continuity/u)).toBeVisible();
  await page.getByLabel('Result').fill('0.08 ohm, passed');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Earth continuity: 0.08 ohm, passed').first()).toBeVisible();
  await expect(page.getByText(/not made: insulation resistance/u)).toBeVisible();
  await expect(page.getByRole('img', { name: /^Drawing of/u })).toBeVisible();
  for (const format of ['A4', 'Letter']) {
    const pdf = (await page.pdf({ format })).toString('latin1');
    expect(pdf.match(/\/Type\s*\/Page[^s]/gu)).toHaveLength(2);
  }
});

test('Probe shows both leads on the photograph where their pads are pinned', async ({ page }) => {
  await open(page, '/jobs/SP-118/probe');
  await expect(page.locator('[data-point][data-settled="yes"]')).toBeVisible({ timeout: 60_000 });
  const photo = page.getByRole('img', {
    name: /^Photograph of the (front|back): red on \w+ pin \d, black on \w+ pin \d$/u,
  });
  // Not every point of the plan has pads that are pinned.
  for (let i = 0; i < 12 && !(await photo.isVisible()); i++) {
    await page.keyboard.press('n');
    await page.waitForTimeout(300);
  }
  await expect(photo).toBeVisible();
  expect(await photo.locator('image').getAttribute('href')).toMatch(/^\/api\/jobs\/SP-118\/photos\//u);
});

test('the drawing goes to paper: one sheet of A4 or A3 with its title, as PDF and as SVG', async ({ page }) => {
  await open(page, '/jobs/SP-118/board');
  await page.getByRole('link', { name: 'The drawing on paper' }).click();
  const sheet = page.getByRole('img', { name: /^Drawing of/u });
  await expect(sheet).toContainText('SP-118');
  await expect(sheet).toContainText(/drawn from \d+ traced facts, \d+ assumed/u);
  for (const [paper, width, height] of [
    ['A4', 842, 595],
    ['A3', 1191, 842],
  ] as const) {
    await page.getByRole('radio', { name: paper }).click();
    await expect(sheet).toContainText(`${paper},`);
    const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
    expect(pdf.match(/\/Type\s*\/Page[^s]/gu)).toHaveLength(1);
    const [, w, h] = /MediaBox\s*\[\s*0\s+0\s+([\d.]+)\s+([\d.]+)/u.exec(pdf)!.map(Number);
    expect([Math.round(w!), Math.round(h!)]).toEqual([width, height]);
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save as SVG' }).click();
    expect((await saved).suggestedFilename()).toBe(`SP-118-${paper}.svg`);
  }
});

test('the theme is remembered, the list of keys opens and closes', async ({ page }) => {
  const theme = () => page.evaluate(() => document.documentElement.dataset['theme']);
  // As the system has it, until it is chosen here.
  await page.emulateMedia({ colorScheme: 'light' });
  await open(page, '/jobs/SP-118/board');
  expect(await theme()).toBe('paper');
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect.poll(theme).toBe('soot');
  await page.getByRole('button', { name: 'Switch between dark and light' }).click();
  await page.reload();
  expect(await theme()).toBe('paper');
  await open(page, '/jobs/SP-118/board');
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await expect(keys).toContainText('overload');
  await page.keyboard.press('Escape');
  await expect(keys).toHaveCount(0);
});

test('a picked part tells what is known of it, a net where to touch it', async ({ page }) => {
  await open(page, '/jobs/SP-118/board');
  await page.getByLabel('Search parts and nets').fill('M1');
  await page.getByRole('button', { name: 'M1', exact: true }).click();
  const about = page.getByRole('region', { name: 'About M1' });
  await expect(about).toContainText('diode test');
  await about.getByRole('button', { name: 'DRAIN' }).click();
  const net = page.getByRole('region', { name: 'About net DRAIN' });
  await expect(net).toContainText('M1 drain, middle leg or tab');
  await page.getByRole('tab', { name: 'Nets' }).click();
  await page.getByLabel('Search parts and nets').fill('out');
  await expect(page.getByRole('tabpanel').getByText('OUT+').first()).toBeVisible();
});

test('what is printed on a part is read as it is typed, and a reading picked becomes its value and rating', async ({
  page,
}) => {
  await takeIn(page.request, 'MK-1', FLYBACK);
  await open(page, '/jobs/MK-1/board');
  await page.getByLabel('Search parts and nets').fill('CX1');
  await page.getByRole('button', { name: 'CX1', exact: true }).click();
  const about = page.getByRole('region', { name: 'About CX1' });
  await about.getByLabel('Printed on it').fill('X2 104K 310V~');
  const readings = about.getByRole('list', { name: 'What the marking may mean' });
  await expect(readings.getByRole('button').first()).toContainText('310');
  await readings.getByRole('button').first().click();
  await expect(about.getByLabel('Value')).toHaveValue('100 nF');
  await about.getByRole('button', { name: 'Keep as seen' }).click();
  await expect(about).toContainText('seen on the part');
  await expect(about).toContainText('“X2 104K 310V~”');
  await expect(about).toContainText('310');
  await about.getByLabel('Printed on it').fill('hello');
  await expect(about).toContainText('No marking I know');
});

test('what a job waits for shows on the bench; a job or page that is not there says so', async ({ page }) => {
  await takeIn(page.request, 'WF-1');
  await open(page, '/jobs/WF-1/intake');
  await page.getByLabel('Waiting for').fill('a new bulk capacitor');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(logLines(page).first()).toContainText('waiting for a new bulk capacitor');
  await open(page, '/');
  await expect(page.locator('tr').filter({ hasText: 'WF-1' })).toContainText('a new bulk capacitor');
  expect((await page.request.get('/jobs/NOPE-9/probe')).status()).toBe(404);
  expect((await page.request.get('/api/jobs/NOPE-9/export?as=csv')).status()).toBe(404);
});

test('two technicians on one job at once: both logs end the same, every line once', async ({ page, browser }) => {
  await takeIn(page.request, 'TW-1', SMALL);
  const other = await (await browser.newContext({ baseURL: origin() })).newPage();
  await other.addInitScript(() => window.localStorage.setItem('actor', 'Bench B'));
  await openProbe(page, 'TW-1');
  await openProbe(other, 'TW-1');
  // Each log shows the other's lines as well: only the own ones are counted here.
  const take = async (who: Page, actor: string): Promise<void> => {
    const own = logLines(who).filter({ hasText: 'OL' }).filter({ hasText: actor });
    for (let k = 0; k < 3; k++) {
      await expect(who.locator('[data-point][data-settled="yes"]')).toBeVisible();
      const before = await own.count();
      await who.keyboard.press('o');
      await expect(own).toHaveCount(before + 1);
    }
  };
  await Promise.all([take(page, 'Bench A'), take(other, 'Bench B')]);
  const job = (await (await page.request.get('/api/jobs/TW-1/export?as=json')).json()) as {
    ledger: { seq: number; actor: string; kind: string }[];
  };
  const readings = job.ledger.filter((l) => l.kind === 'reading');
  expect(readings).toHaveLength(6);
  expect(readings.filter((l) => l.actor === 'Bench B')).toHaveLength(3);
  expect(job.ledger.map((l) => l.seq)).toEqual(job.ledger.map((_, i) => i + 1));
  // Both logs have come to the same end without a reload.
  await expect(logLines(page)).toHaveCount(job.ledger.length);
  await expect(logLines(other)).toHaveCount(job.ledger.length);
  await other.context().close();
});

test('keys act wherever focus is, but never inside a dialog or another field', async ({ page }) => {
  await takeIn(page.request, 'KY-1', SMALL);
  await openProbe(page, 'KY-1');
  const field = page.getByLabel('Reading', { exact: true });
  await page.getByRole('button', { name: /sound on/u }).focus();
  await page.keyboard.type('47');
  await expect(field).toHaveValue('47');
  await field.fill('');
  const before = await logLines(page).count();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('o');
  await page.keyboard.press('5');
  await page.keyboard.press('Escape');
  await expect(logLines(page)).toHaveCount(before);
  await expect(field).toHaveValue('');
  await page.keyboard.press('g');
  await page.keyboard.press('2');
  await expect(page.getByRole('heading', { name: 'Make safe' })).toBeVisible();
  await page.keyboard.press('g');
  await page.keyboard.press('1');
  await expect(page.getByRole('heading', { name: 'Tidewell test piece' })).toBeVisible();
  // In a field the letter is a letter.
  await page.getByLabel('Waiting for').fill('');
  await page.getByLabel('Waiting for').press('g');
  await page.keyboard.press('4');
  await expect(page.getByLabel('Waiting for')).toHaveValue('g4');
});
