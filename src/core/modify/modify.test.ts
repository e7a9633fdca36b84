import { findDividers } from '../operate';
import { DOCK_MODULE } from '../../demo/boards/dockModule';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { readNetlist } from '../netlist';
import { runSum } from '../sums';
import { findLoadPlaces, findLockPins, judgeSteps, keptStress, planChange, stepExpectation, withFacts } from '.';
import type { Change, Plan } from '.';

function boardOf(text: string): Board {
  const read = readNetlist(text);
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join(' '));
  return read.value.board;
}
const nameplate: Board['nameplate'] = {
  source: 'dc',
  inputMin: 10,
  inputNominal: 12,
  inputMax: 15,
  outputs: [{ rail: 'OUT+', return: 'GND', volts: 5, amps: 2, kind: 'dc' }],
};
const plain: Board = { ...boardOf(DOCK_MODULE), nameplate };
const dock = withFacts(plain, ['U1 FB ref 1.22 V', 'U1 EN on 1.2 V off 1.1 V']).board;

const output = (vTarget: number, more: object = {}): Change => ({
  kind: 'output-voltage',
  rail: 'OUT+',
  return: 'GND',
  tap: 'FB',
  vRef: 1.22,
  vTarget,
  modify: 'bottom',
  series: 'E24',
  ...more,
});
const lockOut = (more: object = {}): Change => ({
  kind: 'lock-out',
  ref: 'U1',
  pin: '2',
  rail: 'VIN',
  return: 'GND',
  vTh: 1.2,
  vRise: 11,
  vHyst: 0,
  vBrownOut: 9,
  rBottom: 10e3,
  series: 'E24',
  ...more,
});
const onLoad = (more: object = {}): Change => ({
  kind: 'start-on-load',
  rail: 'OUT+',
  return: 'GND',
  connector: 'J2',
  pin: '2',
  vBe: 0.6,
  iMin: 1,
  iMax: 2,
  vDropMax: 1.3,
  ratedWatts: 5,
  wakes: 'EN',
  ...more,
});
function planned(change: Change, board = dock): Plan {
  const plan = planChange(board, change);
  if (!plan.ok) throw new Error(plan.problem.sentence);
  return plan.value;
}
const ohms = (board: Board, ref: string): number =>
  (board.parts.find((p) => p.ref === ref) as Part & { value: number }).value;

test('the divider, the enable pin and the place for a load are found', () => {
  expect(findDividers(dock)).toMatchObject([
    { ref: 'U1', rail: 'OUT+', return: 'GND', tap: 'FB', rTop: 46.4e3, rBottom: 15e3, vRef: 1.22 },
  ]);
  expect(findLockPins(dock)).toMatchObject([{ ref: 'U1', pin: '2', net: 'EN', rail: 'VIN', vTh: 1.2 }]);
  expect(findLoadPlaces(dock)).toEqual([{ connector: 'J2', pin: '2', rail: 'OUT+', return: 'GND' }]);
});

test('without a data sheet the reference follows from the printed volts, and says so', () => {
  const [divider] = findDividers(plain);
  expect(divider!.vRef).toBeCloseTo(5 / (1 + 46.4 / 15), 9);
  expect(divider!.vRefFrom).toContain('5 V at OUT+');
  expect(findDividers({ ...plain, nameplate: {} })[0]!.vRef).toBeNull();
});

