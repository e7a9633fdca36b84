import { testBoards } from '@/testing/boards';
import { followList } from '@/testing/shortCampaign';
import { exampleBoard } from '../../../bench/exampleBoards';
import { archetypeBoard } from '../archetype';
import type { Board, Nameplate } from '../circuit';
import { Diagnoser, buildWholeDictionary, listHypotheses } from '../diagnose';
import type { TakenReading } from '../diagnose';
import { readNetlist } from '../netlist';
import { readBoard, simulateReading, solverFor } from '../meter';
import { seededRandom } from '../quantity';
import { findEnergyPoles } from '../stages';
import { Permit, ThreatReadings, threatSolver } from '.';

function boardOf(nameplate: Nameplate | undefined, ...lines: string[]): Board {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return nameplate ? { ...read.value.board, nameplate } : read.value.board;
}

test.each(testBoards(0, 2).map(({ name, board }) => [name, { ...board, nameplate: undefined }] as const))(
  '%s without a nameplate is not permitted unread either, and has a list',
  (_name, { nameplate: _, ...board }) => {
    const unread = Permit.of(board).judge([]);
    expect(unread.allowed).toBe(false);
    expect(unread.clearing.length).toBeGreaterThan(0);
  },
);

test('what no meter can tell is named: the windings of a large transformer', () => {
  expect(Permit.of(archetypeBoard('line-frequency-inverter')!).judge([]).unseen.join(' ')).toContain('AC');
});

