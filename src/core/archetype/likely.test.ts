import { ARCHETYPES, likeliestFirst } from '.';
import type { PrintedPlate } from '.';

const first = (plate: PrintedPlate): string => likeliestFirst(ARCHETYPES, plate)[0]!.name;

test('what is printed on a unit brings the circuit that is in such units to the top', () => {
  expect(first({ source: 'mains', outputVolts: 24, outputAmps: 2.5 })).toBe('flyback-opto');
  expect(first({ source: 'dc', inputMin: 8, inputMax: 28, outputVolts: 5, outputAmps: 2 })).toBe('buck-module');
  const inverter = ARCHETYPES.find(
    (a) => a.name === first({ source: 'battery', inputMin: 10.5, inputMax: 15, outputVolts: 230, outputAmps: 3 }),
  );
  expect(inverter?.nameplate.outputs?.[0]?.kind).toBe('ac');
});

test('nothing printed leaves the order, and no circuit is lost', () => {
  expect(likeliestFirst(ARCHETYPES, {})).toEqual(ARCHETYPES);
  expect(new Set(likeliestFirst(ARCHETYPES, { source: 'battery', outputVolts: 12 }))).toEqual(new Set(ARCHETYPES));
});
