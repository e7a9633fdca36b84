import { netSentence, netWords } from './netWords';

const rail = (net: string, words: string) => ({ net, text: `${net} ${words}`, x: 0, y: 0, width: 0, height: 0 });

test('what was worked out goes before what the rail is for; what was read stands beside either', () => {
  const told = netWords(
    [rail('OUT+', '24 V'), rail('LF', '230 V AC')],
    [
      { net: 'OUT+', volts: 24.06 },
      { net: 'FB', volts: 0.001 },
    ],
    new Map([
      ['lf', 228],
      ['cs', 0.2],
    ]),
  );
  const words = Object.fromEntries([...told].map(([key, net]) => [key, netSentence(net).replace(/\u2009/gu, ' ')]));
  expect(words).toEqual({ 'out+': '24.1 V', lf: '230 V AC, read 228 V', fb: '0 V', cs: 'read 200 mV' });
});
