import { EMPTY_BOARD } from '@/core/circuit';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { readNetlist, writeNetlist } from '@/core/netlist';
import { boardFromJson, boardToJson } from './boardCopy';
import { BoardJson } from './boardJson';
import { JobArchive } from './jobArchive';
import { LedgerEntry, NewLine } from './ledger';
import { NewJob } from './jobForm';
import { csvCell } from '@/core/csv';
import { readCells, readPartsText, readSweepText } from './csv';
import { parseReadingsCsv } from './readingsCsv';
import { FIRST_SETTINGS, StoredSettings } from './settings';

const root = join(__dirname, '../..');
const source = readFileSync(join(root, 'fixtures/boards/galley-inverter-600.cir'), 'utf8');
const read = readNetlist(source);
if (!read.ok) throw new Error('fixture');
const { board } = read.value;

test('a board survives JSON whole: the netlist written from it is the file it came from', () => {
  const json: unknown = JSON.parse(
    JSON.stringify(boardToJson({ ...board, nameplate: { source: 'battery', inputMax: 15 } })),
  );
  const back = boardFromJson(BoardJson.parse(json));
  expect(writeNetlist(back)).toBe(source);
  expect(back.nameplate).toEqual({ source: 'battery', inputMax: 15 });
});

test.each([
  ['another format', { format: 'something' }],
  ['a key of nobody', { extra: 1 }],
])('a board JSON with %s is refused', (_name, change) => {
  expect(BoardJson.safeParse({ ...boardToJson(board), ...change }).success).toBe(false);
});

test('a board without parts is one to be traced from nothing', () => {
  expect(BoardJson.safeParse({ ...boardToJson(board), parts: [] }).success).toBe(true);
});

test.each([
  ['board', BoardJson],
  ['job', JobArchive],
])('the published JSON Schema of a %s is the one made from the Zod schema', (name, schema) => {
  const path = join(root, `docs/${name}.schema.json`);
  const made = `${JSON.stringify(z.toJSONSchema(schema, { io: 'input' }), null, 2)}\n`;
  if (process.env['WRITE_SCHEMA']) writeFileSync(path, made);
  expect(readFileSync(path, 'utf8')).toBe(made);
});

test('readings CSV: figures, OL, quotes and case; every bad line named', () => {
  const good = parseReadingsCsv(board, 'mode,red,black,value\r\ndiode,GA1,"BAT-",0.628\nohms,hv+,HV-,OL\n\n');
  expect(good.ok && good.value.unpowered.map((r) => [r.red, r.seen])).toEqual([
    ['GA1', { kind: 'figure', value: 0.628 }],
    ['HV+', { kind: 'overload' }],
  ]);
  const bad = parseReadingsCsv(
    board,
    'mode,red,black,value\nsmell,GA1,BAT-,1\ndiode,NOPE,BAT-,1\ndiode,GA1,BAT-,abc\nsniff,GA1,BAT-,3',
  );
  expect(!bad.ok && bad.problem.map((p) => p.details!.line)).toEqual([2, 3, 4, 5]);
  expect(parseReadingsCsv(board, 'a,b\n').ok).toBe(false);
  expect(readCells(csvCell('a "b", c'), ',').rows).toEqual([['a "b", c']]);
});

test('readings CSV: lines with a source were read under power, the others cold', () => {
  const header = 'mode,red,black,value,source,load\n';
  const good = parseReadingsCsv(
    board,
    `${header}diode,GA1,BAT-,0.6,,\ndcv,HV+,HV-,318.5,230,half\nfreq,GA1,BAT-,65000,230,`,
  );
  expect(good.ok && good.value.unpowered).toHaveLength(1);
  expect(good.ok && good.value.powered).toEqual([
    { mode: 'dcv', red: 'HV+', black: 'HV-', value: 318.5, condition: { source: 230, load: 'half' } },
    { mode: 'freq', red: 'GA1', black: 'BAT-', value: 65000, condition: { source: 230, load: 'half' } },
  ]);
  const bad = parseReadingsCsv(
    board,
    `${header}diode,GA1,BAT-,1,230,half\ndcv,HV+,HV-,1,230,some\ndcv,HV+,HV-,1,much,half\ndcv,HV+,HV-,OL,230,half\ndcv,HV+,HV-,1,,`,
  );
  expect(!bad.ok && bad.problem.map((p) => p.details!.line)).toEqual([2, 3, 4, 5, 6]);
});