describe('another output voltage', () => {
  test.each([
    [6.2, 'bottom', 'parallel'],
    [6.2, 'top', 'series'],
    [3.3, 'bottom', 'series'],
    [3.3, 'top', 'parallel'],
    [9, 'bottom', 'parallel'],
  ] as const)('%p V by the %s resistor, in %s: the board then gives it', (vTarget, modify, method) => {
    const plan = planned(output(vTarget, { modify, series: 'E96' }));
    expect(plan.sum.results['method']).toBe(method);
    const after = withFacts(dock, plan.facts);
    expect(after.misfits).toEqual([]);
    // What the new board's own resistors make of the reference, by the divider law, against what the plan says.
    const near = (p: Board): number => {
      const [a] = findDividers(p);
      if (a) return 1.22 * (1 + a.rTop / a.rBottom);
      throw new Error('no divider');
    };
    if (method === 'parallel') expect(near(after.board)).toBeCloseTo(plan.reaches!, 9);
    expect(Math.abs(plan.reaches! / vTarget - 1)).toBeLessThan(0.01);
  });

  test('a resistor in series goes between the leg and the net it leaves', () => {
    const plan = planned(output(3.3));
    const { board } = withFacts(dock, plan.facts);
    const [r4, added] = ['R4', 'R6'].map((ref) => board.parts.find((p) => p.ref === ref)!);
    expect(r4!.nets[1]).toBe(added!.nets[0]);
    expect(added!.nets[1]).toBe('GND');
    const lower = ohms(board, 'R4') + ohms(board, 'R6');
    expect(1.22 * (1 + 46.4e3 / lower)).toBeCloseTo(plan.reaches!, 9);
    // Nothing else moved.
    expect(board.parts.filter((p) => p.nets.includes('FB')).map((p) => p.ref)).toEqual(
      dock.parts.filter((p) => p.nets.includes('FB')).map((p) => p.ref),
    );
  });

  test('6.2 V is tight for the 6.3 V capacitor, 7 V is over; a 16 V one settles it', () => {
    const verdict = (plan: Plan): string => plan.stress.find((r) => r.ref === 'C4')!.verdict;
    const plan = planned(output(6.2));
    expect(verdict(plan)).toBe('tight');
    expect(verdict(planned(output(7)))).toBe('over');
    const after = withFacts(dock, [...plan.facts, 'C4 vr=16']).board;
    expect(keptStress(after, output(6.2), plan.reaches).find((r) => r.ref === 'C4')!.verdict).toBe('ok');
    // The tap holds the reference still: the new resistor sees 1.22 V.
    expect(plan.stress.find((r) => r.ref === 'R6')!.stress).toBeCloseTo(1.22 ** 2 / 47e3, 8);
  });

  test('changing it once more starts from what is on the board', () => {
    const once = withFacts(dock, planned(output(6.2)).facts).board;
    const again = planned(output(6.6), once);
    expect(again.parts[0]!.ref).toBe('R7');
    const { board } = withFacts(once, again.facts);
    const [d] = findDividers(board);
    expect(d!.bottom.map((p) => p.ref)).toEqual(['R4', 'R6', 'R7']);
    expect(1.22 * (1 + d!.rTop / d!.rBottom)).toBeCloseTo(again.reaches!, 9);
  });

  test('what follows besides: watts, input, the nameplate', () => {
    const notes = planned(output(9.6)).notes.join(' ').replace(/\s/gu, ' ');
    expect(notes).toContain('printed 10 W are reached at 1.0');
    expect(notes).toContain('cannot hold 9.');
    expect(notes).toContain('Write the new voltage on the unit');
  });

  test('the sweep asks for lowest, nominal and highest input, within the corners of the tolerances', () => {
    const plan = planned(output(6.2));
    expect(plan.steps.map((s) => [s.setBy, s.set])).toEqual([
      ['vin', 10],
      ['vin', 12],
      ['vin', 15],
    ]);
    const corner = runSum('divider-output', {
      vRef: 1.22,
      rTop: 46.4e3,
      rBottom: (15e3 * 47e3) / 62e3,
      tolRef: 0.02,
      tolTop: 0.01,
      tolBottom: 0.01,
    });
    if (!corner.ok) throw new Error();
    const { vMin, vMax } = corner.value.results as { vMin: number; vMax: number };
    expect(plan.steps[0]!.low).toBeCloseTo(vMin * 0.995, 6);
    expect(plan.steps[0]!.high).toBeCloseTo(vMax * 1.005, 6);
  });

  test.each([
    [output(1.2), 'vTarget'],
    [output(5, { tap: 'EN' }), 'There is no divider'],
    [output(6.2, { rail: 'VIN' }), 'There is no divider'],
    [output(4.995), 'already gives 4.99'],
  ])('%j is refused', (change, words) => {
    const plan = planChange(dock, change);
    expect(plan.ok).toBe(false);
    if (!plan.ok) expect(plan.problem.sentence).toContain(words);
  });
});

