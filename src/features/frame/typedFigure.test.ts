import { figureError, typedFigure } from './typedFigure';

test.each([
  ['4,7k', 'ohm', 4700],
  ['4.7k', 'ohm', 4700],
  ['2,5 A', 'A', 2.5],
] as const)('%p in %s is %p, and nothing is wrong with it', (text, unit, value) => {
  expect(typedFigure(text, unit)).toBe(value);
  expect(figureError(text, unit)).toBeUndefined();
});

test.each([
  ['about 5', 'V', /not a figure/u],
  ['3 A', 'V', /wants V, not A/u],
  ['0', 'A', /above nothing/u],
  ['-2', 'V', /above nothing/u],
] as const)('%p in %s is said to be wrong, never dropped', (text, unit, words) => {
  expect(typedFigure(text, unit)).toBeNull();
  expect(figureError(text, unit)).toMatch(words);
});

test('nothing typed is nothing wrong; zero is a figure where it may be one', () => {
  expect(figureError('  ', 'V')).toBeUndefined();
  expect([typedFigure('0', 'V', true), figureError('0', 'V', true)]).toEqual([0, undefined]);
});
