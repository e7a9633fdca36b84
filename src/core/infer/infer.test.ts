import { exampleBoard } from '../../../bench/exampleBoards';
import { decodeMarking } from '../marking';
import type { Board } from '../circuit';
import { inferredValues, readingsInPlace } from '.';

const lamp = exampleBoard('lamp-supply-24v');

/** A board with a part's value forgotten. */
function without(board: Board, ref: string): Board {
  return {
    ...board,
    parts: board.parts.map((p) =>
      p.ref === ref && 'value' in p
        ? { ...p, value: p.kind === 'resistor' ? 10e3 : 1e-7, basis: 'assumed' as const }
        : p,
    ),
  };
}

test('100 where the current is sensed is not 10 ohm by accident: the place is said, the order turned', () => {
  const readings = decodeMarking('100', 'resistor');
  expect(readings[0]!.value).toBe(10);
  const placed = readingsInPlace(lamp, 'R7', readings);
  const ten = placed.find((r) => r.value === 10)!;
  expect(ten.place).toMatch(/odd where the switch's current is sensed/u);
  expect(ten.likelihood).toBeLessThanOrEqual(readings.find((r) => r.value === 10)!.likelihood);
  expect(readingsInPlace(lamp, 'R7', decodeMarking('R56', 'resistor'))[0]).toMatchObject({
    value: 0.56,
    place: expect.stringContaining('fits'),
  });
});

test('likelihoods still make one, a part without a stage leaves the order alone', () => {
  const placed = readingsInPlace(lamp, 'C1', decodeMarking('104'));
  expect(placed.reduce((s, r) => s + r.likelihood, 0)).toBeCloseTo(1, 9);
  const readings = decodeMarking('472');
  expect(readingsInPlace({ ...lamp, parts: [] }, 'R1', readings).map((r) => r.value)).toEqual(
    readings.map((r) => r.value),
  );
});

test('the twin in parallel gives its value', () => {
  const [first] = inferredValues(without(lamp, 'R7'), 'R7');
  expect(first).toMatchObject({ value: 0.56, why: expect.stringContaining('R8') });
  expect(inferredValues(without(lamp, 'R10'), 'R10')[0]).toMatchObject({ value: 22e3 });
});

test('the sense resistor from the power: within a factor of two of what is fitted', () => {
  for (const [name, ref] of [
    ['lamp-supply-24v', 'R7'],
    ['ups-frontend-pfc', 'R16'],
  ] as const) {
    const board = exampleBoard(name);
    const found = inferredValues(board, ref).find((v) => v.why.includes('peak'));
    const real = board.parts.find((p) => p.ref === ref) as { value: number };
    if (name === 'lamp-supply-24v') expect(found).toBeDefined();
    if (found) expect(Math.abs(Math.log(found.value / real.value))).toBeLessThan(Math.log(2.5));
  }
});

test('the divider from the output volts, the light from its rail, the storage from the power', () => {
  const upper = inferredValues(without(lamp, 'R18'), 'R18')[0]!;
  expect(Math.abs(upper.value / 21.5e3 - 1)).toBeLessThan(0.02);
  const light = inferredValues(without(lamp, 'R15'), 'R15')[0]!;
  expect(light.value).toBeGreaterThan(2e3);
  expect(light.value).toBeLessThan(10e3);
  const storage = inferredValues(without(lamp, 'C1'), 'C1')[0]!;
  expect(Math.abs(Math.log(storage.value / 180e-6))).toBeLessThan(Math.log(1.6));
});

test('nothing is made up where nothing follows', () => {
  expect(inferredValues(lamp, 'M1')).toEqual([]);
  expect(inferredValues(lamp, 'R999')).toEqual([]);
  expect(inferredValues(without(lamp, 'R9'), 'R9')).toEqual([]);
});
