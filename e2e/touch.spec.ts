import { expect, test } from '@playwright/test';
import { archetypeBoard } from '../src/core/archetype';
import { brokenBoard, openProbe, takeIn } from './bench';

test.use({ hasTouch: true, isMobile: true });

test.describe('a phone over the board', () => {
  test.use({ viewport: { width: 390, height: 844 } });

  test('Probe is lead, lead, figure and large keys; the rest, the log and who works here are one touch away', async ({
    page,
  }) => {
    await takeIn(page.request, 'TP-1', { board: { from: 'typical', name: 'flyback-opto' } });
    await openProbe(page, 'TP-1');
    const field = page.getByRole('textbox', { name: 'Reading' });
    // No keyboard of the phone covers the leads: the keys are here.
    await expect(field).toHaveAttribute('inputmode', 'none');
    await expect(page.getByRole('heading', { name: 'Plan, best next first' })).toBeHidden();
    const keys = page.getByRole('group', { name: 'Figures' });
    for (const key of ['4', '7', 'k']) await keys.getByRole('button', { name: key, exact: true }).tap();
    await expect(field).toHaveValue('47k');
    await keys.getByRole('button', { name: 'Take the last character off' }).tap();
    await keys.getByRole('button', { name: 'Take the last character off' }).tap();
    await expect(field).toHaveValue('4');
    const box = await keys.getByRole('button', { name: '7' }).boundingBox();
    expect([box!.width >= 44, box!.height >= 44]).toEqual([true, true]);
    // All of it is in sight at once: leads, figure, keys.
    const last = await keys.getByRole('button', { name: '.' }).boundingBox();
    expect(last!.y + last!.height).toBeLessThanOrEqual(844);
    await keys.getByRole('button', { name: 'Take the last character off' }).tap();
    await page.getByRole('button', { name: 'Overload' }).tap();
    await expect(page.locator('[data-outcome]')).toBeVisible();

    await page.getByRole('button', { name: 'Job log, and who works here' }).tap();
    const log = page.getByRole('dialog', { name: 'Job log' });
    await expect(log.getByLabel('by', { exact: true })).toHaveText(/Bench A/u);
    await expect(log.getByRole('listitem').first()).toContainText('OL');
    await log
      .getByRole('button', { name: /^Undo: .*OL/u })
      .first()
      .tap();
    await expect(log.getByRole('listitem').first()).toContainText('undone');
    await log.getByRole('button', { name: 'Close the log' }).tap();
    await page.getByRole('button', { name: 'Plan, suspects, permit, drawing' }).tap();
    await expect(page.getByRole('heading', { name: 'Plan, best next first' })).toBeVisible();
  });
});

