import { archetypeBoard } from '@/core/archetype';
import { boardFromJson, boardToJson } from './boardCopy';
import { BoardJson } from './boardJson';
import { BoardsChange, COMPLAINTS, COMPLAINT_CODES, NewJob } from './jobForm';
import { LedgerEntry, NewLine, readEntry, storedBody } from './ledger';
import { parseReadingsCsv } from './readingsCsv';
import { SYMPTOMS } from '@/core/diagnose';

const reading = {
  kind: 'reading',
  body: { mode: 'ohms', red: 'A', black: 'B', seen: { kind: 'figure', value: 5 } },
} as const;

test.each([
  ['an unknown kind', { kind: 'rumour', body: {} }],
  ['a mode that is not built', { ...reading, body: { ...reading.body, mode: 'sniff' } }],
  ['a net without a name', { ...reading, body: { ...reading.body, red: '' } }],
  ['a net too long to be one', { ...reading, body: { ...reading.body, red: 'x'.repeat(65) } }],
  ['a figure that is text', { ...reading, body: { ...reading.body, seen: { kind: 'figure', value: '5' } } }],
  ['a figure that is no number', { ...reading, body: { ...reading.body, seen: { kind: 'figure', value: NaN } } }],
  ['an unknown outcome', { ...reading, body: { ...reading.body, seen: { kind: 'good' } } }],
  ['an unknown stimulus', { ...reading, body: { ...reading.body, conditions: { stimulus: 'kicked' } } }],
  ['a derived verdict', { ...reading, body: { ...reading.body, verdict: 'agree' } }],
  ['a finding without words', { kind: 'finding', body: { place: 'C1', severity: 'note', words: ' ' } }],
  ['a severity of nobody', { kind: 'finding', body: { place: 'C1', severity: 'bad', words: 'x' } }],
  ['a source without a name', { kind: 'isolation', body: { source: '' } }],
  ['a proof of nothing', { kind: 'discharge-proof', body: { storeKey: 'x', refs: [], volts: 0, meterProved: true } }],
  [
    'a proof in megavolts',
    { kind: 'discharge-proof', body: { storeKey: 'x', refs: ['C1'], volts: 1e6, meterProved: true } },
  ],
  [
    'a proof that says nothing of the meter',
    { kind: 'discharge-proof', body: { storeKey: 'x', refs: ['C1'], volts: 0 } },
  ],
  ['a skip without a reason', { kind: 'check-skipped', body: { ref: 'R1', fault: 'R1:open', reason: '' } }],
  [
    'a part from nowhere',
    { kind: 'replacement', body: { ref: 'M1', was: '', fitted: { source: 'found', samePart: true }, words: '' } },
  ],
  [
    'a negative rating',
    {
      kind: 'replacement',
      body: { ref: 'M1', was: '', fitted: { source: 'new', samePart: false, ratedVolts: -5 }, words: '' },
    },
  ],
  ['a step that is not closed', { kind: 'step-closed', body: { step: 'lunch' } }],
  ['an empty fault', { kind: 'fault', body: { fault: ' ', words: '' } }],
])('a line with %s is refused', (_name, entry) => expect(LedgerEntry.safeParse(entry).success).toBe(false));

test('a line read back is the line that was sent, conditions filled in', () => {
  const entry = LedgerEntry.parse(reading);
  const line = { clientKey: '7d444840-9dc0-41d1-b245-5ffdce74fad2', actor: ' Bench A ', boardId: '7', entry };
  const sent = NewLine.parse(line);
  expect(sent).toMatchObject({
    actor: 'Bench A',
    reverses: null,
    entry: { body: { conditions: { settled: 'settled' } } },
  });
  const kept = JSON.parse(JSON.stringify(storedBody(sent.entry))) as unknown;
  expect(readEntry(sent.entry.kind, kept)).toEqual(sent.entry);
});

