import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { findPart } from '../circuit';
import type { Board } from '../circuit';
import { readNetlist } from '../netlist';
import { atOnce } from '../problem';
import { buildFirstLook, buildWholeDictionary, listHypotheses, pointKey, probePairs } from '.';
import { alsoCheck } from './alsoCheck';
import { firstLook } from './firstLook';
import { neighbourPins } from './probePairs';

/** A fusible resistor and a bridge of four diodes; a fuse, a block bridge and a switch with sense and gate resistors. */
const [radio, lamp, buoy] = ['radio-charger-5v', 'lamp-supply-24v', 'buoy-boost-28'].map((name) => {
  const read = readNetlist(readFileSync(join(__dirname, `../../../fixtures/boards/${name}.cir`), 'utf8'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
}) as [Board, Board, Board];
const labelsOf = (board: Board): readonly string[] => listHypotheses(board).map((h) => h.label);
const ends = (ref: string): readonly string[] => findPart(radio, ref)!.nets;

test('two diodes of a bridge die together, of one leg or on one rail, and with the fusible resistor', () => {
  const pairs = labelsOf(radio).flatMap((l) => {
    const refs = l.split('+').map((f) => f.split(':')[0]!);
    return refs.filter((r) => /^D[1-4]$/u.test(r)).length === 2 ? [{ l, refs }] : [];
  });
  expect(pairs.length).toBeGreaterThan(6);
  for (const { refs } of pairs) {
    const [a, b] = refs.filter((r) => /^D[1-4]$/u.test(r)).map(ends) as [readonly string[], readonly string[]];
    // They meet at one end at least, and are not in parallel; those across the bridge from each other never go alone.
    expect(a.some((n) => b.includes(n)) && !a.every((n) => b.includes(n))).toBe(true);
  }
  expect(pairs.some(({ refs }) => refs.includes('RF1'))).toBe(true);
  expect(pairs.some(({ refs }) => !refs.includes('RF1'))).toBe(true);
  const words = alsoCheck(radio, 'D1:short').map((c) => c.words);
  expect(words).toEqual(
    expect.arrayContaining(['the other diode of the same leg', 'the other diode on the same rail', 'the fuse']),
  );
});

test('a hard one takes everything along at once', () => {
  const all = labelsOf(lamp).filter((l) => l.startsWith('M1:short(d,s)+'));
  const most = all.reduce((a, b) => (b.split('+').length > a.split('+').length ? b : a), '');
  for (const part of ['F1:open', 'R7:open', 'R8:open', 'R5:open', 'U1:leak']) expect(most).toContain(part);
  expect(all.filter((l) => l === most)).toHaveLength(1);
});

test('neighbouring pins of a larger part are pairs of their own, without those that are probed anyway', () => {
  const known = new Set(probePairs(radio).map(({ a, b }) => [a, b].sort().join(' ')));
  const pairs = neighbourPins(radio).map(({ a, b }) => [a, b].sort().join(' '));
  const u1 = findPart(radio, 'U1')!.nets;
  const neighbours = u1.slice(1).map((n, i) => [u1[i]!, n].sort().join(' '));
  expect(pairs.length).toBeGreaterThan(0);
  for (const p of pairs) expect(neighbours).toContain(p);
  expect(pairs.filter((p) => known.has(p))).toEqual([]);
});

test('a first look goes by likelihood, and only where direct current feels it', () => {
  const hypotheses = listHypotheses(lamp);
  const { hypotheses: chosen, points } = firstLook(lamp, hypotheses);
  const singles = hypotheses.filter((h) => h.faults.length === 1).map((h) => h.weight);
  const lightest = Math.min(...chosen.slice(1).map((h) => h.weight));
  expect(singles.filter((w) => w > lightest).length).toBeLessThanOrEqual(chosen.length + 10);
  const nets = new Set(lamp.parts.flatMap((p) => p.nets));
  for (const p of points) expect([nets.has(p.red), nets.has(p.black), p.red === p.black]).toEqual([true, true, false]);
});

test('a first look leaves what hangs on a gate near its threshold to the whole dictionary, and agrees with it elsewhere', () => {
  const hypotheses = listHypotheses(buoy);
  const look = firstLook(buoy, hypotheses);
  const first = atOnce(buildFirstLook(buoy, hypotheses));
  const there = new Set(first.points.map(pointKey));
  const left = look.points.filter((p) => !there.has(pointKey(p)));
  expect(left.length).toBeGreaterThan(0);
  for (const p of left) expect(p.mode).toBe('diode');
  expect(first.left).toBe(hypotheses.length - look.hypotheses.length);
  const whole = buildWholeDictionary(buoy, look.hypotheses, look.points);
  const of = (point: (typeof first.points)[number]): readonly number[] =>
    look.hypotheses.map((_, h) => point.raws[point.classOf[h]!]!);
  for (const point of whole.points) {
    const same = first.points.find((p) => pointKey(p) === pointKey(point));
    if (same) expect(of(same)).toEqual(of(point));
  }
  expect(whole.points.filter((p) => there.has(pointKey(p))).length).toBe(first.points.length);
});
