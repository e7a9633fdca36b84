import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { labelledBoard, stageAccuracy, strangersRead } from '../../../bench/stageAccuracy';
import { sameTopology, scorePins, scoreStages } from '../../../bench/stageLabels';
import type { StageLabels } from '../../../bench/stageLabels';
import { CHANGES, changed, dropped } from '../../../bench/strangers';
import { ALL_BOARDS } from '../../../bench/exampleBoards';
import { ARCHETYPES, archetypeBoard } from '../archetype';
import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { readNetlist } from '../netlist';
import { seededRandom } from '../quantity';
import { STAGE_KINDS, recogniseStages } from '.';

const root = process.env['LANTERN_ROOT'] ?? process.cwd();

type Labels = StageLabels & {
  islands: { nets: string[]; reference: string; references?: string[]; hazard: string }[];
};

function labelled(name: string): { board: Board; labels: Labels } {
  // What the netlist alone tells: the nameplate is not looked at.
  const { board } = labelledBoard(name);
  const labels = JSON.parse(readFileSync(join(root, `fixtures/boards/${name}.labels.json`), 'utf8')) as Labels;
  return { board, labels };
}

function withoutPlate({ title, parts, couplings, models, subcircuits, layout }: Board): Board {
  return { title, parts, couplings, models, subcircuits, layout };
}

function boardOf(...lines: string[]): Board {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
}

const kindOf = (board: Board): Record<string, string> =>
  Object.fromEntries(recogniseStages(board).stages.flatMap((s) => s.parts.map((p) => [p, s.kind])));

describe.each([...ALL_BOARDS])('%s', (name) => {
  const { board, labels } = labelled(name);
  const map = recogniseStages(board);

  test('topology and stages', () => {
    expect(sameTopology(map.topology, labels)).toBe(true);
    const score = scoreStages(map, labels);
    expect(score.f1).toBeGreaterThanOrEqual(0.95);
  });

  test('every part is in one stage, with a reason and a confidence between 0 and 1', () => {
    const placed = map.stages.flatMap((s) => s.parts);
    expect(new Set(placed).size).toBe(placed.length);
    expect([...placed, ...map.unplaced.map((u) => u.ref)].sort()).toEqual(board.parts.map((p) => p.ref).sort());
    for (const stage of map.stages) {
      expect(stage.confidence).toBeGreaterThan(0);
      expect(stage.confidence).toBeLessThanOrEqual(1);
      for (const ref of stage.parts) expect(stage.reasons[ref]).toMatch(/\w/u);
    }
  });

  test('islands, references and hazards as labelled', () => {
    const told = (list: readonly { nets: readonly string[]; hazard: string }[]): string[] =>
      list.map((i) => `${i.hazard}: ${[...i.nets].map(netKey).sort().join(' ')}`).sort();
    expect(told(map.islands)).toEqual(told(labels.islands));
    for (const { nets, reference } of map.islands) {
      const own = labels.islands.find((i) => i.nets.map(netKey).includes(netKey(nets[0]!)))!;
      expect([own.reference, ...(own.references ?? [])].map(netKey)).toContain(netKey(reference));
    }
  });

  test('nothing but names changes nothing: pin roles and islands follow', () => {
    const other = changed({ board, labels }, 'renamed', 5);
    const again = recogniseStages(other.board);
    const pins = (m: typeof map): string[] => Object.values(m.pins).map((l) => l.map((p) => p.role).join(' '));
    expect(pins(again).sort()).toEqual(pins(map).sort());
    expect(again.islands.map((i) => `${i.hazard} ${i.nets.length}`)).toEqual(
      map.islands.map((i) => `${i.hazard} ${i.nets.length}`),
    );
  });
});

test('controller pins: at least 95 % of all labelled ones', () => {
  const scores = ALL_BOARDS.map((name) => {
    const { board, labels } = labelled(name);
    return scorePins(recogniseStages(board), labels);
  });
  const right = scores.reduce((s, p) => s + p.right, 0);
  const of = scores.reduce((s, p) => s + p.of, 0);
  expect(of).toBeGreaterThan(70);
  expect(right / of).toBeGreaterThanOrEqual(0.95);
});

