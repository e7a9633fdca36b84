import { randomUUID } from 'node:crypto';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import type { APIRequestContext, Locator, Page } from '@playwright/test';
import type { Board } from '../src/core/circuit';
import { parseFault } from '../src/core/fault';
import { SimulatedBoard, drawParts } from '../src/core/meter';
import type { UnpoweredMode } from '../src/core/meter';
import { seededRandom } from '../src/core/quantity';

/** A broken board on the bench and a meter: answers what a technician would read at any point. */
export function brokenBoard(
  board: Board,
  faults: string,
  seed: number,
): (mode: UnpoweredMode, red: string, black: string) => string {
  const parsed = faults === '' ? [] : faults.split('+').map((text) => parsed1(board, text));
  const random = seededRandom(seed);
  const unit = new SimulatedBoard(board, parsed, drawParts(random));
  return (mode, red, black) => {
    const shown = unit.read(mode, red, black, random);
    if (shown.kind === 'overload') return 'o';
    if (mode === 'cap') return `${(shown.value * 1e6).toPrecision(4)}u`;
    return mode === 'diode' ? `${Math.round(shown.value * 1000)}m` : figureText(shown.value);
  };
}

function parsed1(board: Board, text: string) {
  const fault = parseFault(board, text);
  if (!fault.ok) throw new Error(fault.problem.sentence);
  return fault.value;
}

/** Ohm as a person would type it. */
function figureText(ohms: number): string {
  if (ohms >= 1e6) return `${(ohms / 1e6).toPrecision(4)}M`;
  if (ohms >= 1e3) return `${(ohms / 1e3).toPrecision(4)}k`;
  return ohms.toPrecision(4);
}

/** Goes to a page and waits until it listens. */
export async function open(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await expect(page.locator('html[data-listening="yes"]')).toHaveCount(1, { timeout: 60_000 });
}

/** Opens Probe with the proofs of discharge set aside, and waits for its first point. */
export async function openProbe(page: Page, tag: string): Promise<void> {
  const data = {
    clientKey: randomUUID(),
    actor: 'Bench A',
    boardId: null,
    entry: { kind: 'override', body: { what: 'proof', reason: 'shorting lead across every store' } },
  };
  const answer = await page.request.post(`/api/jobs/${tag}/lines`, { data, headers: { origin: origin() } });
  expect(answer.ok()).toBe(true);
  await open(page, `/jobs/${tag}/probe`);
  await expect(page.locator('[data-point][data-settled="yes"]')).toBeVisible({ timeout: 60_000 });
}

/** The one lit action of the screen must have focus, or be reached by Tab from the top of the work. */
export async function onlyPrimary(page: Page): Promise<string> {
  const lit = page.locator('[data-primary="yes"]');
  await expect(lit).toHaveCount(1);
  return (await lit.textContent()) ?? '';
}

/** Presses Tab until the lit action has focus; fails after a while. */
export async function focusPrimary(page: Page): Promise<void> {
  const focused = (): Promise<boolean> =>
    page.evaluate(() => document.activeElement?.getAttribute('data-primary') === 'yes');
  for (let i = 0; i < 60; i++) {
    if (await focused()) return;
    await page.keyboard.press('Tab');
  }
  throw new Error('the primary action cannot be reached by Tab');
}

/** The lines of the job's log. */
export const logLines = (page: Page): Locator => page.locator('ol[aria-label="Lines, newest first"] > li');

/** Types the reading that the broken board gives at the point on the screen, and waits until it is weighed. */
export async function takeReading(page: Page, meter: ReturnType<typeof brokenBoard>): Promise<void> {
  const section = page.locator('[data-point][data-settled="yes"]');
  await expect(section).toHaveCount(1);
  const [mode = '', red = '', black = ''] = ((await section.getAttribute('data-point')) ?? '').split(' ');
  const lines = logLines(page);
  const before = await lines.count();
  const text = meter(mode as UnpoweredMode, red, black);
  await page.keyboard.type(text);
  if (text !== 'o') await page.keyboard.press('Enter');
  // A figure a whole decade off is asked about: it is as typed.
  if (await page.getByText('as typed, or').isVisible()) await page.keyboard.press('1');
  await expect(lines).toHaveCount(before + 1);
}

/** What is looked for: what the guidelines ask, all that is advised, the colours alone, which another theme brings, or all but those. */
export type BarrierKind = 'guidelines' | 'advised' | 'colours' | 'structure';

/**
 * What keeps somebody from using the page, by axe, each with its places; of a part of the page, or all of it. Only what is
 * wrong is asked for, in one document: a third of the time.
 */