describe('under-voltage lock-out', () => {
  test('moves the divider that is there; the new resistors trip where it says', () => {
    const plan = planned(lockOut());
    expect(plan.facts).toHaveLength(1);
    const { board } = withFacts(dock, plan.facts);
    expect(1.2 * (1 + ohms(board, 'R1') / ohms(board, 'R2'))).toBeCloseTo(plan.sum.results['vFall'] as number, 9);
    expect(board.parts).toHaveLength(dock.parts.length);
    expect(plan.stress.map((r) => [r.ref, r.verdict])).toEqual([
      ['R1', 'ok'],
      ['U1', 'unknown'],
    ]);
  });

  test('adds one where the pin lay on its supply, lifting the pin', () => {
    const tied = withFacts(dock, ['drop R1', 'drop R2', 'U1 2:VIN']).board;
    const pins = findLockPins(tied);
    if (pins.length === 0) return expect(pins).toEqual([]);
    const plan = planned(lockOut({ pin: pins[0]!.pin }), tied);
    const { board } = withFacts(tied, plan.facts);
    const u1 = board.parts.find((p) => p.ref === 'U1')!;
    expect(u1.nets[1]).not.toBe('VIN');
    expect(board.parts.filter((p) => p.kind === 'resistor' && p.nets.includes(u1.nets[1]!))).toHaveLength(2);
  });

  test('hysteresis needs a net to hang it on, and opens a window in the sweep', () => {
    const refused = planChange(dock, lockOut({ vHyst: 1 }));
    expect(refused).toMatchObject({ ok: false, problem: { code: 'cannot-modify', details: { what: 'hystNet' } } });
    const plan = planned(lockOut({ vHyst: 1, hystNet: 'SW' }));
    const { vRise, vFall } = plan.sum.results as { vRise: number; vFall: number };
    const { board } = withFacts(dock, plan.facts);
    const [top, bottom, hyst] = ['R1', 'R2', 'R6'].map((ref) => ohms(board, ref));
    expect(1.2 * (1 + top! / bottom! + top! / hyst!)).toBeCloseTo(vRise, 9);
    const between = plan.steps.filter((s) => s.set > vFall && s.set < vRise);
    expect(between.map((s) => s.off)).toEqual([true, false]);
    expect(plan.stress.map((r) => r.ref)).toEqual(['R1', 'U1']);
  });

  test('what was taken off again is said to be gone, never passed over', () => {
    for (const change of [lockOut(), onLoad()]) {
      const { board } = withFacts(dock, planned(change).facts);
      const bare = withFacts(board, change.kind === 'lock-out' ? ['drop R1'] : ['drop R6']).board;
      expect(keptStress(bare, change, null)).toMatchObject([{ verdict: 'unknown' }]);
      expect(keptStress(bare, change, null)[0]!.why).toContain('not on the board any more');
    }
  });

  test('letting go below the brown-out is said', () => {
    expect(planned(lockOut({ vBrownOut: 12 })).notes[0]).toContain('too late');
  });
});

