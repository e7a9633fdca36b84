import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { main } from './main';

const boards = join(__dirname, '../../fixtures/boards');
const lamp = join(boards, 'lamp-supply-24v.cir');
const labels = join(boards, 'lamp-supply-24v.labels.json');
const folder = mkdtempSync(join(tmpdir(), 'lantern-cli-'));

/** Runs a command; gives its exit status and what it printed. */
function run(...words: string[]): { readonly status: number; readonly out: string; readonly err: string } {
  const out: string[] = [];
  const err: string[] = [];
  const log = jest.spyOn(console, 'log').mockImplementation((text: unknown) => void out.push(String(text)));
  const error = jest.spyOn(console, 'error').mockImplementation((text: unknown) => void err.push(String(text)));
  const status = main(words) as number;
  log.mockRestore();
  error.mockRestore();
  return { status, out: out.join('\n'), err: err.join('\n') };
}

function file(name: string, text: string): string {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
}

afterAll(() => {
  process.exitCode = 0;
});

test('read prints one JSON document, and text for people', () => {
  const json = run('read', lamp, '--mode', 'diode', '--red', 'SRC', '--black', 'DRAIN', '--json');
  expect(json.status).toBe(0);
  expect(JSON.parse(json.out)).toMatchObject({ mode: 'diode', unit: 'V', overload: false });
  expect(
    JSON.parse(run('read', lamp, '--mode', 'continuity', '--red', 'L', '--black', 'LF', '--json').out),
  ).toMatchObject({ beep: true });
  expect(
    JSON.parse(run('read', lamp, '--mode=ohms', '--red=L', '--black=LF', '--fault', 'F1:open', '--json').out),
  ).toEqual({ mode: 'ohms', value: null, unit: 'ohm', overload: true });
  expect(run('read', lamp, '--mode', 'diode', '--red', 'SRC', '--black', 'DRAIN').out).toMatch(
    /^diode: 0\.50\d\u2009V$/u,
  );
});

test('requests answer line by line; a line that cannot be done goes on with the rest', () => {
  const lines = [
    '{"mode":"ohms","red":"L","black":"LF","faults":[]}',
    '{"mode":"ring","red":"L","black":"LF"}',
    'nonsense',
    '{"mode":"ohms","red":"L","black":"NOPE"}',
    '{"mode":"ohms","red":"L","black":"LF","faults":["F9:open"]}',
    '{"mode":"ohms"}',
    '{"mode":"ohms","red":"L","black":"LF","faults":["F1:open"]}',
  ];
  const { status, out } = run('read', lamp, '--requests', file('requests.jsonl', lines.join('\n')));
  expect(status).toBe(0);
  const answers = out.split('\n').map((l) => JSON.parse(l) as { error?: { code: string }; overload?: boolean });
  expect(answers.map((a) => a.error?.code ?? a.overload)).toEqual([
    false,
    false,
    'bad-request',
    'unknown-net',
    'bad-fault',
    'bad-request',
    true,
  ]);
});

test('a thousand requests take seconds', () => {
  const source = readFileSync(join(boards, '../reference/cold-ups-frontend-pfc.jsonl'), 'utf8');
  const path = file('many.jsonl', source.repeat(7));
  const from = performance.now();
  expect(run('read', join(boards, 'ups-frontend-pfc.cir'), '--requests', path).out.split('\n')).toHaveLength(1050);
  // Seconds, not minutes: the bound is loose on purpose, speed is shown by the benchmark.
  expect(performance.now() - from).toBeLessThan(60_000);
});

