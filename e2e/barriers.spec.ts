import { expect, test } from '@playwright/test';
import { DRAWING, barriers, inTheme, onlyPrimary, open } from './bench';
import type { BarrierKind } from './bench';

/** Every screen of the demo, with what its lit action says. */
const SCREENS = [
  ['/', 'New job'],
  ['/jobs/new', 'Open the job'],
  ['/jobs/SP-118/intake', /./u],
  ['/jobs/SP-119/safe', 'Taken off, ends taped'],
  ['/jobs/SP-120/board', /./u],
  ['/jobs/SP-118/drawing', 'Print or save as PDF'],
  ['/jobs/SP-119/probe', 'Isolate every source'],
  ['/jobs/SP-120/probe', 'Keep this proof'],
  ['/jobs/SP-118/repair', /Call it/u],
  ['/jobs/SP-115/report', 'Print the report'],
  ['/jobs/SP-118/expect', 'Read it in Probe'],
  ['/sums', 'Copy as text'],
  ['/jobs/SP-118/sums', 'Keep in the job log'],
  ['/jobs/SP-115/modify', 'Keep this change'],
  ['/jobs/SP-115/sweep', 'Keep'],
  ['/jobs/SP-120/sweep', 'Begin the sweep'],
  ['/settings', 'Keep the settings'],
] as const;

/** Everything in both themes at every size, with AXE_ALL set: twice the time. */
const EVERY = process.env['AXE_ALL'] !== undefined;

/** Else a theme brings its colours alone, and a size all but the colours. */
const LOOKS = [
  { width: 1280, theme: 'soot', of: 'guidelines' },
  { width: 1280, theme: 'paper', of: 'colours' },
  { width: 390, theme: 'paper', of: 'structure' },
] as const;

/** The bench, a tablet, a phone. */
const SIZES = [
  [1280, 800],
  [820, 1180],
  [390, 844],
] as const;

for (const [path, primary] of SCREENS) {
  test(`${path}: one lit action, no barrier in either theme, nothing wider than the window`, async ({ page }) => {
    const errors: string[] = [];
    page.on('pageerror', (e) => errors.push(e.message));
    await open(page, path);
    await page.waitForLoadState('networkidle');
    expect(await onlyPrimary(page)).toMatch(primary);
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      const every = (['soot', 'paper'] as const).map((theme) => ({ width, theme, of: 'guidelines' as const }));
      for (const { theme, of } of EVERY ? every : LOOKS.filter((l) => l.width === width)) {
        await inTheme(page, theme);
        await page.waitForTimeout(100);
        const part = width === 1280 && theme === 'soot' ? {} : { without: DRAWING };
        expect([width, theme, await barriers(page, of, part)]).toEqual([width, theme, []]);
      }
      const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      expect([width, over <= 0]).toEqual([width, true]);
    }
    expect(errors).toEqual([]);
  });
}

test('a probing screen with its plan has no barrier either, nor while the plan is made', async ({ page }) => {
  await open(page, '/jobs/SP-118/probe');
  await expect(page.locator('[data-point]').first()).toBeVisible({ timeout: 60_000 });
  expect(await barriers(page, 'guidelines')).toEqual([]);
  await expect(page.locator('[data-point][data-settled="yes"]')).toBeVisible({ timeout: 60_000 });
  for (const theme of ['soot', 'paper'] as const) {
    await inTheme(page, theme);
    expect(await barriers(page, 'guidelines')).toEqual([]);
  }
});

test('a barrier is found where there is one, by what is looked for', async ({ page }) => {
  await page.setContent(`<html lang="en"><title>t</title><main>
    <img src="none.png"><p style="color: #777; background: #888">pale</p><h3>Too deep</h3></main></html>`);
  const found = async (kind: BarrierKind, part = {}): Promise<readonly string[]> =>
    (await barriers(page, kind, part)).map((b) => b.split(':')[0]!).sort();
  expect(await found('guidelines')).toEqual(['color-contrast', 'image-alt']);
  expect(await found('colours')).toEqual(['color-contrast']);
  expect(await found('structure')).toEqual(['image-alt']);
  expect(await found('advised')).toEqual(['color-contrast', 'image-alt', 'page-has-heading-one']);
  expect(await found('guidelines', { without: 'img' })).toEqual(['color-contrast']);
  expect(await found('guidelines', { within: 'h3' })).toEqual([]);
});
