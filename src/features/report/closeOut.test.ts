import { FIRST_SETTINGS } from '@/wire/settings';
import { holdsLimit, limitWords } from './closeOut';

const limits = FIRST_SETTINGS.closeOut;

test.each([
  ['Earth continuity', '0.08 ohm, passed', true],
  ['Earth continuity', '0,31 Ω', false],
  ['Earth continuity', 'passed', null],
  ['Earth continuity', 'at 25 A 0.12 ohm', true],
  ['Insulation resistance', '200 Mohm at 500 V', true],
  ['Insulation resistance', '500 V: 400k ohm', false],
  ['Touch or leakage current', '0.2 mA', true],
  ['Touch or leakage current', '5mA', false],
  ['Function under load', '24 V 2 A', null],
])('%s, “%s”: %s', (test, result, holds) => expect(holdsLimit(test, result, limits)).toBe(holds));

test('a limit is told as it is meant', () => {
  expect(limitWords('Insulation resistance', limits)).toBe('at least 1\u2009MΩ');
  expect(limitWords('Function under load', limits)).toBeNull();
});