test('diagnose names the suspects, the next reading and the power permit; facts come from a file', () => {
  const csv = file('readings.csv', 'mode,red,black,value\ndiode,SRC,DRAIN,0.002\nohms,G,SRC,9.2e3\nohms,L,LF,OL\n');
  const { status, out } = run('diagnose', lamp, '--readings', csv, '--facts', labels, '--json');
  expect(status).toBe(0);
  const d = JSON.parse(out) as {
    suspects: { fault: string; probability: number; group: string[] }[];
    next: { why: string } | null;
    permit: { allowed: boolean };
  };
  expect(d.suspects[0]!.fault).toMatch(/M1:short\(d,s\).*F1:open/u);
  expect(d.suspects[0]!.group).toContain(d.suspects[0]!.fault);
  expect(d.suspects.reduce((s, x) => s + x.probability, 0)).toBeGreaterThan(0.9);
  expect(d.permit.allowed).toBe(false);
});

test('diagnose takes readings of an ESR and a capacitance meter, and plans with those that are there', () => {
  const ask = (rows: string, ...more: string[]) => {
    const csv = file('instruments.csv', `mode,red,black,value\n${rows}`);
    return run('diagnose', join(boards, 'pump-aux-buck.cir'), '--readings', csv, '--json', ...more);
  };
  interface Told {
    readonly suspects: readonly { readonly fault: string; readonly group: readonly string[] }[];
    readonly next: { readonly mode: string } | null;
    readonly permit: { readonly clearing: readonly { readonly mode: string }[] };
  }
  const told = (...args: Parameters<typeof ask>): Told => JSON.parse(ask(...args).out) as Told;
  const dried = told('esr,+9V,HV-,1.9\nesr,+9V,HV-,1.92\ncap,+15V,HV-,0.000214\n');
  expect(dried.suspects[0]!.fault).toMatch(/^C6:esr=/u);
  expect(dried.permit.clearing.every((r) => r.mode === 'ohms' || r.mode === 'diode')).toBe(true);
  // By the meter alone a dried capacitor is among what cannot be seen; with the instrument it stands for itself.
  const groupOf = ({ suspects }: Told): readonly string[] => suspects.find((s) => s.group.includes('C6:esr=4'))!.group;
  expect(groupOf(told(''))).toContain('none');
  expect(groupOf(told('', '--instruments', 'esr'))).not.toContain('none');
  expect(ask('', '--instruments', 'telescope')).toMatchObject({ status: 2 });
  expect(ask('telescope,+9V,HV-,12\n')).toMatchObject({ status: 1 });
});

test('a half of a choke that is shorted is seen by a ring tester alone', () => {
  const ask = (rows: string, ...more: string[]) => {
    const csv = file('ring.csv', `mode,red,black,value\n${rows}`);
    const { status, out } = run('diagnose', lamp, '--readings', csv, '--json', ...more);
    expect(status).toBe(0);
    return JSON.parse(out) as {
      readonly suspects: readonly { readonly fault: string; readonly group: readonly string[] }[];
    };
  };
  const groupOf = (told: ReturnType<typeof ask>): readonly string[] =>
    told.suspects.find((s) => s.group.includes('LCM1A:short'))?.group ?? [];
  expect(groupOf(ask(''))).toContain('none');
  expect(groupOf(ask('', '--instruments', 'esr,cap'))).toContain('none');
  expect(groupOf(ask('', '--instruments', 'ring'))).not.toContain('none');
  expect(ask('ring,LF,LX,0\nring,LF,LX,0\n').suspects[0]!.group).toEqual(
    expect.arrayContaining(['LCM1A:short', 'LCM1B:short']),
  );
});

test('diagnose weighs a complaint, and says in words that a short is not to be powered', () => {
  const board = file(
    'front.cir',
    't\nXJ1 L N CONN\nXF1 L LF FUSE\nXBD1 LF N P M BRIDGE\nC1 P M 1000u vr=400\nR1 P M 100k\n',
  );
  const csv = file('bulk.csv', 'mode,red,black,value\nohms,P,M,0.4\n');
  const { status, out } = run('diagnose', board, '--readings', csv, '--symptom', 'fuse-blows');
  expect(status).toBe(0);
  expect(out).toContain('Do not power this');
  expect(out).toMatch(/^ *\d+\.\d %  C1:short\+F1:open/mu);
});