describe('start on load', () => {
  test('a resistor between the two limits, the transistor on it, the load’s return lifted', () => {
    const plan = planned(onLoad());
    const { board } = withFacts(dock, plan.facts);
    const sense = ohms(board, 'R6');
    expect(sense).toBeGreaterThanOrEqual(0.6);
    expect(sense).toBeLessThanOrEqual(0.65);
    const q = board.parts.find((p) => p.kind === 'bjt')!;
    const j2 = board.parts.find((p) => p.ref === 'J2')!;
    expect([q.nets[0], q.nets[2]]).toEqual(['EN', 'GND']);
    expect(board.parts.find((p) => p.ref === 'R6')!.nets).toEqual([j2.nets[1], 'GND']);
    expect(j2.nets[0]).toBe('OUT+');
    expect(plan.stress.find((r) => r.ref === 'R6')).toMatchObject({ verdict: 'ok' });
    expect(plan.stress.find((r) => r.ref === 'R6')!.stress).toBeCloseTo(4 * sense, 9);
    expect(plan.stress.filter((r) => r.verdict === 'unknown').map((r) => r.ref)).toEqual(['J2', q.ref]);
  });

  test('a small resistor cooks, and a load that needs more than is left is over', () => {
    const plan = planned(onLoad({ ratedWatts: 2, loadVoltsMin: 4.5 }));
    expect(plan.stress.find((r) => r.ref === 'R6')!.verdict).toBe('over');
    expect(plan.stress.find((r) => r.ref === 'J2')!.verdict).toBe('over');
    expect(planned(onLoad({ loadVoltsMin: 3 })).stress.find((r) => r.ref === 'J2')!.verdict).toBe('ok');
  });

  test('what cannot be met is refused with both limits', () => {
    const plan = planChange(dock, onLoad({ iMin: 0.1 }));
    expect(plan.ok).toBe(false);
    if (!plan.ok) expect(plan.problem.sentence.replace(/\s/gu, ' ')).toContain('6 Ω to wake it');
  });

  test('the sweep: off without a load, then less by the drop', () => {
    const plan = planned(onLoad());
    const sense = Number(plan.facts[1]!.split('"')[1]);
    const volts = 1.22 * (1 + 46.4 / 15);
    expect(plan.steps[0]).toMatchObject({ set: 0, off: true });
    expect(plan.steps.at(-1)!.nominal).toBeCloseTo(volts - 2 * sense, 9);
  });
});

describe('readings laid to the steps', () => {
  const { steps } = planned(output(6.2));
  test('each row answers the first open step that was set so', () => {
    const results = judgeSteps(steps, [
      { vin: 12.05, vout: 6.21 },
      { vin: 10.1, vout: 5.2 },
      { vin: 12, vout: 6.2 },
      { vin: 15, vout: null },
    ]);
    expect(results.map((r) => [r.row, r.verdict])).toEqual([
      [1, 'disagrees'],
      [0, 'agrees'],
      [null, 'open'],
    ]);
  });
  test('off means off', () => {
    const lock = planned(lockOut()).steps;
    const [first] = lock;
    expect(judgeSteps(lock, [{ vin: first!.set, vout: 0.02 }])[0]!.verdict).toBe('agrees');
    expect(judgeSteps(lock, [{ vin: first!.set, vout: 4.9 }])[0]!.verdict).toBe('disagrees');
    expect(stepExpectation(first!)).toMatch(/^off: below/u);
    expect(stepExpectation(steps[0]!)).toMatch(/ to /u);
  });
});

test('where nobody says what the output gives no figure is made up: no sweep, and the load is not judged', () => {
  const bare = withFacts(boardOf(DOCK_MODULE), ['U1 EN on 1.2 V off 1.1 V']).board;
  for (const change of [lockOut(), onLoad({ loadVoltsMin: 4 })]) {
    const [unsaid, said] = [planChange(bare, change), planChange(dock, change)];
    if (!unsaid.ok || !said.ok) throw new Error('refused');
    expect(unsaid.value.steps).toEqual([]);
    expect(unsaid.value.notes.join()).toContain('What the output gives is not known');
    expect(said.value.steps.length).toBeGreaterThan(2);
    expect(said.value.notes.join()).not.toContain('not known');
    // Whatever follows from the parts alone is said all the same.
    expect(unsaid.value.facts).toEqual(said.value.facts);
  }
  const change = onLoad({ loadVoltsMin: 1 }) as Extract<Change, { kind: 'start-on-load' }>;
  const verdict = (board: Board) => {
    const plan = planChange(board, change);
    return plan.ok && plan.value.stress.find((r) => r.ref === change.connector)?.verdict;
  };
  expect([verdict(bare), verdict(dock)]).toEqual(['unknown', 'ok']);
});