test('the order of parts in the file changes nothing, whole board or half', () => {
  const told = (board: Board): string => {
    const map = recogniseStages(board);
    const stages = map.stages.flatMap((x) => x.parts.map((p) => `${p} ${x.kind}`));
    const pins = Object.entries(map.pins).map(([ref, list]) => `${ref} ${list.map((f) => f.role).join(' ')}`);
    return [map.topology, ...stages.sort(), ...pins.sort(), ...[...map.missing].sort()].join('\n');
  };
  const random = seededRandom(4);
  for (const name of ALL_BOARDS) {
    const whole = labelledBoard(name);
    const parts = whole.board.parts.filter(() => random() > 0.1);
    for (const board of [whole.board, { ...whole.board, parts }])
      for (const seed of [1, 2, 3])
        expect(told(changed({ ...whole, board }, 'shuffled', seed).board)).toBe(told(board));
  }
});

test('one change at a time: the mean of a board drops by less than 0.05, no topology changes', () => {
  for (const name of ALL_BOARDS) {
    const scores = stageAccuracy(labelledBoard(name), 2);
    for (const change of Object.keys(CHANGES) as (keyof typeof CHANGES)[]) {
      const { mean, worst, topologies } = scores.disturbed[change];
      expect([name, change, topologies]).toEqual([name, change, 2]);
      expect([name, change, mean > scores.f1 - 0.05]).toEqual([name, change, true]);
      expect(worst).toBeGreaterThan(0.85);
    }
  }
}, 120_000);

test('strangers: several changes at once, everything renamed and shuffled', () => {
  const read = strangersRead(200, 0);
  expect(read.topology).toBeGreaterThanOrEqual(0.97);
  expect(read.f1).toBeGreaterThanOrEqual(0.95);
  expect(read.worstTenth).toBeGreaterThan(0.85);
}, 120_000);

test('strangers with up to 15 % of their parts missing', () => {
  const read = strangersRead(200, 0.15);
  expect(read.topology).toBeGreaterThanOrEqual(0.87);
  // What is stated as sure holds, what is stated as unsure is less often right.
  const [unsure, sure] = [read.calibration.slice(0, 8), read.calibration.slice(9)];
  expect(sure[0]!.count).toBeGreaterThan(100);
  expect(sure[0]!.right).toBeGreaterThanOrEqual(0.95);
  const asked = unsure.reduce((sum, c) => sum + c.count, 0);
  expect(unsure.reduce((sum, c) => sum + c.right * c.count, 0) / Math.max(1, asked)).toBeLessThan(0.8);
  expect(read.f1).toBeGreaterThanOrEqual(0.85);
}, 120_000);

