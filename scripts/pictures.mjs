import { chromium } from '@playwright/test';

/**
 * Takes the pictures in docs/screenshots from a running application with the fresh demo:
 * `./lantern start --reset-demo`, then `npm run pictures -- http://127.0.0.1:4730`.
 */
const PICTURES = [
  ['bench', '/'],
  ['intake', '/jobs/new?from=SP-115'],
  ['make-safe', '/jobs/SP-120/safe'],
  ['trace', '/jobs/SP-118/board', 'soot', 'Parts'],
  ['trace-type', '/jobs/SP-121/board', 'soot', 'Type'],
  ['trace-photographs', '/jobs/SP-118/board', 'soot', 'Photographs'],
  ['trace-stages', '/jobs/SP-118/board', 'soot', 'Stages'],
  ['probe', '/jobs/SP-118/probe'],
  ['probe-powered', '/jobs/SP-119/probe', 'soot', 'Under power'],
  ['expect', '/jobs/SP-118/expect', 'soot', 'Expect', '', ['What if', 'R18 27k']],
  ['rate', '/jobs/SP-118/expect', 'paper', 'Rate'],
  ['power-up', '/jobs/SP-118/expect', 'soot', 'Power up'],
  ['repair', '/jobs/SP-115/repair'],
  ['report', '/jobs/SP-115/report', 'paper'],
  ['sums', '/jobs/SP-118/sums?sum=discharge-time&c=@C1.value&vStart=@C1.store&vSafe=5&r=2k2'],
  ['modify', '/jobs/SP-122/modify', 'soot', '', '', ['Wanted output, V', '6.2']],
  ['sweep', '/jobs/SP-115/sweep'],
  ['settings', '/settings', 'paper'],
  ['phone', '/jobs/SP-118/probe'],
];

const BENCH = { viewport: { width: 1280, height: 800 }, colorScheme: 'dark' };
const PHONE = { ...BENCH, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, deviceScaleFactor: 2 };

const [base = 'http://127.0.0.1:4730'] = process.argv.slice(2);
const browser = await chromium.launch({
  executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
for (const [name, path, theme = 'soot', tab, press, fill] of PICTURES) {
  const page = await browser.newPage(name === 'phone' ? PHONE : BENCH);
  await page.addInitScript((t) => window.localStorage.setItem('theme', t), theme);
  await page.goto(base + path, { waitUntil: 'networkidle' });
  if (path.endsWith('/probe') && tab === undefined)
    await page.locator('[data-settled="yes"]').waitFor({ timeout: 60_000 });
  // The schematic is laid out in a worker of its own.
  await page.waitForTimeout(2500);
  if (tab) await page.getByRole('tab', { name: tab }).click();
  if (press) await page.getByRole('button', { name: press }).click();
  if (fill) await page.getByLabel(fill[0], { exact: true }).fill(fill[1]);
  if (name === 'expect') await page.keyboard.press('Enter');
  if (path.endsWith('/expect')) await page.waitForTimeout(9000);
  if (tab || fill) await page.waitForTimeout(1200);
  if (name === 'probe-powered') {
    await page.getByRole('button', { name: 'output', exact: true }).first().click();
    await page.waitForTimeout(500);
  }
  if (tab === 'Photographs' || tab === 'Stages') {
    await page.getByRole('tablist').evaluate((e) => e.scrollIntoView({ block: 'start' }));
    await page.waitForTimeout(300);
  }
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  await page.close();
  console.log(`docs/screenshots/${name}.png`);
}
await browser.close();
