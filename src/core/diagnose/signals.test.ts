import { exampleBoard } from '../../../bench/exampleBoards';
import { unseenShare } from '../../../bench/instruments';
import { drawnRepairs, heldInvisible, repairMix } from '../../../bench/repairs';
import { parseFaults } from '../fault';
import { readNetlist } from '../netlist';
import { NOMINAL_DRAW } from '../device';
import { SimulatedBoard, drawParts } from '../meter';
import { Permit } from '../permit';
import { seededRandom } from '../quantity';
import {
  Diagnoser,
  buildWholeDictionary,
  listHypotheses,
  predictSignal,
  signalPoints,
  withAllInstruments,
  withInstruments,
} from '.';
import type { TakenReading } from '.';
import { placeOn } from './scale';
import { setReadingSeconds, READING_SECONDS } from './readingCost';

const board = exampleBoard('pump-aux-buck');
const hypotheses = listHypotheses(board);
const cold = buildWholeDictionary(board, hypotheses);
const both = withAllInstruments(cold, ['esr', 'cap']);
const byMeter = new Diagnoser(cold);
const byAll = new Diagnoser(both);
const total = hypotheses.reduce((sum, h) => sum + h.weight, 0);
test('an ESR meter and a capacitance meter see nearly all that diode test and ohms do not', () => {
  expect(unseenShare(byMeter)).toBeGreaterThan(0.3);
  expect(unseenShare(byAll)).toBeLessThan(0.05);
  // What was seen before is seen still, and told apart at least as finely.
  const before = new Set(heldInvisible(byMeter));
  expect(heldInvisible(byAll).filter((label) => !before.has(label))).toEqual([]);
});

test('repairs as they come are named with them, dried electrolytics among them', () => {
  const mix = repairMix(byAll, drawnRepairs(byAll, 30));
  expect(mix.seen).toBeGreaterThanOrEqual(28);
  expect(mix.right).toBeGreaterThanOrEqual(0.95);
  expect(mix.wrong).toBeLessThan(0.05);
});

test.each(['C6:esr=2.7', 'C4:value=110u', 'C5:esr=14'])(
  '%s, on no grid, is named by what the plan asks for',
  (label) => {
    const unit = new SimulatedBoard(board, parseFaults(board, label), drawParts(seededRandom(4)));
    const random = seededRandom(6);
    const readings: TakenReading[] = [];
    const [ref, mode = ''] = label.split(':');
    for (;;) {
      const { verdict, suspects, plan } = byAll.diagnose(readings);
      if (verdict === 'named') {
        expect(suspects[0]!.group.some((g) => g.startsWith(`${ref}:${mode.split('=')[0]}`))).toBe(true);
        break;
      }
      expect(readings.length).toBeLessThan(40);
      const { red, black, mode: by } = plan[0]!.point;
      readings.push({ mode: by, red, black, seen: unit.read(by, red, black, random) });
    }
    expect(readings.some((r) => r.mode === 'esr' || r.mode === 'cap')).toBe(true);
  },
);

test('a capacitor beside its like hides in circuit, and is said to', () => {
  const text = [
    't',
    'C1 a b 1000u esr=0.03',
    'C2 a b 1000u esr=0.03',
    'C3 c b 100u esr=0.2',
    'R1 a c 10k',
    'R2 c b 1k',
  ];
  const read = readNetlist(text.join('\n'));
  if (!read.ok) throw new Error('board');
  const list = listHypotheses(read.value.board);
  const held = heldInvisible(
    new Diagnoser(withAllInstruments(buildWholeDictionary(read.value.board, list), ['esr', 'cap'])),
  );
  expect(held.filter((label) => /^C[12]:esr/u.test(label))).toHaveLength(2);
  expect(held.some((label) => label.startsWith('C3:esr'))).toBe(false);
});

test.each(['lamp-supply-24v', 'bench-supply-13v8', 'buoy-boost-28'])(
  '%s: drawn boards, sound and broken, read within what is said of them',
  (name) => {
    const one = exampleBoard(name);
    const list = listHypotheses(one);
    const points = signalPoints(one, ['esr', 'cap']).map((p) => predictSignal(one, list, p));
    const random = seededRandom(8);
    let [count, far, squares, wrong] = [0, 0, 0, 0];
    for (let k = 0; k < 40; k++) {
      const h = k % 2 === 0 ? 0 : Math.floor(random() * list.length);
      const unit = new SimulatedBoard(one, list[h]!.faults, drawParts(seededRandom(70 + k)));
      for (const { mode, red, black, scale, spreads, classOf } of points) {
        const spread = spreads[classOf[h]!]!;
        const said = spread.middle ?? spread;
        const seen = unit.read(mode, red, black, random);
        if (seen.kind === 'overload' || said.overload > 0.5) {
          if ((seen.kind === 'overload') !== said.overload > 0.5 && Math.abs(said.overload - 0.5) > 0.49) wrong++;
          continue;
        }
        const z = (placeOn(scale, seen.value) - said.mean) / said.sigma;
        count++;
        squares += z * z;
        if (Math.abs(z) > 3.5) far++;
      }
    }
    expect(Math.sqrt(squares / count)).toBeGreaterThan(0.7);
    expect(Math.sqrt(squares / count)).toBeLessThan(1.15);
    expect(far / count).toBeLessThan(0.005);
    expect(wrong).toBeLessThanOrEqual(2);
  },
);

