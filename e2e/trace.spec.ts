import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import type { Page, Route } from '@playwright/test';
import sharp from 'sharp';
import { DRAWING, barriers, choose, inTheme, open, takeIn } from './bench';

/** A job whose board starts from nothing. */
const emptyJob = (page: Page, tag: string) => takeIn(page.request, tag, { board: { from: 'empty' } });

/** A small offline flyback of 34 parts as a technician would type it. */
const FLYBACK = `J1 "AC IN" L N
F1 T2AL250V L LF
RV1 10D471K LF N
CX1 ".1uF X2 310~" LF N
R20 474 LF N
BD1 KBL406 LF N HV+ HV-
C1 "100uF 400V" HV+ HV-
R1 474 HV+ ST
R2 474 ST VCC
U1 KV51 HV- FB RT CS VCC GATE
R3 1003 RT HV-
R4 220 GATE G
R5 103 G HV-
M1 9N65 DRAIN G SRC
R6 R56 SRC HV-
R7 471 SRC CS
C2 331 CS HV-
D1 FR107 DRAIN CL
R8 223 HV+ CL
C3 103 HV+ CL
T1.P 40t HV+ DRAIN
T1.S 8t OUT- SEC
T1.A 6t HV- AUX
D2 UF4003 AUX VCC
C4 "22uF 35V" VCC HV-
D3 SR3100 SEC OUT+
C5 "1000uF 25V" OUT+ OUT-
R9 222 OUT+ OPA
U2 opto PC81 OPA OPK FB HV-
U3 reference TL431 REF OUT- OPK
R10 1002 OUT+ REF
R11 2491 REF OUT-
CY1 "102M Y1 400~" HV- OUT-
J2 "12V OUT" OUT+ OUT-`.split('\n');

test('a board of 34 parts goes in by shorthand alone; wrong lines keep all that was typed', async ({ page }) => {
  await emptyJob(page, 'TR-1');
  await open(page, '/jobs/TR-1/board');
  const editor = page.getByRole('textbox', { name: 'Bench shorthand' });
  await editor.focus();
  // Line by line with Enter, then the rest at once.
  for (const line of FLYBACK.slice(0, 6)) {
    await page.keyboard.type(line);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('6 parts on')).toBeVisible();
  await page.keyboard.insertText([...FLYBACK.slice(6), 'R98 4k7 HV+', 'R99.1 -- VCC', 'stage R1 spaceship'].join('\n'));
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('34 parts on')).toBeVisible();
  // The wrong ones stay, marked, with their reasons; they survive a reload.
  await expect(editor).toContainText('R98 4k7 HV+');
  await expect(editor).toContainText('R99.1 -- VCC');
  await expect(editor).toContainText('stage R1 spaceship');
  await expect(page.locator('.cm-lintRange-error')).toHaveCount(3);
  await expect(page.getByText('3 marked and kept here')).toBeVisible();
  await expect(page.getByText('on its way')).toHaveCount(0);
  await page.reload();
  await expect(page.getByText('34 parts on')).toBeVisible();
  await page.getByRole('tab', { name: 'Type' }).click();
  await expect(page.getByRole('textbox', { name: 'Bench shorthand' })).toContainText('R98 4k7 HV+');
  // One is put right: it goes in, and takes its place.
  await page.getByRole('textbox', { name: 'Bench shorthand' }).focus();
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('End');
  await page.keyboard.type(' ST');
  await page.keyboard.press('Enter');
  await expect(page.getByText('35 parts on')).toBeVisible();
  // The board computes: stages, topology, a schematic.
  await page.getByRole('tab', { name: 'Stages' }).click();
  await expect(page.getByRole('region', { name: 'How this board is read' }).locator('strong')).toHaveText('flyback');
  const stages = page.getByRole('list', { name: 'Stages from input to output' });
  await expect(stages).toContainText('clamp');
  await expect(stages).toContainText('D1 R8 C3');
  await expect(page.getByRole('region', { name: 'Pins of the controllers' })).toContainText('VCC');
  const drawing = page.getByRole('img', { name: /Schematic/u });
  await expect(drawing).toContainText('output rectifier', { timeout: 30_000 });
  await expect(drawing).toContainText('U1');
});