test.describe('a tablet on the bench', () => {
  test.use({ viewport: { width: 820, height: 1180 } });

  test('a whole job, from intake to the closed report, by touch alone', async ({ page }) => {
    const board = archetypeBoard('flyback-opto')!;
    const meter = brokenBoard(board, 'M1:short(d,s)+F1:open', 3);
    const repaired = brokenBoard(board, '', 4);
    // The log is in its drawer.
    const written = async (): Promise<number> =>
      ((await (await page.request.get('/api/jobs/TT-2/pulse')).json()) as { lines: readonly unknown[] }).lines.length;
    await page.goto('/');
    await page.getByRole('link', { name: 'New job' }).tap();
    await page.getByLabel('Tag', { exact: true }).fill('TT-2');
    await page.getByLabel('Unit', { exact: true }).fill('Tidewell PC-5 pump control supply');
    for (const [label, text] of [
      ['Lowest input, V', '198'],
      ['Highest, V', '264'],
      ['Output, V', '24'],
      ['Output, A', '2,5'],
    ] as const)
      await page.getByLabel(label).fill(text);
    await page.getByText('It came in with nothing connected').tap();
    await page.getByRole('checkbox', { name: 'dead', exact: true }).tap();
    await page.getByRole('radio', { name: /^Offline flyback with opto feedback/u }).tap();
    await page.getByRole('button', { name: 'Open the job' }).tap();
    await expect(page.getByRole('heading', { name: 'Make safe' })).toBeVisible();
    for (;;) {
      const form = page.locator('form').filter({ has: page.getByRole('button', { name: 'Keep this proof' }) });
      const left = await form.count();
      if (left === 0) break;
      await form.first().getByRole('checkbox').tap();
      await form.first().getByLabel('DC volts read').fill('0,03');
      await form.first().getByRole('button', { name: 'Keep this proof' }).tap();
      await expect(form).toHaveCount(left - 1);
    }
    await page.getByRole('link', { name: 'Take the first reading' }).tap();
    await expect(page.locator('[data-point][data-settled="yes"]')).toBeVisible({ timeout: 60_000 });
    const small = await page.getByRole('toolbar', { name: 'Keys of the empty field' }).getByRole('button').all();
    for (const key of small) expect((await key.boundingBox())!.height).toBeGreaterThanOrEqual(44);
    // The drawing is moved by a finger, and the page stays where it is.
    await page.getByRole('button', { name: 'Larger' }).first().tap();
    await page.getByRole('button', { name: 'Over the whole window' }).tap();
    const whole = page.getByRole('dialog', { name: 'The drawing over the whole window' });
    await expect(whole.getByRole('img', { name: /^Schematic of/u })).toBeVisible();
    await whole.getByRole('button', { name: 'Back to the page' }).tap();
    await expect(whole).toHaveCount(0);

    const call = page.getByRole('link', { name: 'Call the fault' });
    for (let k = 0; k < 40; k++) {
      const point = page.locator('[data-point][data-settled="yes"]');
      await expect(point.or(call).first()).toBeVisible({ timeout: 60_000 });
      if (await call.isVisible()) break;
      const [mode = '', red = '', black = ''] = ((await point.getAttribute('data-point')) ?? '').split(' ');
      const before = await written();
      const text = meter(mode as 'diode', red, black);
      if (text === 'o') await page.getByRole('button', { name: 'Overload' }).tap();
      else {
        await page.getByRole('textbox', { name: 'Reading' }).fill(text);
        await page.getByRole('button', { name: 'Keep the reading' }).tap();
      }
      await expect.poll(written).toBe(before + 1);
      await page.waitForTimeout(150);
    }
    await call.tap();
    await page.getByRole('button', { name: /^Call it: M1 shorted/u }).tap();
    await expect(page.getByRole('heading', { name: 'Also check before power' })).toBeVisible();
    const lit = page.locator('[data-primary="yes"]');
    for (let k = 0; k < 30; k++) {
      await expect(lit).toHaveCount(1);
      const words = await lit.textContent();
      if (words === 'To the report') break;
      const before = await written();
      if (words === 'Keep') {
        const row = page.locator('form').filter({ has: lit });
        const field = row.getByLabel(/^Reading, red/u);
        const label = await field.getAttribute('aria-label', { timeout: 5_000 }).catch(() => null);
        // The row of what was just kept, for a moment still there.
        if (label === null) continue;
        const [, red = '', black = ''] = /red (\S+) black (\S+)$/u.exec(label) ?? [];
        const mode = (await row.textContent())?.startsWith('Diode') ? 'diode' : 'ohms';
        const checking = (await page.getByRole('button', { name: 'Skip, with a reason' }).count()) > 0;
        await field.fill((checking ? meter : repaired)(mode, red, black));
      }
      await lit.tap();
      await expect.poll(written).toBe(before + 1);
    }
    await lit.tap();
    await expect(page.getByRole('heading', { name: /Repair report/u })).toBeVisible();
    await page.getByRole('button', { name: 'Repaired: close the job' }).tap();
    await page.getByRole('alertdialog').getByRole('button', { name: 'Close it' }).tap();
    await expect(page.getByRole('button', { name: 'Print the report' })).toBeVisible();
  });
});