describe('a lamp supply', () => {
  const board = exampleBoard('lamp-supply-24v');
  const permit = Permit.of(board);
  const { readings } = followList(permit, board, [], 5);
  const allowed = (list: readonly TakenReading[]): boolean => permit.judge(list).allowed;

  test('each reading of the list is needed, and an assumed place, a creeping or wrong mode earns nothing', () => {
    expect(allowed(readings)).toBe(true);
    readings.forEach((r, i) => {
      const others = readings.filter((_, k) => k !== i);
      expect(allowed(others)).toBe(false);
      expect(allowed([...others, { ...r, placeConfirmed: false }])).toBe(false);
    });
  });

  test('readings at assumed places alone are said to earn nothing; with others they change no word', () => {
    const assumed = readings.map((r) => ({ ...r, placeConfirmed: false }));
    expect(permit.judge([]).reasons.join(' ')).toMatch(/^Nothing has been read yet/u);
    expect(permit.judge(assumed).reasons.join(' ')).toMatch(/places are only assumed: that earns nothing/u);
    expect(permit.judge([...assumed, readings[0]!]).reasons).toEqual(permit.judge([readings[0]!]).reasons);
    expect(permit.judge(assumed).clearing).toEqual(permit.judge([]).clearing);
    expect([permit.judge([]).earnable, permit.judge(assumed).earnable, permit.judge(readings).earnable]).toEqual([
      true,
      true,
      false,
    ]);
  });

  test('a reading that shows a short shuts it whatever else was read, until it is read again and is well', () => {
    const short = { mode: 'ohms', red: 'HV+', black: 'HV-', seen: { kind: 'figure', value: 1.4 } } as const;
    const shut = permit.judge([...readings, short]);
    expect([shut.allowed, shut.earnable]).toEqual([false, false]);
    expect(permit.judge([short]).earnable).toBe(false);
    expect(shut.reasons.join(' ')).toMatch(/HV\+ to HV- read 1\.4/u);
    expect(allowed([short, ...readings])).toBe(false);
    const healthy = readBoard(board, solverFor(board, []), 'ohms', 'HV+', 'HV-');
    if (!healthy.ok || healthy.value.reading.kind !== 'figure') throw new Error('healthy');
    const again = { ...short, seen: { kind: 'figure', value: healthy.value.reading.value } } as const;
    expect(allowed([...readings, short, again])).toBe(true);
  });

  test.each([
    [300e3, false],
    [990e3, false],
    [3.2e6, true],
  ])('a barrier of %p ohm: permitted %p', (value, wanted) => {
    const barrier = { mode: 'ohms', red: 'HV-', black: 'OUT-', seen: { kind: 'figure', value } } as const;
    const others = readings.filter((r) => !(r.mode === 'ohms' && r.red === 'HV-' && r.black === 'OUT-'));
    expect(permit.judge([...others, barrier]).reasons.some((r) => /barrier/u.test(r))).toBe(!wanted);
    if (!wanted) expect(allowed([...others, barrier])).toBe(false);
  });

  test('what was changed where a reading covers, though not at its leads, takes away what it ruled out there', () => {
    // The reading at the output, which says something of every net between its leads.
    const output = readings.findIndex((r) => [r.red, r.black].includes('OUT+'));
    const since = (net: string): readonly TakenReading[] =>
      readings.map((r, i) => (i === output ? { ...r, changed: new Set([net]) } : r));
    expect(allowed(since('cs'))).toBe(true);
    expect(allowed(since('raw+'))).toBe(false);
    const again = permit.judge(since('raw+'));
    expect(again.clearing.length).toBeGreaterThan(0);
    expect(allowed([...since('raw+'), readings[output]!])).toBe(true);
  });

  test('a finding of danger forbids it; a lesser one does not', () => {
    const finding = (severity: 'danger' | 'fault') => ({ place: 'T1', severity, words: 'thin spacing at the barrier' });
    expect(permit.judge(readings, undefined, [finding('danger')]).allowed).toBe(false);
    expect(permit.judge(readings, undefined, [finding('fault')]).allowed).toBe(true);
  });

  test('the odds can only shut it: a fault that they name keeps it shut, and its feedback open too', () => {
    const diagnoser = new Diagnoser(buildWholeDictionary(board, listHypotheses(board)));
    const judged = permit.judge(readings, diagnoser);
    expect(judged).toMatchObject({ allowed: true, reasons: [] });
    expect(judged.mass).toBeLessThan(0.05);
    expect(permit.judge([], diagnoser).mass).toBeGreaterThan(0.05);
    // The upper resistor of the output's divider, open: read across it both ways.
    const upper = board.parts.find((p) => p.ref === 'R19')!;
    const broken = solverFor(board, [{ kind: 'open', ref: 'R19' }]);
    const open = [upper.nets, upper.nets.toReversed()].map(([red = '', black = '']): TakenReading => ({
      mode: 'ohms',
      red,
      black,
      seen: simulateReading(broken, 'ohms', red, black, seededRandom(3)),
    }));
    const shut = permit.judge([...readings, ...open], diagnoser);
    expect(shut.allowed).toBe(false);
    expect(shut.reasons.join(' ')).toMatch(/R19 open at \d+ %\): not with the load on/u);
    // Whatever another instrument shows anywhere, that reason stays.
    for (const { nets } of board.parts.filter((p) => p.kind === 'capacitor'))
      for (const value of [1e-3, 0.05, 1]) {
        const [red = '', black = ''] = nets;
        const told = permit.judge(
          [...readings, ...open, { mode: 'esr', red, black, seen: { kind: 'figure', value } }],
          diagnoser,
        );
        expect(told.reasons.join(' ')).toMatch(/R19 open at \d+ %\): not with the load on/u);
      }
  }, 60_000);

  test('a switch or a feedback part that is not fitted shuts it', () => {
    for (const kind of ['mosfet', 'opto'] as const) {
      const bare = { ...board, parts: board.parts.map((p) => (p.kind === kind ? { ...p, fitted: false } : p)) };
      expect(Permit.of(bare).judge([]).reasons.join(' ')).toMatch(/is not fitted: without/u);
    }
  });
});

test('a leak of few ohm on a low rail that belongs there is told from a smaller one', () => {
  const plate: Nameplate = { source: 'battery', inputRail: 'in', inputReturn: 'gnd', inputMax: 15 };
  // A 12 ohm load across the rail: a short of 0.1 ohm must still be ruled out, and is.
  const board = boardOf(plate, 'XJ1 in gnd CONN', 'R1 in gnd 12', 'C1 in gnd 100u vr=25');
  const permit = Permit.of(board);
  const at = (value: number): boolean =>
    permit.judge([{ mode: 'ohms', red: 'in', black: 'gnd', seen: { kind: 'figure', value } }]).allowed;
  expect(at(12.1)).toBe(true);
  expect(at(0.3)).toBe(false);
  expect(at(5)).toBe(false);
});