describe('a half-traced board says what it must have and nobody has traced', () => {
  test.each([
    // The output stands on its supply: that tells it whatever else is not traced.
    ['shelf-lamp-led', ['D4']],
    ['shelf-lamp-led', ['C12']],
    ['shelf-lamp-led', ['LT1P']],
    ['shelf-lamp-led', ['D4', 'D3', 'R8']],
    // The legs that work on nothing are those of the core that nothing works on.
    ['split-inverter-1k5', ['LT1P']],
    // One switch has one choke: what leads to its supply is a filter.
    ['pump-aux-buck', ['C2']],
    ['pump-aux-buck', ['RT1', 'BD1']],
  ])('%s without %p is read as what it is', (name, gone) => {
    const { board, labels } = dropped(labelledBoard(name), new Set(gone));
    const { topology } = recogniseStages(board);
    expect([topology, sameTopology(topology, labels)]).toEqual([topology, true]);
  });

  test.each(['lamp-supply-24v', 'dock-pushpull-48', 'winch-forward-12v', 'shelf-lamp-led'])(
    '%s with a current transformer whose burden is not traced has no converter more',
    (name) => {
      for (const seed of [1, 2, 3]) {
        const made = changed(labelledBoard(name), 'current transformer', seed);
        const burden = made.board.parts.filter((p) => p.kind === 'resistor' && p.value === 10 && /ZZ/u.test(p.ref));
        expect(burden).toHaveLength(1);
        const { board, labels } = dropped(made, new Set(burden.map((p) => p.ref)));
        const { topology } = recogniseStages(board);
        expect([topology, sameTopology(topology, labels)]).toEqual([topology, true]);
      }
    },
  );

  test.each(ALL_BOARDS)('%s, whole, lacks nothing', (name) => {
    expect(recogniseStages(labelledBoard(name).board).missing).toEqual([]);
  });

  test.each([
    ['lamp-supply-24v', 'M1', 'flyback', /switch|transistor/u],
    ['lamp-supply-24v', 'LT1P', 'flyback', /winding/u],
    ['bilge-drive-48v', 'M6', 'three-phase-inverter+buck', /transistor/u],
    ['buoy-boost-28', 'L1', 'boost', /choke/u],
    ['dock-pushpull-48', 'M2', 'push-pull', /transistor/u],
    ['winch-forward-12v', 'LT1P', 'forward', /winding/u],
  ])('%s without %s is still a %s', (name, ref, topology, words) => {
    const { board, labels } = labelledBoard(name);
    const left = board.parts.filter((p) => p.ref !== ref);
    const couplings = board.couplings.filter((k) => k.first !== ref && k.second !== ref);
    const map = recogniseStages({ ...board, parts: left, couplings });
    expect(sameTopology(map.topology, labels) ? topology : map.topology).toBe(topology);
    expect(map.missing.join(' ')).toMatch(words);
    const told = [...map.stages.flatMap((x) => x.parts), ...map.unplaced.map((u) => u.ref)];
    expect(told.sort()).toEqual(left.map((p) => p.ref).sort());
  });
});

test('half a board, or one traced wrongly, is read without complaint: every part placed or said not to be', () => {
  const random = seededRandom(9);
  for (const name of ALL_BOARDS) {
    const { board } = labelled(name);
    for (let round = 0; round < 12; round++) {
      const keep = random();
      const parts = board.parts
        .filter(() => random() < keep)
        .map((p) => ({ ...p, nets: p.nets.map((n) => (random() < 0.1 ? `q${Math.floor(random() * 9)}` : n)) }));
      const map = recogniseStages({ ...board, parts });
      const told = [...map.stages.flatMap((s) => s.parts), ...map.unplaced.map((u) => u.ref)];
      expect(told.sort()).toEqual(parts.map((p) => p.ref).sort());
    }
  }
});

describe('typical circuits of every topology', () => {
  test.each(ARCHETYPES.map((a) => [a.name, a] as const))('%s', (_name, archetype) => {
    const board = withoutPlate(archetypeBoard(archetype.name)!);
    const map = recogniseStages(board);
    expect(map.topology).toBe(archetype.topology);
    expect(map.unplaced).toEqual([]);
    expect(map.stages.every((s) => STAGE_KINDS.includes(s.kind))).toBe(true);
    // The headings of the text name the stage of the lines under them.
    const found = kindOf(board);
    let kind: string | null = null;
    let [right, all] = [0, 0];
    for (const line of archetype.netlist.split('\n')) {
      const heading = /^\* --- (\S+)$/u.exec(line)?.[1];
      if (heading !== undefined) kind = heading;
      if (line.startsWith('.')) break;
      const ref = /^X?([A-Z]\w*) /u.exec(line)?.[1];
      if (kind === null || ref === undefined || found[ref] === undefined) continue;
      all++;
      if (found[ref] === kind) right++;
    }
    if (all > 0) expect(right / all).toBeGreaterThan(0.85);
  });
});