test('a line is undone from the log, and the board follows', async ({ page }) => {
  await emptyJob(page, 'TR-2');
  await open(page, '/jobs/TR-2/board');
  await page.getByRole('textbox', { name: 'Bench shorthand' }).focus();
  await page.keyboard.insertText('R1 472 A B\nR2 103 B C\nR3 103 C D');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('3 parts on')).toBeVisible();
  // The part is drawn before it is taken back: the drawing must not outlive its board.
  const drawing = page.getByRole('img', { name: /Schematic/u });
  await expect(drawing).toContainText('R3', { timeout: 30_000 });
  await page.getByRole('button', { name: 'Undo: R3 103 C D' }).click();
  await expect(page.getByText('2 parts on')).toBeVisible();
  await expect(drawing).not.toContainText('R3');
  // Facts that disagree are named, and one can be withdrawn.
  await page.getByRole('tab', { name: 'Type' }).click();
  await page.getByRole('textbox', { name: 'Bench shorthand' }).focus();
  await page.keyboard.insertText('A -- C\nA -/- C');
  await page.keyboard.press('Control+Enter');
  const disagree = page.getByRole('region', { name: 'Facts that disagree' });
  await expect(disagree).toContainText('not joined');
  await disagree.getByRole('button', { name: /withdraw A -- C/u }).click();
  await expect(disagree).toHaveCount(0);
});

test('touch mode: one lead rests, the other moves, then two places and one key; by keyboard alone', async ({
  page,
}) => {
  await emptyJob(page, 'TR-3');
  await open(page, '/jobs/TR-3/board');
  await page.getByRole('textbox', { name: 'Bench shorthand' }).focus();
  await page.keyboard.insertText('M1 9N65 ? ? ?\nR4 220 ? ?\nR5 103 ? ?\nC1 "100uF 400V" HV+ HV-\nU1 KV51 HV- ? ? ?');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('5 parts on')).toBeVisible();
  await page.getByRole('tab', { name: 'Touch' }).focus();
  await page.keyboard.press('Enter');
  const check = page.getByRole('region', { name: 'Next check' });
  // A capacitor of 400 V was not proved empty.
  await expect(page.getByText('kill a meter in continuity and diode test')).toBeVisible();
  const volts = page.getByLabel('Volts by diode test');
  await expect(volts).toBeFocused();
  await expect(check).toContainText('Red rests on');
  const first = (await check.textContent())!;
  await page.keyboard.press('o');
  await expect(check).not.toHaveText(first);
  await expect(page.getByText('1 touches so far')).toBeVisible();
  await page.keyboard.type('0,55');
  await page.keyboard.press('Enter');
  await expect(page.getByText('2 touches so far')).toBeVisible();
  await page.keyboard.type('lots');
  await page.keyboard.press('Enter');
  await expect(page.getByText('o for OL')).toBeVisible();
  for (let i = 0; i < 4; i++) await page.keyboard.press('Backspace');
  // The places read so far are told apart; the rest is read, then pairs are asked.
  let touches = 2;
  while ((await volts.count()) > 0 && touches < 40) {
    await page.keyboard.type(`0.${touches + 20}`);
    await page.keyboard.press('Enter');
    await expect(page.getByText(`${++touches} touches so far`)).toBeVisible();
  }
  await expect(page.getByText('on its way')).toHaveCount(0);
  await page.keyboard.press('u');
  await expect(page.getByText(`${touches - 1} touches so far`)).toBeVisible();
  const before = (await check.textContent())!;
  await page.keyboard.press('s');
  await expect(check).not.toHaveText(before);
});

test('touch mode asks pairs where few pins are left: beep, silence, ohms', async ({ page }) => {
  await emptyJob(page, 'TR-9');
  await open(page, '/jobs/TR-9/board');
  await page.getByRole('textbox', { name: 'Bench shorthand' }).focus();
  await page.keyboard.insertText('R4 220 A B\nR5 103 B D\nR6 47k E F\nC1 100n A D\nC2 100n E ?\nC3 10n F ?');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('6 parts on')).toBeVisible();
  await page.getByRole('tab', { name: 'Touch' }).focus();
  await page.keyboard.press('Enter');
  const check = page.getByRole('region', { name: 'Next check' });
  await expect(page.getByLabel('Yes, no or ohms')).toBeFocused();
  const first = (await check.textContent())!;
  await page.keyboard.press('n');
  await expect(check).not.toHaveText(first);
  await expect(page.getByText('1 touches so far')).toBeVisible();
  await page.keyboard.type('4k7');
  await page.keyboard.press('Enter');
  await expect(page.getByText('2 touches so far')).toBeVisible();
  await page.keyboard.type('lots');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Ohms like 0.2')).toBeVisible();
  for (let i = 0; i < 4; i++) await page.keyboard.press('Backspace');
  await page.keyboard.press('y');
  await expect(page.getByText('3 touches so far')).toBeVisible();
});

async function picture(width: number, height: number, kind: 'png' | 'jpeg' | 'webp'): Promise<Buffer> {
  const made = sharp({ create: { width, height, channels: 3, background: '#285040' } });
  return (kind === 'png' ? made.png() : kind === 'jpeg' ? made.jpeg() : made.webp()).toBuffer();
}