export async function barriers(
  page: Page,
  kind: BarrierKind,
  { within, without }: { readonly within?: string; readonly without?: string } = {},
): Promise<readonly string[]> {
  const builder = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] });
  if (kind === 'colours') builder.withRules(['color-contrast']);
  else if (kind !== 'advised') builder.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']);
  if (kind === 'structure') builder.disableRules(['color-contrast']);
  if (within !== undefined) builder.include(within);
  if (without !== undefined) builder.exclude(without);
  const { violations } = await builder.analyze();
  return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`);
}

/** The drawing is the same at every size, and takes longest. */
export const DRAWING = 'svg[aria-label^="Schematic of"]';

/** Shows the page in a theme. */
export async function inTheme(page: Page, theme: 'soot' | 'paper'): Promise<void> {
  await page.evaluate((t) => (document.documentElement.dataset['theme'] = t), theme);
}

/** Watches the page's main thread; the function it gives stops that and tells the processor time of the longest task, ms. */
export async function watchTasks(page: Page): Promise<() => Promise<number>> {
  interface Traced {
    readonly name: string;
    readonly tid: number;
    readonly pid: number;
    readonly tdur?: number;
    readonly args?: { readonly name?: string };
  }
  const session = await page.context().newCDPSession(page);
  const events: Traced[] = [];
  session.on('Tracing.dataCollected', ({ value }) => events.push(...(value as unknown as Traced[])));
  await session.send('Tracing.start', {
    categories: 'disabled-by-default-devtools.timeline,__metadata',
    transferMode: 'ReportEvents',
  });
  return async () => {
    const complete = new Promise<void>((resolve) => session.once('Tracing.tracingComplete', () => resolve()));
    await session.send('Tracing.end');
    await complete;
    await session.detach();
    const main = events.find((e) => e.name === 'thread_name' && e.args?.name === 'CrRendererMain');
    const tasks = events.filter((e) => e.tid === main?.tid && e.pid === main?.pid && e.name === 'RunTask');
    expect(tasks.length).toBeGreaterThan(10);
    return Math.max(...tasks.map((e) => (e.tdur ?? 0) / 1000));
  };
}

/** Presses Tab until this has focus, arrows among the tabs of one strip; fails after a while. */
export async function tabTo(page: Page, target: Locator): Promise<void> {
  await expect(target).toHaveCount(1);
  for (let i = 0; i < 150; i++) {
    if (await target.evaluate((e) => e === document.activeElement)) return;
    const strip = await target.evaluate((e) => e.closest('[role=tablist]')?.contains(document.activeElement) ?? false);
    await page.keyboard.press(strip ? 'ArrowRight' : 'Tab');
  }
  throw new Error('cannot be reached by Tab');
}

/** Chooses from a select as a person does: opens it and takes the words, or those at a place. */
export async function choose(field: Locator, words: string | number): Promise<void> {
  await field.click();
  const options = field.page().getByRole('option');
  await (
    typeof words === 'number' ? options.nth(words) : field.page().getByRole('option', { name: words, exact: true })
  ).click();
  await expect(options).toHaveCount(0);
}

/** The origin that the application's own pages have. */
export const origin = (): string => String(test.info().project.use.baseURL);
/** A mains front end with its bulk store. */
export const FRONT = 't\nXJ1 L N CONN\nXF1 L LF FUSE\nXBD1 LF N P M BRIDGE\nC1 P M 1000u vr=400\nR1 P M 100k\n';

/** Takes in an isolated unit over the interface of the server; gives its board's id. */
export async function takeIn(request: APIRequestContext, tag: string, more: object = {}): Promise<string> {
  const data = {
    tag,
    unit: 'Tidewell test piece',
    nameplate: { source: 'mains', inputMin: 90, inputMax: 264 },
    complaint: 'dead',
    symptoms: [],
    sources: [{ name: 'Mains lead', kind: 'mains' }],
    board: { from: 'netlist', text: FRONT },
    bench: `Bench ${tag}`,
    disconnected: true,
    ...more,
  };
  const answer = await request.post('/api/jobs', { data, headers: { origin: origin() } });
  expect(answer.status(), await answer.text()).toBe(200);
  const news = (await (await request.get(`/api/jobs/${tag}/pulse`)).json()) as { boardIds: string[] };
  return news.boardIds[0]!;
}

/** Writes a line as another bench would; it must be taken. */
export async function write(
  request: APIRequestContext,
  tag: string,
  entry: object,
  boardId: string | null,
): Promise<void> {
  const data = { clientKey: randomUUID(), actor: 'Bench B', boardId, entry };
  const answer = await request.post(`/api/jobs/${tag}/lines`, { data, headers: { origin: origin() } });
  expect(answer.status(), await answer.text()).toBe(200);
}