test.each([
  ['a key that is no identifier', { clientKey: 'one' }],
  ['a board that is no number', { boardId: 'x' }],
  ['a reversal of words', { reverses: 'the last one' }],
  ['nobody', { actor: '  ' }],
  ['more than there is', { verdict: 'agree' }],
])('a request with %s is refused', (_name, change) => {
  const line = { clientKey: '7d444840-9dc0-41d1-b245-5ffdce74fad2', actor: 'A', boardId: null, entry: reading };
  expect(NewLine.safeParse(line).success).toBe(true);
  expect(NewLine.safeParse({ ...line, reverses: '12' }).success).toBe(true);
  expect(NewLine.safeParse({ ...line, reverses: line.clientKey }).success).toBe(true);
  expect(NewLine.safeParse({ ...line, ...change }).success).toBe(false);
});

const job = {
  tag: 'SP-9',
  unit: 'U',
  nameplate: {},
  complaint: '',
  symptoms: [],
  sources: [{ name: 'Mains', kind: 'mains' }],
  board: { from: 'typical', name: 'buck-module' },
};
test.each([
  ['a tag in letters of its own', { tag: 'ÄÖ' }],
  ['a tag that is too long', { tag: 'A'.repeat(21) }],
  ['a tag that begins with a hyphen', { tag: '-A' }],
  ['a unit too long to print', { unit: 'x'.repeat(121) }],
  ['a source of no kind', { sources: [{ name: 'x', kind: 'nuclear' }] }],
  ['too many sources', { sources: Array.from({ length: 9 }, () => ({ name: 'x', kind: 'mains' })) }],
  ['a board out of thin air', { board: { from: 'memory' } }],
  ['a netlist beyond all size', { board: { from: 'netlist', text: 'x'.repeat(1_000_001) } }],
  ['an unknown key', { price: 5 }],
  ['no bench', { bench: ' ' }],
])('a job with %s is refused', (_name, change) => {
  expect(NewJob.safeParse(job).success).toBe(true);
  expect(NewJob.safeParse({ ...job, ...change }).success).toBe(false);
});

test('a job is connected and on bench A until somebody says otherwise', () => {
  expect(NewJob.parse(job)).toMatchObject({ bench: 'Bench A', disconnected: false, serial: '' });
});

test('complaints hold every symptom of the contract, each once, and may all be ticked', () => {
  expect(COMPLAINT_CODES).toEqual(expect.arrayContaining([...SYMPTOMS]));
  expect(new Set(COMPLAINT_CODES).size).toBe(COMPLAINTS.length);
  expect(new Set(COMPLAINTS.map((c) => c.words)).size).toBe(COMPLAINTS.length);
  expect(NewJob.safeParse({ ...job, symptoms: [...COMPLAINT_CODES] }).success).toBe(true);
});

test.each([
  [{ kind: 'add', actor: 'A', label: ' ', board: job.board }],
  [{ kind: 'add', actor: 'A', label: 'x', board: { from: 'typical' } }],
  [{ kind: 'join', actor: 'A', fromBoard: 'x', fromPin: 'J1', toBoard: '2', toPin: 'J2' }],
  [{ kind: 'join', actor: 'A', fromBoard: '1', fromPin: '', toBoard: '2', toPin: 'J2' }],
  [{ kind: 'cut', actor: 'A' }],
])('a change of boards %# is refused', (change) => expect(BoardsChange.safeParse(change).success).toBe(false));

test.each(['flyback-opto', 'buck-module'])('the typical circuit %s goes through JSON without loss', (name) => {
  const board = archetypeBoard(name)!;
  const json: unknown = JSON.parse(JSON.stringify(boardToJson(board)));
  expect(boardFromJson(BoardJson.parse(json))).toEqual(board);
});

test.each([
  ['no header', 'diode,A,B,0.5'],
  ['another order', 'red,black,mode,value\nA,B,diode,0.5'],
  ['an empty file', ''],
])('readings with %s are refused', (_name, text) => {
  expect(parseReadingsCsv(archetypeBoard('buck-module')!, text).ok).toBe(false);
});
