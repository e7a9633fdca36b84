import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { NOMINAL_DRAW, flatten } from '../device';
import type { PartDraw } from '../device';
import { parseFaults } from '../fault';
import { invertComplex } from '../linear';
import { seededRandom } from '../quantity';
import { exampleBoard } from '../../../bench/exampleBoards';
import { withFaults } from './faultySignal';
import { SignalReader } from './readSignal';
import { figureChange, figureOf } from './shown';
import { SignalNetwork } from './signalNetwork';
import { SIGNAL_HERTZ } from './tones';
import type { SignalBoard } from './signalNetwork';

const networkOf = (board: Board, mode: 'esr' | 'cap'): SignalNetwork =>
  new SignalNetwork(flatten(board), 2 * Math.PI * SIGNAL_HERTZ[mode]);
const at = (one: SignalBoard, mode: 'esr' | 'cap', red: string, black: string): number =>
  figureOf(mode, one.impedance(netKey(red), netKey(black)) ?? null);

/** Pairs across every capacitor and winding. */
const pairsOf = (board: Board): readonly (readonly [string, string])[] =>
  board.parts.flatMap((p) =>
    p.fitted && (p.kind === 'capacitor' || p.kind === 'inductor') ? [[p.nets[0]!, p.nets[1]!] as const] : [],
  );

/** Faults of every sort: what adds, what takes away, what drifts, several at once, one that parts the board in two. */
const FAULTS: Readonly<Record<string, readonly string[]>> = {
  'ups-frontend-pfc': [
    'C1:esr=3',
    'C1:value=20u',
    'F1:open',
    'M1:short(d,g)+F1:open+R6:open+R16:open',
    'M1:short+F1:open',
    'L1:short',
    'BD1:short(ac2,plus)',
    'U1:open',
  ],
  'bilge-drive-48v': ['M2:short(d,s)+F1:open+R41:open', 'C5:leak=4.7k', 'L1:value=1u', 'U1.3:open', 'D2:short'],
  'lamp-supply-24v': ['LT1P:open', 'LT1P:value=20u', 'U2:short', 'C8:esr=1', 'R7:open+R8:open', 'M1.g:open'],
};

test.each(Object.keys(FAULTS))(
  '%s: a fault taken from the sound board reads as the whole board solved anew, by the other solver',
  (name) => {
    const board = exampleBoard(name);
    for (const mode of ['esr', 'cap'] as const) {
      const sound = networkOf(board, mode);
      for (const text of FAULTS[name]!) {
        const faults = parseFaults(board, text);
        const faulty = withFaults(sound, flatten(board, faults));
        const reader = new SignalReader(board, faults);
        for (const [red, black] of pairsOf(board)) {
          const want = reader.read(mode, red, black);
          if (want === null || want === undefined) continue;
          const got = at(faulty, mode, red, black);
          expect([text, mode, red, black, Math.abs(got - want) <= 1e-4 * Math.abs(want) + 1e-6]).toEqual([
            text,
            mode,
            red,
            black,
            true,
          ]);
        }
      }
    }
  },
);

test('a fault that touches few nodes does not turn the whole matrix over', () => {
  const board = exampleBoard('ups-frontend-pfc');
  const sound = networkOf(board, 'esr');
  expect(withFaults(sound, flatten(board, parseFaults(board, 'C1:esr=3')))).not.toBeInstanceOf(SignalNetwork);
  // What holds two halves together, taken away, would be lost in rounding.
  expect(withFaults(sound, flatten(board, parseFaults(board, 'F1:open')))).toBeInstanceOf(SignalNetwork);
  expect(withFaults(sound, flatten(board))).toBe(sound);
});

test('what one sigma of a draw does is what the board drawn so reads', () => {
  const board = exampleBoard('lamp-supply-24v');
  const step = 1e-4;
  for (const mode of ['esr', 'cap'] as const) {
    for (const text of ['', 'C8:esr=1', 'R7:open']) {
      const faults = text === '' ? [] : parseFaults(board, text);
      const sound = networkOf(board, mode);
      // What rounding leaves of ohms beside hundreds that are turned by a right angle.
      const blur = mode === 'esr' ? 1e-3 : 0;
      const there = withFaults(sound, flatten(board, faults));
      for (const [ref, property] of [
        ['C8', 'value'],
        ['C1', 'value'],
        ['R7', 'value'],
        ['LT1P', 'value'],
        ['LT1P', 'winding'],
      ] as const) {
        const draw: PartDraw = (owner, _part, p) => (owner === ref && p === property ? 1 + step : 1);
        const moved = new SignalNetwork(flatten(board, faults, draw), sound.omega);
        const part = board.parts.findIndex((p) => p.ref === ref);
        for (const [red, black] of pairsOf(board)) {
          const z = there.impedance(netKey(red), netKey(black));
          if (!z || !Number.isFinite(figureOf(mode, z))) continue;
          const figure = figureOf(mode, z);
          const mine = there.effects(netKey(red), netKey(black)).filter((e) => e.owner === part);
          // A winding has two draws: what its wire does is far below what its turns do at either tone.
          const known = mine.map((e) => figureChange(mode, z, e) / e.sigma);
          const seen = (at(moved, mode, red, black) - figure) / step;
          const near = known.concat(0).some((k) => Math.abs(k - seen) <= 2e-3 * Math.abs(seen) + 5e-4 * figure + blur);
          expect([mode, text, ref, property, red, black, near || [known, seen, figure]]).toEqual([
            mode,
            text,
            ref,
            property,
            red,
            black,
            true,
          ]);
        }
      }
    }
  }
});

test('nets that nothing joins, and nets that are not there', () => {
  const board = exampleBoard('lamp-supply-24v');
  const sound = networkOf(board, 'esr');
  expect(sound.impedance('nowhere', 'hv-')).toBeUndefined();
  expect(sound.impedance('hv-', 'hv-')).toEqual({ re: 0, im: 0 });
  expect(flatten(board, [], NOMINAL_DRAW)).toBe(sound.circuit);
});

test('the inverse of complex matrices, rows exchanged and all; none where there is none', () => {
  const random = seededRandom(5);
  for (const n of [1, 2, 5, 12]) {
    const [re, im] = [0, 1].map(() => Float64Array.from({ length: n * n }, () => random() - 0.5)) as [
      Float64Array,
      Float64Array,
    ];
    if (n > 1) re[0] = im[0] = 0;
    const [ir, ii] = [re.slice(), im.slice()];
    expect(invertComplex(ir, ii, n)).toBe(true);
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) {
        let [sr, si] = [0, 0];
        for (let k = 0; k < n; k++) {
          sr += re[i * n + k]! * ir[k * n + j]! - im[i * n + k]! * ii[k * n + j]!;
          si += re[i * n + k]! * ii[k * n + j]! + im[i * n + k]! * ir[k * n + j]!;
        }
        expect(sr).toBeCloseTo(i === j ? 1 : 0, 9);
        expect(si).toBeCloseTo(0, 9);
      }
  }
  expect(invertComplex(new Float64Array(4), new Float64Array(4), 2)).toBe(false);
});