test('photographs: both sides dropped, registered, parts pinned, pads joined, from the keyboard', async ({ page }) => {
  await emptyJob(page, 'TR-4');
  await open(page, '/jobs/TR-4/board');
  await page.getByRole('textbox', { name: 'Bench shorthand' }).focus();
  await page.keyboard.insertText('R1 472 ? ?\nC1 103 ? ?');
  await page.keyboard.press('Control+Enter');
  await page.getByRole('tab', { name: 'Photographs' }).click();
  await page
    .getByLabel('Photograph of the front', { exact: true })
    .setInputFiles({ name: 'front.png', mimeType: 'image/png', buffer: await picture(900, 600, 'png') });
  await expect(page.getByText('another front')).toBeVisible();
  await page
    .getByLabel('Photograph of the back', { exact: true })
    .setInputFiles({ name: 'back.jpg', mimeType: 'image/jpeg', buffer: await picture(900, 600, 'jpeg') });
  await expect(page.getByText('another back')).toBeVisible();
  await page.getByRole('radio', { name: 'Mark point pairs' }).click();
  const [front, back] = [
    page.getByRole('application', { name: /^Front/u }),
    page.getByRole('application', { name: /^Back/u }),
  ];
  // Four corners: the cross begins in the middle of each picture and steps by twelve pixels; the back is mirrored.
  const steps = async (pane: typeof front, keys: readonly (readonly [string, number])[]): Promise<void> => {
    await pane.focus();
    for (const [key, times] of keys) for (let i = 0; i < times; i++) await page.keyboard.press(key);
    await page.keyboard.press('Enter');
  };
  const corners = [
    [
      ['ArrowLeft', 20],
      ['ArrowUp', 12],
    ],
    [['ArrowRight', 40]],
    [['ArrowDown', 24]],
    [['ArrowLeft', 40]],
  ] as const;
  for (const [i, keys] of corners.entries()) {
    await steps(front, keys);
    await expect(page.getByText('Now the same point on the back.')).toBeVisible();
    await steps(
      back,
      keys.map(
        ([key, times]) =>
          [key === 'ArrowLeft' ? 'ArrowRight' : key === 'ArrowRight' ? 'ArrowLeft' : key, times] as const,
      ),
    );
    await expect(page.getByRole('region', { name: 'Point pairs' }).getByRole('listitem')).toHaveCount(i + 1);
  }
  await expect(page.getByRole('region', { name: 'Point pairs' })).toContainText('within 0.0 px');
  await page.getByRole('radio', { name: 'Pin parts' }).click();
  const board = page.getByRole('application', { name: /^Photographs/u });
  // The first is long on its way; the second, pointed at meanwhile, waits for its turn and both are kept.
  const late = page.waitForRequest('**/marks');
  const held = async (route: Route): Promise<void> => {
    await new Promise((done) => setTimeout(done, 1_500));
    await route.continue();
  };
  await page.route('**/marks', held, { times: 1 });
  for (const [what, key] of [
    ['R1.2', 'ArrowLeft'],
    ['C1.1', 'ArrowRight'],
  ] as const) {
    await page.getByLabel('Part or pad to pin').fill(what);
    await board.focus();
    for (let i = 0; i < 8; i++) await page.keyboard.press(key);
    await page.keyboard.press('Enter');
    await late;
    await expect(page.getByText(`${what} on its way …`)).toBeVisible();
    await expect(page.getByText(/ pinned$/u)).toHaveCount(0);
  }
  await expect(page.getByText('C1.1 pinned')).toBeVisible();
  await page.getByRole('radio', { name: 'Join pads' }).click();
  await board.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('now the pad it is joined to')).toBeVisible();
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/joined$/u).first()).toBeVisible();
  await expect(page.getByRole('complementary', { name: 'Job log' })).toContainText('-- ');
  await expect(page.getByLabel('Fade from front to back')).toBeVisible();
});

