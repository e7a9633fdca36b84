import { waitWords } from './waitWords';

test.each([
  [2.4, '2 s'],
  [59, '59 s'],
  [99, '99 s'],
  [120, '2 min'],
  [1880, '31 min'],
])('%p s is %p', (seconds, words) => expect(waitWords(seconds)).toBe(words));
