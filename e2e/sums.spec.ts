import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { DOCK_MODULE } from '../src/demo/boards/dockModule';
import { barriers, choose, inTheme, open, tabTo, takeIn, watchTasks, logLines } from './bench';

const result = (page: Page, key: string) => page.locator(`[data-result="${key}"]`);
const plain = (text: string | null): string => (text ?? '').replace(/\s/gu, ' ').trim();

/** A job with the cradle module's board. */
async function moduleJob(page: Page, tag: string): Promise<void> {
  const nameplate = {
    source: 'dc',
    inputRail: 'VIN+',
    inputReturn: 'GND',
    inputMin: 10,
    inputNominal: 12,
    inputMax: 15,
    outputs: [{ rail: 'OUT+', return: 'GND', volts: 5, amps: 2, kind: 'dc' }],
  };
  const sources = [{ name: '12 V battery', kind: 'battery' }];
  await takeIn(page.request, tag, { nameplate, sources, board: { from: 'netlist', text: DOCK_MODULE } });
}

/** Pastes a text as a person would with the keyboard, without touching the machine's clipboard. */
async function paste(page: Page, text: string): Promise<void> {
  await page.evaluate((words) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', words);
    const target = document.activeElement ?? document.body;
    target.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, text);
}

test('a discharge sum bound to the bulk capacitor follows when the capacitor turns out another; by keyboard', async ({
  page,
}) => {
  await open(page, '/jobs/SP-118/safe');
  await page.keyboard.press('g');
  await page.keyboard.press('s');
  await expect(page).toHaveURL(/SP-118\/sums/u);
  await tabTo(page, page.getByLabel('Find a sum'));
  await page.keyboard.type('empty a capacitor');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Discharge a capacitor through a resistor or a lamp' })).toBeVisible();
  await expect(page.getByLabel('capacitance', { exact: true })).toBeFocused();
  await page.keyboard.type('@');
  const find = page.getByLabel('Find a figure of the board');
  await expect(find).toBeFocused();
  await page.keyboard.type('C1 cap');
  await page.keyboard.press('Enter');
  await expect(page.getByText('follows C1, capacitance (seen)')).toBeVisible();
  for (const [label, text] of [
    ['voltage at the start', '373'],
    ['voltage to come down to', '5'],
    ['discharge resistor (optional)', '2k2'],
  ] as const) {
    await tabTo(page, page.getByLabel(label, { exact: true }));
    await page.keyboard.type(text);
  }
  // 150 µF, 2.2 kΩ from 373 V to 5 V: 0.33 s · ln 74.6 = 1.423 s.
  await expect.poll(async () => plain(await result(page, 'time').textContent())).toBe('1.423 s');
  await tabTo(page, page.getByLabel('What it is for'));
  await page.keyboard.type('lamp across C1');
  await page.keyboard.press('Enter');
  await expect(logLines(page).first()).toContainText('lamp across C1');

  // What is really fitted is 100 µF.
  await open(page, '/jobs/SP-118/board');
  await tabTo(page, page.getByRole('tab', { name: 'Type' }));
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByRole('textbox', { name: 'Bench shorthand' }));
  await page.keyboard.type('C1 "100uF 450V"');
  await page.keyboard.press('Control+Enter');
  await expect(logLines(page).first()).toContainText('C1 "100uF 450V"');
  await expect(page.getByRole('navigation', { name: 'Steps of the job' })).toContainText('one has moved');
  await open(page, '/jobs/SP-118/sums');
  await expect.poll(async () => plain(await result(page, 'time').textContent())).toBe('948.7 ms');
  await expect(page.getByRole('status').filter({ hasText: 'was 150' })).toContainText('worked out anew');
  const kept = page.getByRole('region', { name: 'Kept in this job' });
  await expect(kept.getByRole('status')).toContainText('100');
  await expect(kept.getByRole('status')).toContainText('948.7');
  await tabTo(page, page.locator('main').getByRole('button', { name: 'seen', exact: true }).first());
  await page.keyboard.press('Enter');
  await expect(page.getByText('worked out anew')).toHaveCount(0);
  // Taken back, the sum follows once more.
  await tabTo(page, page.getByRole('button', { name: 'Undo: C1 "100uF 450V"' }));
  await page.keyboard.press('Enter');
  await expect.poll(async () => plain(await result(page, 'time').textContent())).toBe('1.423 s');
});