test('a hostile upload is refused clearly and nothing else is affected', async ({ page }) => {
  await emptyJob(page, 'TR-5');
  await open(page, '/jobs/TR-5/board');
  await page.getByRole('tab', { name: 'Photographs' }).click();
  const drop = async (name: string, mimeType: string, buffer: Buffer): Promise<void> => {
    // One file at a time: while one is on its way there is only a way to stop it.
    await expect(page.getByRole('button', { name: /^(?:add|another) front$/u })).toBeVisible();
    await page.getByLabel('Photograph of the front', { exact: true }).setInputFiles({ name, mimeType, buffer });
  };
  const svg = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><script>alert(1)</script></svg>',
  );
  await drop('board.png', 'image/png', svg);
  await expect(page.getByText('no JPEG, PNG or WebP picture')).toBeVisible();
  const png = await picture(400, 300, 'png');
  await drop('cut.png', 'image/png', png.subarray(0, png.length - 40));
  await expect(page.getByText('damaged or cut short')).toBeVisible();
  // A picture that says it is 50,000 x 50,000 pixels.
  const huge = Buffer.from(png);
  huge.writeUInt32BE(50_000, 16);
  huge.writeUInt32BE(50_000, 20);
  await drop('huge.png', 'image/png', huge);
  await expect(page.getByText(/megapixels|damaged/u)).toBeVisible();
  await drop('words.jpg', 'image/jpeg', Buffer.from('just words'));
  await expect(page.getByText('no JPEG, PNG or WebP picture')).toBeVisible();
  await expect(page.getByText('add front')).toBeVisible();
  await drop('good.webp', 'image/webp', await picture(400, 300, 'webp'));
  await expect(page.getByText('another front')).toBeVisible();
});

test('a board traced before is found by what is printed on it and compared part by part', async ({ page }) => {
  await emptyJob(page, 'TR-6');
  await open(page, '/jobs/TR-6/board');
  await page.getByRole('textbox', { name: 'Bench shorthand' }).focus();
  await page.keyboard.insertText('U1 WRACK-77 A B C\nR1 472 A B');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('2 parts on')).toBeVisible();
  await expect(page.getByText('on its way')).toHaveCount(0);
  await open(page, '/jobs/new');
  await page.getByPlaceholder('anything printed on it').fill('wrack');
  await expect(page.getByText('TR-6, Tidewell test piece')).toBeVisible();
  await takeIn(page.request, 'TR-7', { board: { from: 'job', tag: 'TR-6' } });
  await open(page, '/jobs/TR-7/board');
  await page.getByRole('tab', { name: 'Type' }).click();
  await page.getByRole('textbox', { name: 'Bench shorthand' }).focus();
  await page.keyboard.insertText('R1 103\nC1 104 A B');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('3 parts on')).toBeVisible();
  await page.getByRole('tab', { name: 'Compare' }).click();
  await page.getByRole('searchbox', { name: 'Another board' }).fill('wrack');
  await page.getByRole('button', { name: /TR-6/u }).click();
  const list = page.getByRole('list', { name: 'Differences' });
  await expect(list).toContainText(/10\skΩ here, 4\.7\skΩ there/u);
  await expect(list).toContainText('only here');
});

test('every way to trace can be read by all: no accessibility trouble in either theme', async ({ page }) => {
  await open(page, '/jobs/SP-118/board');
  for (const theme of ['soot', 'paper'] as const) {
    await inTheme(page, theme);
    for (const tab of ['Type', 'Touch', 'Photographs', 'Stages', 'Compare']) {
      await page.getByRole('tab', { name: tab }).click();
      await expect(page.getByRole('tab', { name: tab })).toHaveAttribute('aria-selected', 'true');
      const part = { within: 'main', without: DRAWING };
      expect([theme, tab, await barriers(page, theme === 'soot' ? 'advised' : 'colours', part)]).toEqual([
        theme,
        tab,
        [],
      ]);
    }
  }
});

test('a half-traced board says what it lacks and asks what would settle it; the answer stands', async ({ page }) => {
  const whole = readFileSync(join(process.cwd(), 'fixtures/boards/winch-forward-12v.cir'), 'utf8');
  const text = whole
    .split('\n')
    .filter((line) => !line.startsWith('M1 '))
    .join('\n');
  await takeIn(page.request, 'ST-1', { board: { from: 'netlist', text } });
  await open(page, '/jobs/ST-1/board');
  await page.getByRole('tab', { name: 'Stages' }).click();
  const read = page.getByRole('region', { name: 'How this board is read' });
  await expect(read.getByRole('list', { name: 'Not traced yet' })).toContainText('No transistor found yet');
  await expect(read).toContainText('two switch forward?');
  await read.getByRole('button', { name: 'No: forward' }).click();
  await expect(read.getByRole('button', { name: 'No: forward' })).toHaveCount(0);
  await expect(page.getByRole('complementary', { name: 'Job log' })).toContainText('topology LT1P forward');
  // A pin's role is set where it stands.
  await choose(page.getByLabel('Role of U1.2'), 'EN');
  await expect(page.getByLabel('Role of U1.2')).toHaveText('EN');
  await page.reload();
  await page.getByRole('tab', { name: 'Stages' }).click();
  await expect(page.getByLabel('Role of U1.2')).toHaveText('EN');
});