test('ledger entries are strict: unknown keys, empty reasons and wild figures are refused', () => {
  const reading = { kind: 'reading', body: { mode: 'diode', red: 'A', black: 'B', seen: { kind: 'overload' } } };
  expect(LedgerEntry.parse(reading)).toMatchObject({
    body: { purpose: 'probe', placeConfirmed: false, conditions: { powered: false, stimulus: 'none' } },
  });
  for (const wrong of [
    { ...reading, body: { ...reading.body, verdict: 'agrees' } },
    { kind: 'override', body: { what: 'proof', reason: '' } },
    { kind: 'discharge-proof', body: { storeKey: 'x', refs: [], volts: 0, meterProved: true } },
    { kind: 'gossip', body: {} },
  ]) {
    expect(LedgerEntry.safeParse(wrong).success).toBe(false);
  }
  const line = { clientKey: '7d444840-9dc0-41d1-b245-5ffdce74fad2', actor: 'Bench A', boardId: '1', entry: reading };
  expect(NewLine.safeParse(line).success).toBe(true);
  expect(NewLine.safeParse({ ...line, boardId: '1; drop table job' }).success).toBe(false);
});

test('a new job needs a tag of plain letters, a unit and at least one source', () => {
  const job = {
    tag: 'sp-9',
    unit: 'U',
    nameplate: {},
    complaint: '',
    symptoms: ['dead'],
    sources: [{ name: 'Mains', kind: 'mains' }],
    board: { from: 'typical', name: 'buck-module' },
  };
  expect(NewJob.parse(job).tag).toBe('SP-9');
  for (const wrong of [
    { ...job, tag: 'a b' },
    { ...job, unit: ' ' },
    { ...job, sources: [] },
    { ...job, symptoms: ['sad'] },
  ])
    expect(NewJob.safeParse(wrong).success).toBe(false);
});

test('a note with a lone quote swallows no row, a decimal comma parts no cell where semicolons do', () => {
  const { rows, troubles } = readSweepText('vin,vout,note\n10,5,"as found\n11,5.1,warm\n12,5.2,\n', 'vin');
  expect(troubles).toEqual([]);
  expect(rows.map((r) => [r.vin, r.vout, r.note])).toEqual([
    [10, 5, '"as found'],
    [11, 5.1, 'warm'],
    [12, 5.2, ''],
  ]);
  expect(readCells('ref;kind;value\nR7;resistor;4,7').rows).toEqual([
    ['ref', 'kind', 'value'],
    ['R7', 'resistor', '4,7'],
  ]);
  expect(readCells('a\tb;c\n1\t"2\t3"\r\n').rows).toEqual([['a', 'b;c'], ['1', '2\t3'], ['']]);
  expect(readCells('').rows).toEqual([['']]);
});

test('a parts list of thirty thousand rows is cut where no board goes on, and says so', () => {
  const text = `ref,kind,value\n${Array.from({ length: 30_000 }, (_, i) => `R${i % 9999},resistor,1k`).join('\n')}`;
  const begun = performance.now();
  const { lines, troubles } = readPartsText(text, EMPTY_BOARD);
  expect(performance.now() - begun).toBeLessThan(2000);
  expect(lines.length).toBeLessThanOrEqual(5000);
  expect(troubles.at(-1)?.sentence).toMatch(/More than 5000 rows/u);
});

test.each([
  ['=1+1', "'=1+1"],
  ['@SUM(A1)', "'@SUM(A1)"],
  ['-cmd', "'-cmd"],
  ['+cmd', "'+cmd"],
  ['-0.5', '-0.5'],
  ['+12', '+12'],
  ['-1e-3', '-1e-3'],
  ['R7', 'R7'],
])('in a CSV cell %s is written as %s', (given, cell) => expect(csvCell(given)).toBe(cell));

test('settings of an earlier version keep what was set; what they do not know yet is as it is at first', () => {
  const costs: Partial<typeof FIRST_SETTINGS.costs> = { ...FIRST_SETTINGS.costs, bothMove: 7 };
  delete costs.instrument;
  const read = StoredSettings.parse({ ...FIRST_SETTINGS, costs, zone: 'Nowhere/Atoll' });
  expect(read.costs).toEqual({ ...FIRST_SETTINGS.costs, bothMove: 7 });
  expect(read.zone).toBe(FIRST_SETTINGS.zone);
  expect(StoredSettings.parse({ costs: { bothMove: -1 } }).costs).toEqual(FIRST_SETTINGS.costs);
});