describe('what the rules rest on', () => {
  const flyback = (...more: string[]): Board =>
    boardOf(
      'XJ1 A B CONN',
      'XF1 A C FUSE',
      'XBD1 C B P N BRIDGE',
      'C1 P N 100u vr=400 esr=0.3',
      'LP P D 500u',
      'LS O S 30u',
      'KP LP LS 0.99',
      'M1 D G N MM',
      'XU1 N F V G CHIP',
      'D2 S R DD',
      'C2 R O 470u vr=25 esr=0.05',
      'XJ2 R O CONN',
      ...more,
      '.model MM NMOS()',
      '.model DD D(BV=100)',
    );

  test('a small flyback without snubber, opto or auxiliary winding is one all the same', () => {
    const map = recogniseStages(flyback());
    expect(map.topology).toBe('flyback');
    expect(map.islands.map((i) => [i.reference, i.hazard])).toEqual([
      ['N', 'mains'],
      ['O', 'elv'],
    ]);
  });

  test('a Y capacitor and a bleeder of a megohm may cross the barrier, other parts are found out', () => {
    const safe = recogniseStages(flyback('CY1 N O 2.2n mark=Y1', 'RB1 N O 4.7MEG'));
    expect(safe.crossings.map((c) => [c.ref, c.allowed]).sort()).toEqual([
      ['CY1', true],
      ['RB1', true],
    ]);
    const big = recogniseStages(flyback('CX9 N O 470n'));
    expect(big.crossings).toMatchObject([{ ref: 'CX9', allowed: false }]);
    const link = recogniseStages(flyback('RX9 N O 10k'));
    expect(link.crossings).toMatchObject([{ ref: 'RX9', allowed: false }]);
    expect(link.islands).toHaveLength(1);
  });

  test('what is set by hand wins, and says so', () => {
    const map = recogniseStages(flyback(), { C2: 'tank' });
    const tank = map.stages.find((s) => s.kind === 'tank');
    expect(tank).toMatchObject({ parts: ['C2'], confidence: 1, reasons: { C2: 'set by hand' } });
  });

  test('a part joined to nothing known is left without a stage, with the reason', () => {
    const map = recogniseStages(boardOf('R1 X Y 1k'));
    expect(map.topology).toBe('unknown');
    expect(map.unplaced).toEqual([{ ref: 'R1', why: expect.stringContaining('recognised') }]);
  });

  test('an unsmoothed or low-voltage bridge is not mains', () => {
    const map = recogniseStages(
      boardOf(
        'XJ1 A B CONN',
        'XF1 A C FUSE ir=2',
        'XBD1 C B P N BRIDGE',
        'C1 P N 1000u vr=35 esr=0.05',
        'XU1 P N O REG3',
        'C2 O N 10u',
        'XJ2 O N CONN',
      ),
    );
    expect(map.islands[0]!.hazard).toBe('elv');
    expect(map.topology).toBe('linear');
  });

  test('the nameplate says when a battery hangs on an island', () => {
    const board = boardOf(
      'XJ1 A N CONN',
      'XF1 A B FUSE',
      'C1 B N 100u vr=16',
      'L1 B S 10u',
      'XU1 S N F B CHIP',
      'D1 S O DD',
      'C2 O N 22u vr=25',
      'XJ2 O N CONN',
      '.model DD D(IS=3e-7 BV=40)',
    );
    const plate = { source: 'battery', inputRail: 'A', inputReturn: 'N' } as const;
    expect(recogniseStages(board).topology).toBe('boost');
    expect(recogniseStages({ ...board, nameplate: plate }).islands[0]!.hazard).toBe('battery');
    expect(recogniseStages({ ...board, nameplate: { ...plate, source: 'dc' } }).islands[0]!.hazard).toBe('elv');
  });

  test('an empty position stands with its neighbours', () => {
    const { board } = labelled('bench-supply-13v8');
    expect(kindOf(board)['RJP1']).toBe('bulk');
  });

  test("a pin's role comes with the runner-up and a reason in words", () => {
    const { board } = labelled('lamp-supply-24v');
    const pins = recogniseStages(board).pins['U1']!;
    expect(pins.map((p) => p.role)).toEqual(['GND', 'FB', 'RT', 'CS', 'VCC', 'GATE']);
    const supply = pins[4]!;
    expect(supply.reasons.join(' ')).toMatch(/auxiliary winding/u);
    expect(supply.reasons.join(' ')).toMatch(/start-up resistor/u);
    expect(pins.every((p) => p.runnerUp === null || p.runnerUp.score <= p.score + 0.5)).toBe(true);
  });
});