test('expect lists every point with band, basis and reason', () => {
  const { out } = run('expect', lamp, '--state', 'cold', '--json');
  const { points } = JSON.parse(out) as {
    points: {
      red: string;
      black: string;
      mode: string;
      nominal: number | null;
      low: number | null;
      high: number | null;
      why: string;
    }[];
  };
  const p = points.find((x) => x.mode === 'ohms' && [x.red, x.black].includes('L') && [x.red, x.black].includes('LF'))!;
  expect(p.nominal).toBeCloseTo(0.05, 6);
  expect(p.why).toContain('F1');
  for (const x of points) if (x.nominal !== null) expect(x.low! <= x.nominal && x.nominal <= x.high!).toBe(true);
  // Without a nameplate nothing tells what it is fed from.
  expect(run('expect', lamp, '--state', 'hot').status).toBe(1);
});

test('sum runs one, lists all, answers requests', () => {
  expect(JSON.parse(run('sum', 'stored-energy', 'c=470u', 'v=325', '--json').out)).toMatchObject({
    name: 'stored-energy',
    results: { charge: expect.closeTo(0.15275, 6) as number },
  });
  expect(run('sum', '--list').out).toContain('mains-peak');
  expect(run('sum', 'stored-energy', 'c=0', 'v=1').status).toBe(2);
  const answers = run(
    'sum',
    '--requests',
    file('sums.jsonl', '{"name":"mains-peak","inputs":{"vrms":230}}\n{"name":"mains-peak","inputs":{}}'),
  ).out.split('\n');
  expect(answers.map((a) => Object.keys(JSON.parse(a) as object)[0])).toEqual(['name', 'error']);
});

test.each([
  [['read', lamp], 2],
  [['read', lamp, '--mode', 'esr', '--red', 'L', '--black', 'LF'], 0],
  [['read', lamp, '--mode', 'dcv', '--red', 'L', '--black', 'LF'], 1],
  [['read', lamp, '--mode', 'ohms', '--red', 'L', '--black', 'LF', '--colour', 'red'], 2],
  [['read', join(folder, 'not-there.cir'), '--mode', 'ohms', '--red', 'L', '--black', 'N'], 1],
  [['diagnose', lamp, '--readings', join(boards, 'lamp-supply-24v.cir')], 1],
  [['diagnose', lamp], 2],
  [['stages', lamp], 0],
  [['stages'], 2],
  [['stages', join(folder, 'not-there.cir')], 1],
  [['rate', lamp], 1],
  [['decode'], 2],
  [['decode', '4k7', '--kind', 'moon'], 2],
  [['decode', 'hello'], 0],
  [['dance'], 2],
  [['read', '--help'], 0],
])('exit status of %p is %p', (words, status) => expect(run(...words).status).toBe(status));

test("stages tells topology, stages, pins and islands, for people and as the contract's document", () => {
  expect(run('stages', lamp).out).toMatch(/topology {2}flyback[\s\S]*clamp +\d+ % {2}D1 R10 R11 C4/u);
  const told = JSON.parse(run('stages', lamp, '--json').out) as {
    stages: { kind: string; parts: string[]; confidence: number }[];
    pins: Record<string, Record<string, string>>;
    topology: string;
    islands: { nets: string[]; reference: string; hazard: string }[];
  };
  expect(told.topology).toBe('flyback');
  expect(told.pins['U1']).toEqual({ 1: 'GND', 2: 'FB', 3: 'RT', 4: 'CS', 5: 'VCC', 6: 'GATE' });
  expect(told.islands.map((i) => [i.reference, i.hazard])).toEqual([
    ['HV-', 'mains'],
    ['OUT-', 'elv'],
  ]);
  expect(told.stages.find((s) => s.kind === 'startup')).toMatchObject({ parts: ['R1', 'R2', 'R3'] });
});