test('an overloaded continuity test rules out what it can, no more', () => {
  const plate: Nameplate = { source: 'battery', inputRail: 'in', inputReturn: 'gnd', inputMax: 15 };
  const permit = Permit.of(boardOf(plate, 'XJ1 in gnd CONN', 'R1 in gnd 10k', 'C1 in gnd 100u vr=25'));
  const over = { red: 'in', black: 'gnd', seen: { kind: 'overload' } } as const;
  expect(permit.judge([{ mode: 'continuity', ...over }]).allowed).toBe(true);
  expect(permit.judge([{ mode: 'continuity', ...over, seen: { kind: 'figure', value: 20 } }]).allowed).toBe(false);
});

test('what the permit takes for hardest is hardest: smaller leaks, and fewer parts burnt open, read lower (seed 11)', () => {
  for (const name of ['lamp-supply-24v', 'ups-frontend-pfc', 'galley-inverter-600']) {
    const board = exampleBoard(name);
    const readings = new ThreatReadings(board);
    const list = Permit.of(board).judge([]).clearing;
    readings.path.threats.slice(0, 40).forEach((threat) => {
      for (const point of list.slice(0, 4)) {
        const volts = (t: typeof threat): number => {
          const read = readBoard(board, threatSolver(board, t), point.mode, point.red, point.black);
          return read.ok ? read.value.raw : NaN;
        };
        const hardest = volts(threat);
        for (const easier of [
          { ...threat, ohms: threat.ohms / 6 },
          { ...threat, opens: [] },
          { ...threat, opens: threat.opens.slice(1) },
        ])
          expect(volts(easier)).toBeLessThanOrEqual(hardest + 1e-6 + 1e-6 * Math.abs(hardest));
      }
    });
  }
});

describe('the ways of the energy', () => {
  const poles = (board: Board): string[] =>
    findEnergyPoles(board).map((p) => `${p.kind}: ${[...p.nets].sort().join(' ')}`);
  const mains: Nameplate = { source: 'mains', inputRail: 'L', inputReturn: 'N', inputMax: 264 };

  test('a boost front end: lines, rectified and boosted rail as one, return behind its shunt', () => {
    const board = boardOf(
      mains,
      'XJ1 L N CONN',
      'XF1 L LF FUSE',
      'XBD1 LF N BR RET BRIDGE',
      'L1 BR SW 500u dcr=0.1',
      'M1 SW G S MM',
      'R1 S RET 0.1',
      'D1 SW BUS DD',
      'C1 BUS RET 220u vr=450',
      '.model MM NMOS()',
      '.model DD D()',
    );
    expect(poles(board)).toEqual(['line: l lf', 'line: n', 'bus: br bus sw', 'bus: ret s']);
  });

  test('the middle of two switches and the rail above them are found from an output', () => {
    const plate: Nameplate = {
      source: 'battery',
      inputRail: 'B+',
      inputReturn: 'B-',
      outputs: [{ rail: 'ACL', return: 'ACN', volts: 230, amps: 1, kind: 'ac' }],
    };
    const board = boardOf(
      plate,
      'XJ1 B+ B- CONN',
      'M1 HV G1 ACL MM',
      'M2 ACL G2 B- MM',
      'M3 HV G3 ACN MM',
      'M4 ACN G4 B- MM',
      'C1 HV B- 100u vr=450',
      '.model MM NMOS()',
    );
    expect(poles(board)).toEqual(['bus: b+', 'bus: b-', 'rail: acl', 'rail: acn', 'switched: hv']);
  });

  test('a relay’s open contact parts two poles, a fuse that is not fitted too', () => {
    const board = boardOf(
      { source: 'dc', inputRail: 'in', inputReturn: 'gnd' },
      'XJ1 in gnd CONN',
      'XF1 in a FUSE fit=no',
      'C1 a gnd 100u vr=80',
      'XJ2 out gnd CONN',
      'XF2 out b FUSE',
    );
    expect(poles(board)).toEqual(['bus: in', 'bus: gnd', 'rail: b out']);
  });
});
