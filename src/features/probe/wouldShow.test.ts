import { wouldShow } from './wouldShow';

test.each([
  [['electrolytics', 'controllers'], [], [], 'power would show it, or an ESR meter if there were one'],
  [['electrolytics', 'controllers'], ['esr'], [], 'your ESR meter would show electrolytics; power shows all of it'],
  [
    ['electrolytics', 'controllers'],
    ['esr'],
    ['esr'],
    'electrolytics with their like beside them hide in circuit: lift a leg; power shows all of it',
  ],
  [
    ['small capacitors', 'electrolytics', 'chokes and transformers'],
    ['capacitance', 'ring', 'oscilloscope'],
    ['cap'],
    'small capacitors and electrolytics with their like beside them hide in circuit: lift a leg, your ring tester would show chokes and transformers; power shows all of it',
  ],
  [['chokes and transformers'], ['esr'], ['esr'], 'power would show it, or a ring tester if there were one'],
  [
    ['chokes and transformers'],
    ['ring'],
    ['ring'],
    'chokes and transformers with their like beside them hide in circuit: lift a leg; power shows all of it',
  ],
  [['controllers'], ['esr', 'ring'], ['esr', 'ring'], 'power would show it'],
])('what would show %j with %j', (kinds, owned, planned, words) => {
  expect(wouldShow(kinds, owned, planned)).toBe(words);
});