test('decode reads a marking, for people and for programs, and a file of them', () => {
  expect(run('decode', '4k7').out).toMatch(/100 %  resistor 4\.7\u2009kΩ  \(R\/K\/M/u);
  expect(run('decode', 'hello').out).toContain('no marking I know');
  expect(run('decode', 'SS34').out).toContain('confirm against the data sheet');
  const { readings } = JSON.parse(run('decode', '2E104K', '--json').out) as { readings: { value: number }[] };
  expect(readings[0]).toMatchObject({ kind: 'capacitor', value: 1e-7, voltage: 250, tolerance: 0.1 });
  const requests = [
    '{"mark":"103","kind":"capacitor"}',
    '{"mark":"103"}',
    '{"kind":"fuse"}',
    'x',
    '{"mark":"1","kind":"moon"}',
  ];
  const answers = run('decode', '--requests', file('marks.jsonl', requests.join('\n')))
    .out.split('\n')
    .map((l) => JSON.parse(l) as { readings?: { kind: string }[]; error?: { code: string } });
  expect(answers.map((a) => a.error?.code ?? a.readings!.length > 0)).toEqual([
    true,
    true,
    'bad-request',
    'bad-request',
    'bad-request',
  ]);
  expect(answers[0]!.readings!.every((r) => r.kind === 'capacitor')).toBe(true);
});

test('a broken netlist is told line by line', () => {
  const { status, err } = run(
    'read',
    file('bad.cir', 't\nR1 a b\nQ1 c b e NOPE\n'),
    '--mode',
    'ohms',
    '--red',
    'a',
    '--black',
    'b',
  );
  expect(status).toBe(1);
  expect(err).toMatch(/Line 2[\s\S]*Line 3/u);
});

test('read on a powered unit tells value, band and state; expect lists its points', () => {
  const buck = join(boards, 'weather-buck-5v.cir');
  const facts = ['--facts', join(boards, 'weather-buck-5v.labels.json')];
  const one = run('read', buck, ...facts, '--mode', 'dcv', '--red', '5V', '--black', 'GND', '--powered', '--json');
  const answer = JSON.parse(one.out) as { value: number; low: number; high: number };
  expect(answer).toMatchObject({
    mode: 'dcv',
    unit: 'V',
    state: 'run',
    states: { U1: 'run', U2: 'run' },
    period: null,
  });
  expect(answer.value).toBeCloseTo(5, 1);
  expect(answer.low).toBeLessThan(answer.value);
  const line = { mode: 'dcv', red: '5V', black: 'GND', faults: ['F1:open'], powered: { source: 12, load: 'none' } };
  const dead = run('read', buck, ...facts, '--requests', file('hot.jsonl', JSON.stringify(line)));
  expect(JSON.parse(dead.out)).toMatchObject({ state: 'off', states: { U1: 'off', U2: 'run' } });
  const all = JSON.parse(run('expect', buck, ...facts, '--state', 'hot', '--load', 'full', '--json').out) as {
    state: string;
    points: { red: string; black: string; nominal: number }[];
  };
  expect(all.state).toBe('run');
  expect(all.points.find((p) => p.red === '12V' && p.black === 'GND')?.nominal).toBeCloseTo(12.08, 1);
  expect(run('expect', buck, ...facts, '--state', 'hot').out).toMatch(/^run {2}U1 run, U2 run\n/u);
  expect(() => run('expect', buck, ...facts, '--state', 'hot', '--load', 'some')).not.toThrow();
  expect(run('expect', buck, ...facts, '--state', 'hot', '--load', 'some').status).toBe(2);
  expect(run('read', buck, '--mode', 'dcv', '--red', '5V', '--black', 'GND').status).toBe(1);
  expect(run('read', lamp, '--mode', 'esr', '--red', 'VCC', '--black', 'HV-').out).toMatch(/^esr: 0?\.?8/u);
});
