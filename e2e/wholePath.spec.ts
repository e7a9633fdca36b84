import { expect, test } from '@playwright/test';
import { archetypeBoard } from '../src/core/archetype';
import { brokenBoard, focusPrimary, onlyPrimary, open, takeReading, logLines } from './bench';

test('from a dead supply to a report, by keyboard, following the one lit action of each step', async ({ page }) => {
  const board = archetypeBoard('flyback-opto')!;
  const meter = brokenBoard(board, 'M1:short(d,s)+F1:open', 3);
  const repaired = brokenBoard(board, '', 4);
  await page.addInitScript(() => {
    const held = window as typeof window & { longTasks: number[] };
    held.longTasks = [];
    new PerformanceObserver((list) => list.getEntries().forEach((e) => held.longTasks.push(e.duration))).observe({
      type: 'longtask',
      buffered: true,
    });
  });

  await open(page, '/');
  expect(await onlyPrimary(page)).toBe('New job');
  await page.keyboard.press('Enter');

  await test.step('Intake', async () => {
    await expect(page.getByLabel('Tag', { exact: true })).toBeFocused();
    await page.keyboard.type('KB-1');
    await page.keyboard.press('Tab');
    await page.keyboard.type('Brightwater HL-24 harbour lamp supply');
    for (let i = 0; i < 4; i++) await page.keyboard.press('Tab');
    for (const figure of ['90', '264', '24', '2.5']) {
      await page.keyboard.type(figure);
      await page.keyboard.press('Tab');
    }
    // 60 W / (0.85 x 0.6 x 90 V), worked by hand.
    await expect(page.getByText('1.31')).toHaveCount(2);
    expect(await onlyPrimary(page)).toBe('Open the job');
    await page.keyboard.press('Enter');
  });

  await test.step('Make safe', async () => {
    await expect(page.getByRole('heading', { name: 'Make safe' })).toBeVisible();
    await expect(page.locator('header [data-hazard="LIVE"]')).toBeVisible();
    expect(await onlyPrimary(page)).toBe('Unplugged');
    await page.keyboard.press('Enter');
    await expect(page.locator('header [data-hazard="NOT PROVED"]')).toBeVisible();
    const stores = await page.getByRole('button', { name: 'Keep this proof' }).count();
    expect(stores).toBeGreaterThan(1);
    for (let left = stores; left > 0; left--) {
      expect(await onlyPrimary(page)).toBe('Keep this proof');
      await expect(page.locator('[role=checkbox]:focus')).toHaveCount(1);
      await page.keyboard.press('Space');
      await page.keyboard.press('Tab');
      await page.keyboard.type('0.03');
      await page.keyboard.press('Enter');
      await expect(page.getByRole('button', { name: 'Keep this proof' })).toHaveCount(left - 1);
    }
    await expect(page.locator('header [data-hazard="DISCHARGED"]')).toBeVisible();
    expect(await onlyPrimary(page)).toBe('Take the first reading');
    await focusPrimary(page);
    await page.keyboard.press('Enter');
  });

  await test.step('Probe', async () => {
    const call = page.getByRole('link', { name: 'Call the fault' });
    for (let k = 0; k < 40; k++) {
      await expect(page.locator('[data-settled="yes"]').or(call).first()).toBeVisible({ timeout: 60_000 });
      if (await call.isVisible()) break;
      expect(await onlyPrimary(page)).toBe('Keep the reading');
      await takeReading(page, meter);
      await expect(page.locator('[data-outcome]')).toBeVisible();
      await page.waitForTimeout(150);
    }
    await expect(call).toBeVisible();
    await expect(page.locator('[data-permit="shut"]')).toBeVisible();
    const longest = await page.evaluate(() =>
      Math.max(0, ...(window as typeof window & { longTasks: number[] }).longTasks.slice(1)),
    );
    test.info().annotations.push({ type: 'longest task', description: `${Math.round(longest)} ms` });
    await expect(call).toBeFocused();
    await page.keyboard.press('Enter');
  });

  await test.step('Repair', async () => {
    await expect(page.getByRole('heading', { name: 'Call the fault' })).toBeVisible();
    expect(await onlyPrimary(page)).toMatch(/Call it: M1 shorted/u);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'Also check before power' })).toBeVisible();
    for (let k = 0; k < 30; k++) {
      const primary = await onlyPrimary(page);
      if (primary === 'To the report') break;
      const input = page.locator('input[aria-label^="Reading, red"]:focus');
      const lines = logLines(page);
      const before = await lines.count();
      if (primary === 'Keep') {
        await expect(input).toHaveCount(1);
        const [, red = '', black = ''] =
          /^Reading, red (\S+) black (\S+)$/u.exec((await input.getAttribute('aria-label')) ?? '') ?? [];
        const row = await input.locator('xpath=ancestor::form').textContent();
        const mode = row?.startsWith('Diode') ? 'diode' : 'ohms';
        const checking = (await page.getByRole('button', { name: 'Skip, with a reason' }).count()) > 0;
        await page.keyboard.type((checking ? meter : repaired)(mode, red, black));
      } else await focusPrimary(page);
      await page.keyboard.press('Enter');
      await expect(lines).toHaveCount(before + 1);
    }
    expect(await onlyPrimary(page)).toBe('To the report');
    await focusPrimary(page);
    await page.keyboard.press('Enter');
  });

  await test.step('Report', async () => {
    await expect(page.getByRole('heading', { name: /Repair report/u })).toBeVisible();
    await expect(page.getByText(/M1 shorted drain to source/u).first()).toBeVisible();
    await expect(page.getByText(/Electrical safety tests not made/u)).toBeVisible();
    expect(await onlyPrimary(page)).toBe('Repaired: close the job');
    await focusPrimary(page);
    await page.keyboard.press('Enter');
    // It asks first, with focus on the way out.
    const asked = page.getByRole('alertdialog', { name: 'Close KB-1 as repaired?' });
    await expect(asked.getByRole('button', { name: 'Leave it' })).toBeFocused();
    await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    await expect(asked).toHaveCount(0);
    await expect(page.getByRole('button', { name: 'Print the report' })).toBeVisible();
    const csv = await page.request.get('/api/jobs/KB-1/export?as=csv');
    expect((await csv.text()).split('\n')[0]).toBe(
      'at,actor,board,mode,red,black,value,expected,low,high,unit,purpose,verdict,inPlace,source,load',
    );
    const json = (await (await page.request.get('/api/jobs/KB-1/export?as=json')).json()) as {
      job: { outcome: string };
      readings: unknown[];
    };
    expect(json.job.outcome).toBe('repaired');
    expect(json.readings.length).toBeGreaterThan(3);
  });
});