test('a reading with an instrument counts wherever it was taken, planned with or not', () => {
  const point = signalPoints(board, ['esr']).find((p) => p.red === '+9V')!;
  const reading: TakenReading = { ...point, seen: { kind: 'figure', value: 2 } };
  const odds = byMeter.weigh([reading]);
  const dried = hypotheses.reduce((sum, h, i) => (h.label.includes(':esr=') ? sum + odds[i]! : sum), 0);
  const before = hypotheses.reduce((sum, h) => (h.label.includes(':esr=') ? sum + h.weight : sum), 0) / total;
  expect(dried).toBeGreaterThan(2 * before);
  expect(cold.at(point).classOf).toEqual(both.at(point).classOf);
});

test('without instruments nothing is added; with them it goes step by step', () => {
  expect([...withInstruments(cold, [])]).toEqual([]);
  expect(withAllInstruments(cold, []).points).toEqual(cold.points);
  const steps = [...withInstruments(cold, ['esr'])];
  expect(steps.length).toBeGreaterThan(hypotheses.length);
  expect(both.points.length).toBeGreaterThan(cold.points.length);
  expect(both.points.filter((p) => p.mode === 'esr').every((p) => p.spreads.length > 1)).toBe(true);
});

test('taking another instrument in hand costs what the workshop says', () => {
  const point = both.points.find((p) => p.mode === 'esr')!;
  expect(both.seconds(point, null)).toBe(READING_SECONDS.instrument);
  setReadingSeconds({ ...READING_SECONDS, instrument: 40 });
  expect(both.seconds(point, null)).toBe(40);
  setReadingSeconds(READING_SECONDS);
});

test('no small signal earns a permit: what is asked for are steady currents', () => {
  const permit = Permit.of(board);
  const asked = permit.judge([], byAll);
  expect(asked.clearing.length).toBeGreaterThan(0);
  expect(asked.clearing.every((r) => r.mode === 'ohms' || r.mode === 'diode' || r.mode === 'continuity')).toBe(true);
  // The same places, with instruments, all as they should be.
  const readings = asked.clearing.flatMap(({ red, black }) =>
    (['esr', 'cap', 'ring'] as const).map((mode): TakenReading => {
      const [raw = Infinity] = cold.at({ mode, red, black }).raws;
      return { mode, red, black, seen: Number.isFinite(raw) ? { kind: 'figure', value: raw } : { kind: 'overload' } };
    }),
  );
  const judged = permit.judge(readings, byAll);
  expect(judged.allowed).toBe(false);
  expect(judged.restsOn).toEqual([]);
  expect(judged.clearing).toEqual(asked.clearing);
});

test('what an instrument shows of a short shuts a permit that steady currents had earned, and what it shows of none opens nothing', () => {
  const permit = Permit.of(board);
  const unit = new SimulatedBoard(board, [], NOMINAL_DRAW);
  const random = seededRandom(2);
  const readings: TakenReading[] = [];
  for (let round = 0; round < 6; round++) {
    const { allowed, clearing } = permit.judge(readings, byAll);
    if (allowed) break;
    for (const { mode, red, black } of clearing)
      readings.push({ mode, red, black, seen: unit.read(mode, red, black, random) });
  }
  expect(permit.judge(readings, byAll).allowed).toBe(true);
  const at = { red: '+5V', black: 'HV-' } as const;
  const good: TakenReading[] = [
    { mode: 'cap', ...at, seen: unit.read('cap', at.red, at.black, random) },
    { mode: 'esr', ...at, seen: unit.read('esr', at.red, at.black, random) },
  ];
  expect(permit.judge([...readings, ...good], byAll).allowed).toBe(true);
  const shorted = new SimulatedBoard(board, parseFaults(board, 'C8:short'), NOMINAL_DRAW);
  const bad = good.map((r): TakenReading => ({ ...r, seen: shorted.read(r.mode, r.red, r.black, random) }));
  const shut = permit.judge([...readings, ...bad, ...bad], byAll);
  expect(shut.allowed).toBe(false);
  expect(shut.reasons.join(' ')).toMatch(/A short in .* stands at/u);
});