test('a module set to another voltage: tight, over, a better capacitor, the sweep, verified; all by keyboard', async ({
  page,
}) => {
  await open(page, '/jobs/SP-122/board');
  await page.keyboard.press('g');
  await page.keyboard.press('m');
  await expect(page).toHaveURL(/SP-122\/modify/u);
  const wanted = page.getByLabel('Wanted output, V');
  await expect(wanted).toBeFocused();
  const touches = page.getByRole('table', { name: 'What it touches', exact: true });
  const capacitor = touches.getByRole('row').filter({ hasText: 'C4' });
  await page.keyboard.type('7');
  await expect(capacitor).toContainText('over');
  await expect(page.locator('main [role="alert"]')).toContainText('C4 would be over its rating');
  await page.keyboard.press('Backspace');
  await page.keyboard.type('6.2');
  await expect(capacitor).toContainText('tight');
  await expect(capacitor).toContainText('98 % of its 6.3');
  await expect(capacitor).toContainText('beyond the 80 %');
  await expect(touches.getByRole('row').filter({ hasText: 'J2' })).toContainText('unknown');
  await tabTo(page, page.getByLabel('Why it is changed'));
  await page.keyboard.type('the cradles want 6.2 V');
  await page.keyboard.press('Enter');
  const card = page.getByRole('article', { name: /OUT\+ set to 6\.2/u });
  await expect(card).toContainText('not proved yet');
  await expect(card).toContainText('C4 tight');

  await tabTo(page, card.getByRole('button', { name: 'Fit a better C4' }));
  await page.keyboard.press('Enter');
  for (const [label, text] of [
    ['Value', '470u'],
    ['Rated V', '16'],
  ] as const) {
    await tabTo(page, card.getByLabel(label, { exact: true }));
    await page.keyboard.type(text);
  }
  for (const tick of ['low ESR', '105 °C']) {
    await tabTo(page, card.getByLabel(tick));
    await page.keyboard.press('Space');
  }
  await tabTo(page, card.getByRole('button', { name: 'Fitted' }));
  await page.keyboard.press('Enter');
  await expect(card).not.toContainText('C4 tight');
  await expect(logLines(page).first()).toContainText('C4 replaced');

  await tabTo(page, card.getByRole('button', { name: 'Begin the sweep' }));
  await page.keyboard.press('Enter');
  for (const [step, volts] of [
    ['lowest input', '6.18'],
    ['nominal input', '6.19'],
    ['highest input', '6V21'],
  ] as const) {
    await expect(card.getByLabel(`Output volts, ${step}`)).toBeFocused();
    await page.keyboard.type(volts);
    await page.keyboard.press('Enter');
    await expect(card.getByRole('row').filter({ hasText: step })).toContainText('agrees');
  }
  await expect(card.getByRole('figure', { name: /output volts over input volts/u })).toBeVisible();
  await expect(card.getByRole('button', { name: 'Mark it verified' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(card).toContainText('verified by');
  // It was powered for that: what was proved empty is so no more.
  await expect(page.locator('header [data-hazard]')).not.toHaveAttribute('data-hazard', 'DISCHARGED');
  await open(page, '/jobs/SP-122/report');
  const report = page.locator('article');
  await expect(report).toContainText('Verified by');
  await expect(report).toContainText('1 unknown');
  await expect(report).toContainText('Within: claimed output volts');
  await expect(report).not.toContainText('Read cold only');
  // The part is on the board; the board as it was is there still.
  await open(page, '/jobs/SP-122/board');
  await page.getByRole('tab', { name: 'Parts' }).click();
  await expect(page.getByRole('row').filter({ has: page.getByRole('button', { name: 'R6' }) })).toContainText('FB GND');
});

test('what is over its rating, or reads wrong, is not verified', async ({ page }) => {
  await moduleJob(page, 'MD-2');
  await open(page, '/jobs/MD-2/modify');
  await page.getByLabel('Wanted output, V').fill('7');
  await page.getByLabel('Why it is changed').fill('to see it refused');
  await page.keyboard.press('Enter');
  const card = page.getByRole('article', { name: /OUT\+ set to 7/u });
  await expect(card.getByRole('button', { name: 'Begin the sweep' })).toBeDisabled();
  await expect(card.getByRole('alert')).toContainText('Do not power it yet');
  // The form for the better part is open already.
  await card.getByLabel('Value', { exact: true }).fill('470u');
  await card.getByLabel('Rated V').fill('16');
  await card.getByRole('button', { name: 'Fitted' }).click();
  await expect(card.getByRole('alert')).toHaveCount(0);
  await card.getByRole('button', { name: 'Begin the sweep' }).click();
  for (const volts of ['7.0', '6.2', '7.1']) {
    await expect(card.getByLabel(/^Output volts/u)).toBeFocused();
    await page.keyboard.type(volts);
    const before = await logLines(page).count();
    await page.keyboard.press('Enter');
    await expect(logLines(page)).toHaveCount(before + 1);
  }
  await expect(card.getByText('▨ disagrees')).toHaveCount(1);
  await expect(card.getByRole('button', { name: 'Mark it verified' })).toBeDisabled();
  await card.getByRole('button', { name: 'Not verified' }).click();
  await expect(card).toContainText('not verified');
  // Undone in the log, the change is off the board.
  await page.getByRole('button', { name: 'Undo: modified: OUT+ set to 7' }).click();
  await expect(card).toHaveCount(0);
});

test('a lock-out is moved and a start-on-load sense added, each with what it touches and its sweep', async ({
  page,
}) => {
  await moduleJob(page, 'MD-3');
  await open(page, '/jobs/MD-3/modify');
  await page.getByRole('tab', { name: 'Under-voltage lock-out' }).click();
  for (const [label, text] of [
    ['Starts at, V', '11'],
    ['Stops lower by, V', '1'],
    ['Converter browns out at, V', '9'],
    ['Threshold of the pin, V', '1.2'],
  ] as const)
    await page.getByLabel(label).fill(text);
  await expect(page.locator('main [role="alert"]')).toContainText('needs a net that is at the return until the start');
  await choose(page.getByLabel('At the return until it starts'), 'SW');
  await expect(page.getByText('instead of 68')).toBeVisible();
  await expect(page.getByText('above where the converter browns out')).toBeVisible();
  await expect(page.getByRole('table', { name: 'What it touches', exact: true })).toContainText('look its limit up');
  await page.getByLabel('Why it is changed').fill('battery drained flat');
  await page.keyboard.press('Enter');
  const lock = page.getByRole('article', { name: /^U1 runs from 11/u });
  await expect(lock).toContainText('5 steps prove it');

  await page.getByRole('tab', { name: 'Start on load' }).click();
  for (const [label, text] of [
    ['Smallest load, A', '0.1'],
    ['Largest load, A', '2'],
    ['Drop allowed, V', '1.3'],
  ] as const)
    await page.getByLabel(label).fill(text);
  await expect(page.locator('main [role="alert"]')).toContainText('to wake it');
  await page.getByLabel('Smallest load, A').fill('1');
  await expect(page.getByRole('table', { name: 'What it touches', exact: true })).toContainText('ask what it needs');
  await page.getByLabel('Why it is changed').fill('flat dock battery overnight');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('article', { name: /^Starts when a load/u })).toContainText('4 steps prove it');
  await open(page, '/jobs/MD-3/board');
  await expect(page.getByText(/24 parts on/u)).toBeVisible();
});

test('a sweep is typed row by row, judged and exported; a bad figure is not kept and stays', async ({ page }) => {
  await moduleJob(page, 'SW-1');
  await open(page, '/jobs/SW-1/sweep');
  await page.getByLabel('Efficiency by the sum, %').fill('90');
  await page.getByRole('button', { name: 'Begin the sweep' }).click();
  const set = page.getByLabel('output amps', { exact: true });
  for (const [amps, vin, iin, vout] of [
    ['0', '12', '20m', '5.02'],
    ['1', '12', '0.5', '4V98'],
    ['2', '12', '0.95', '4.70'],
  ]) {
    await expect(set).toBeFocused();
    await page.keyboard.type(amps!);
    await page.keyboard.press('Tab');
    await page.keyboard.type(vin!);
    await page.keyboard.press('Tab');
    await page.keyboard.type(iin!);
    await page.keyboard.press('Tab');
    await page.keyboard.type(vout!);
    const before = await logLines(page).count();
    await page.keyboard.press('Enter');
    await expect(logLines(page)).toHaveCount(before + 1);
  }
  const shown = page.getByRole('list', { name: 'What it shows' });
  await expect(shown).toContainText('worst 4.7');
  await expect(shown).toContainText('-6 %');
  await expect(shown).toContainText('sags 6.4 %');
  // 4.7 V · 2 A from 12 V · 0.95 A.
  await expect(shown).toContainText('efficiency 82.5 %');
  await expect(page.locator('[data-verdict="efficiency over"]')).toBeVisible();
  await page.getByLabel('output volts', { exact: true }).fill('five');
  await expect(page.getByRole('button', { name: 'Keep', exact: true })).toBeDisabled();
  await expect(page.getByLabel('output volts', { exact: true })).toHaveAttribute('aria-invalid', 'true');

  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export CSV' }).click();
  const stream = await (await download).createReadStream();
  let text = '';
  for await (const chunk of stream) text += String(chunk);
  const [head, first] = text.split('\n');
  expect(head).toContain('input volts,input amps,output volts,output amps');
  expect(first!.split(',').slice(0, 4)).toEqual(['12', '0.02', '5.02', '0']);
  expect(text.split('\n')).toHaveLength(5);
});

test('five thousand rows pasted or read from a file: no long task, bad rows named, the rest kept', async ({ page }) => {
  await moduleJob(page, 'SW-2');
  const table = (bad: readonly number[]): string =>
    [
      'output amps\tinput volts\tinput amps\toutput volts\tnote',
      ...Array.from({ length: 5000 }, (_, i) =>
        bad.includes(i)
          ? `${i}\twhat`
          : `${(i / 2500).toFixed(4)}\t${(12 + Math.sin(i / 40)).toFixed(3)}\t${(0.02 + i / 5600).toFixed(4)}\t${(5.02 - i / 40_000).toFixed(4)}\t`,
      ),
    ].join('\n');
  const worst: number[] = [];
  // Each time the first import of a fresh page, with all that is drawn for the first time.
  for (let round = 0; round < 3; round++) {
    await open(page, '/jobs/SW-2/sweep');
    if (round > 0) await choose(page.getByLabel('Sweep shown'), 'a new one …');
    await page.getByLabel('Name').fill(`round ${round}`);
    await page.getByRole('button', { name: 'Begin the sweep' }).click();
    await expect(page.getByRole('heading', { name: `round ${round}` })).toBeVisible();
    await expect(page.getByLabel('output amps', { exact: true })).toBeFocused();
    await page.waitForTimeout(300);
    const busiest = await watchTasks(page);
    await paste(page, table([]));
    await expect(page.getByText('5000 rows, set by')).toBeVisible();
    await page.waitForTimeout(400);
    worst.push(await busiest());
  }
  // The machine may be slow at one time: what blocks the page would do so in every round.
  const median = [...worst].sort((a, b) => a - b)[1]!;
  expect([worst, median < 100]).toEqual([worst, true]);
  // Only what is in sight is drawn.
  expect(await page.getByRole('region', { name: 'Rows of the sweep' }).getByRole('row').count()).toBeLessThan(60);

  await page.getByLabel('CSV file').setInputFiles({
    name: 'bench.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(table([7, 4321])),
  });
  await expect(page.getByText('9998 rows, set by')).toBeVisible();
  const trouble = page.locator('main [role="alert"]');
  await expect(trouble).toContainText('2 rows were not taken; the others are kept');
  await expect(trouble).toContainText('Line 9: “what” is no figure for input volts.');
  await expect(trouble).toContainText('Line 4323');
  // Put right, they are taken too.
  await page.getByLabel('Rows to put right').fill('0.5\t5.01\n1.5\t4.95');
  await page.getByRole('button', { name: 'Take these' }).click();
  await expect(page.getByText('10000 rows, set by')).toBeVisible();
  // All of it is there after a reload.
  await open(page, '/jobs/SW-2/sweep');
  await expect(page.getByText('10000 rows, set by')).toBeVisible();
});

test('sums without a job: found by plain words, worked at once, shared as link and text', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await open(page, '/');
  await page.getByRole('link', { name: 'Sums' }).click();
  await expect(page).toHaveURL(/\/sums/u);
  await page.getByLabel('Find a sum').fill('350 V dc on the bench');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Variable transformer');
  await expect(page.getByText('worked with made-up figures')).toBeVisible();
  await page.getByLabel('secondary over primary').fill('1.05');
  // √2 · 250 V · 1.05 less two diodes of 1 V.
  await expect.poll(async () => plain(await result(page, 'dcMax').textContent())).toBe('369.2 V');
  await page.getByLabel('load', { exact: true }).fill('a lot');
  await expect(page.locator('main [role="alert"]').first()).toContainText('a lot');
  await page.getByLabel('load', { exact: true }).fill('0.1');
  await page.getByRole('button', { name: 'Copy as text' }).click();
  await expect(page.getByText('Text copied.')).toBeVisible();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  expect(text).toContain('secondary over primary: 1.05');
  expect(plain(text)).toContain('highest, no load: 369.2 V');
  expect(text).toContain('An ordinary variable transformer does not isolate.');
  const link = page.url();
  const other = await context.newPage();
  await open(other, link);
  await expect(other.getByLabel('secondary over primary')).toHaveValue('1.05');
  await expect.poll(async () => plain(await result(other, 'dcMax').textContent())).toBe('369.2 V');
});

test('every kind of picture is drawn, and every sum opens without an error', async ({ page }) => {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  await open(page, '/sums');
  const all = page.getByRole('navigation', { name: 'Sums' }).getByRole('button');
  expect(await all.count()).toBe(31);
  for (let i = 0; i < 31; i++) {
    await all.nth(i).click();
    await expect(page.locator('[data-result]').first()).toBeVisible();
  }
  for (const [name, picture] of [
    ['discharge-time', /Volts on the capacitor/u],
    ['bulk-ripple', /Two half-waves/u],
    ['divider-retarget', /misses the wanted output/u],
    ['uvlo-divider', /lets go below/u],
    ['buck-loss', /with a diode/u],
    ['cap-bank-outlier', /readings over their capacitance/u],
  ] as const) {
    await open(page, `/sums?sum=${name}`);
    const drawn = page.getByRole('figure', { name: picture });
    await expect(drawn).toBeVisible();
    expect(await drawn.locator('svg path, svg rect, svg circle').count()).toBeGreaterThan(2);
  }
  expect(errors).toEqual([]);
});

test('sums, modifications and sweeps with something in them have no barrier in either theme', async ({ page }) => {
  for (const path of ['/jobs/SP-118/sums', '/jobs/SP-122/modify', '/jobs/SP-122/sweep']) {
    await open(page, path);
    await page.waitForTimeout(500);
    for (const theme of ['soot', 'paper'] as const) {
      await inTheme(page, theme);
      const found = await barriers(page, theme === 'soot' ? 'advised' : 'colours', { within: 'main' });
      expect([path, theme, found]).toEqual([path, theme, []]);
    }
  }
});

test('a picked part leads to its sums, a store to its discharge, with the figures in them', async ({ page }) => {
  await open(page, '/jobs/SP-118/board');
  await page.getByRole('tab', { name: 'Parts' }).click();
  await page.getByRole('button', { name: 'C1', exact: true }).first().click();
  await page
    .getByRole('list', { name: 'Sums with this part' })
    .getByRole('link', { name: /^Energy held/u })
    .click();
  await expect(page).toHaveURL(/sum=stored-energy/u);
  // 150 µF at 450 V, the highest credible there, hold 15.19 J.
  await expect.poll(async () => plain(await result(page, 'energy').textContent())).toBe('15.19 J');
  await open(page, '/jobs/SP-120/safe');
  await page.getByRole('link', { name: 'work it out' }).first().click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Discharge a capacitor');
  await expect(page.getByText('follows what may stand on')).toBeVisible();
});

test('one touch takes what the board knows; what only the technician knows stays open', async ({ page }) => {
  await moduleJob(page, 'SM-1');
  await open(page, '/jobs/SM-1/board');
  await page.getByRole('tab', { name: 'Type' }).click();
  await page.getByRole('textbox', { name: 'Bench shorthand' }).focus();
  await page.keyboard.type('U1 FB ref 1.22 V');
  await page.keyboard.press('Control+Enter');
  await expect(logLines(page).first()).toContainText('U1 FB ref 1.22 V');
  await open(page, '/jobs/SM-1/sums?sum=divider-retarget');
  const take = page.getByRole('button', { name: /Take from the board/u });
  await expect(take).toContainText('reference, upper resistor, lower resistor');
  await take.click();
  await expect(page.getByText('follows R3, resistance')).toBeVisible();
  await expect(page.getByText('follows U1, feedback reference (confirmed)')).toBeVisible();
  await page.getByLabel('wanted output', { exact: true }).fill('6V6');
  await choose(page.getByLabel('which resistor is changed', { exact: true }), 'bottom');
  await expect(take).toHaveCount(0);
  await expect(page.getByText('worked with made-up figures')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Keep in the job log' })).toBeEnabled();
  // 46.4 k / (6.6 / 1.22 - 1) = 10.52 k wanted: 15 k in parallel with 35.24 k.
  await expect.poll(async () => plain(await result(page, 'exact').textContent())).toBe('35.24 kΩ');
});
