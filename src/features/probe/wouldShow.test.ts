import { wouldShow } from './wouldShow';

test.each([
  [['electrolytics', 'controllers'], [], 'power would show it, or an ESR meter if there were one'],
  [['electrolytics', 'controllers'], ['esr'], 'your ESR meter would show electrolytics; power shows all of it'],
  [
    ['small capacitors', 'electrolytics', 'chokes and transformers'],
    ['capacitance', 'ring', 'oscilloscope'],
    'your capacitance meter would show small capacitors and electrolytics, your ring tester would show chokes and transformers; power shows all of it',
  ],
  [['chokes and transformers'], ['esr'], 'power would show it, or a ring tester if there were one'],
  [['controllers'], ['esr', 'ring'], 'power would show it'],
])('what would show %j with %j', (kinds, owned, words) => {
  expect(wouldShow(kinds, owned)).toBe(words);
});
