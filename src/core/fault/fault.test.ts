import { readNetlist } from '../netlist';
import { faultWords, formatFault, parseFault } from '.';

const read = readNetlist(
  't\nR1 a b 1k\nC1 a b 10u\nM1 d g s MM\nXU1 a b c CHIP\nR9 a b 1 fit=no\nM2 d g s MI\n.model MM NMOS(VTO=3)\n.model MI NMOS(VTO=5 IGBT=1)\n.subckt CHIP vcc gnd out\nR1 vcc gnd 1k\n.ends',
);
if (!read.ok) throw new Error('fixture');
const { board } = read.value;

test.each([
  ['R1:open', 'R1:open'],
  ['r1:value=4.7k', 'R1:value=4.7k'],
  ['M1:short(d,s)', 'M1:short(d,s)'],
  ['M1.g:open', 'M1.g:open'],
  ['XU1:short(1,2)', 'U1:short(1,2)'],
  ['U1:short(vcc,gnd)', 'U1:short(vcc,gnd)'],
  ['C1:esr=2', 'C1:esr=2'],
  ['M1:leak(g,s)=470', 'M1:leak(g,s)=470'],
  ['M2:short(c,e)', 'M2:short(c,e)'],
])('reads %s', (text, written) => {
  const fault = parseFault(board, text);
  expect(fault.ok && formatFault(fault.value)).toBe(written);
});

test.each([
  'R7:open',
  'R1:melted',
  'R9:open',
  'M1:short(d,x)',
  'M1:leak=3',
  'M1:value=3',
  'R1:esr=1',
  'R1:leak',
  'nonsense',
  'R1.1:short',
  'M1:short(c,e)',
])('refuses %s', (text) => expect(parseFault(board, text).ok).toBe(false));

test('a fault is told in the trade’s words', () => {
  expect(faultWords(board, 'M1:short(d,s)+R1:open')).toBe('M1 shorted drain to source, and R1 open');
  expect(faultWords(board, 'R1:value=3k')).toBe('R1 gone high, to about 3\u2009kΩ');
  expect(faultWords(board, 'none')).toBe('nothing these readings can see');
});
