import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { findPart } from '../circuit';
import { netlistNumber, netlistText, readNetlist, writeNetlist } from '.';
import { seededRandom } from '../quantity';

/** Every line of the dialect that can go wrong, and what is said of it. */
function problemOf(line: string): { line: number; sentence: string; remedy: string } | null {
  const read = readNetlist(`t\nR0 z 0 1k\n${line}\n`);
  if (read.ok) return null;
  const [first] = read.problem;
  return { line: first!.details!.line, sentence: first!.sentence, remedy: first!.remedy };
}

test.each([
  ['R1 a b', /not complete/u, /Rxx a b value/u],
  ['R1 a b c 1k', /not complete/u, /Rxx a b value/u],
  ['C1 a b', /not complete/u, /Cxx a b value/u],
  ['L1 a 1m', /not complete/u, /Lxx a b value/u],
  ['D1 a b', /not complete/u, /Dxx anode cathode MODEL/u],
  ['Q1 a b MODEL', /not complete/u, /Qxx c b e MODEL/u],
  ['M1 a b MODEL', /not complete/u, /Mxx d g s MODEL/u],
  ['V1 a b', /not complete/u, /Vxx p n value/u],
  ['I1 a b', /not complete/u, /Ixx p n value/u],
  ['K1 L1', /not complete/u, /Kxx L1 L2 k/u],
  ['X1', /not complete/u, /Xxx node/u],
  ['R1 a b 4R7', /not a number/u, /4\.7k/u],
  ['R1 a b -5', /negative/u, /zero or more/u],
  ['C1 a b ten', /not a number/u, /number/u],
  ['R1 a b 1k tol=much', /tol= of R1/u, /number/u],
  ['R1 a b 1k tol=', /not complete/u, /key=value/u],
  ['R1 a b 1k tol=5% more', /stands after/u, /key=value/u],
  ['R1 a b 1k mark="open', /double quote/u, /closing/u],
  ['D1 a b NOPE', /NOPE/u, /\.model/u],
  ['K1 L8 L9 0.9', /L8/u, /inductor/u],
  ['K1 L8 L9 1.5', /coupling/u, /-1 to 1/u],
  ['XF1 a b c FUSE', /3 nodes/u, /2 nodes for FUSE: a b/u],
  ['XBD1 a b c BRIDGE', /3 nodes/u, /ac1 ac2 plus minus/u],
  ['XRT1 a b NTC', /lacks r25=/u, /ohm/u],
  ['XK1 a b c d RELAY', /lacks rcoil=/u, /ohm/u],
  ['XLA1 a b LAMP', /lacks r=/u, /ohm/u],
  ['.tran 1 2', /\.tran/u, /\.model/u],
  ['.model DX', /not complete/u, /\.model NAME/u],
  ['.model DX JFET(VTO=1)', /not complete/u, /NPN/u],
  ['.model DX D(IS=)', /IS of model DX/u, /number/u],
  ['.model DX D(N=0)', /above zero/u, /positive/u],
  ['Y1 a b 5', /Y1/u, /R C L K D Q M V I X/u],
  ['R0 a b 1', /already on line 2/u, /one part/u],
])('%p is an error of line 3, with what was expected', (line, sentence, expected) => {
  const problem = problemOf(line);
  expect(problem?.line).toBe(3);
  expect(problem?.sentence).toMatch(sentence);
  expect(problem?.remedy).toMatch(expected);
  expect(problem?.remedy).toMatch(/Nothing was saved/u);
});

test.each([
  'R1 A b 4.7K tol=5% Vr=200V pr=0.25',
  'C1 a b 470uF vr=35 esr=21m mark="470 µF; 35 V"',
  'L1 a b 33u dcr = 0.05 rp=10k',
  'V1 a b 0',
  'I1 a b 1m',
  'XJ1 a b c d e CONN mark="AC IN"',
  'XF1 a b fuse ir=2 r=0.04',
  'XS1 a b Switch state=open',
  'XU9 a nc NC b CHIP mark=C9',
  'R1 a b 1k basis=measured odd=1,2,3',
  'R1 a b 0 fit=no',
])('%p is read and written back as it was', (line) => {
  const source = `t\nR0 z 0 1k\n${line}\n`;
  const read = readNetlist(source);
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  expect(writeNetlist(read.value.board)).toBe(source);
});

test.each([
  ['10uF', 10e-6],
  ['10UF', 10e-6],
  ['1MEGohm', 1e6],
  ['1megohm', 1e6],
  ['4.7K', 4700],
  ['1T', 1e12],
  ['2G', 2e9],
  ['3m', 3e-3],
  ['3M', 3e-3],
  ['5p', 5e-12],
  ['7F', 7e-15],
  ['8n', 8e-9],
  ['9e3k', 9e6],
  ['1.5e-3', 1.5e-3],
  ['+5', 5],
  ['.5', 0.5],
  ['5.', 5],
  ['100V', 100],
  ['0.62ohm', 0.62],
  ['22µ', 22e-6],
])('the number %s', (text, value) => expect(netlistNumber(text)! / value).toBeCloseTo(1, 12));

test('any number is written so that it reads back exactly', () => {
  const random = seededRandom(3);
  for (let k = 0; k < 2000; k++) {
    const value = Number((10 ** (random() * 24 - 13)).toPrecision(1 + Math.floor(random() * 9)));
    expect(netlistNumber(netlistText(value))).toBe(value);
  }
});

test('a comment of its own, blank lines, tabs and line ends of other systems', () => {
  const read = readNetlist('t\r\n* note\r\n\r\nR1\ta\tb\t1k ; end\r\n+ tol=1%\r\n.end\r\nafter the end R9\r\n');
  if (!read.ok) throw new Error('read');
  expect(read.value.board.parts).toHaveLength(1);
  expect(read.value.board.parts[0]!.numbers['tol']).toBe(0.01);
  expect(writeNetlist(read.value.board)).toContain('after the end R9');
});

test('a continuation after a comment belongs to the element before it', () => {
  const read = readNetlist('t\nR1 a b 1k\n* between\n+ tol=2%\n');
  expect(read.ok && read.value.board.parts[0]!.numbers['tol']).toBe(0.02);
});

test('what is wrong inside a .subckt is named by its own line', () => {
  const read = readNetlist('t\nX1 a b IN\n.subckt IN 1 2\nR1 1 2 1k\nD1 1 2 NOPE\nR2 1 2 x\n.ends\n');
  expect(!read.ok && read.problem.map((p) => p.details!.line)).toEqual([5, 6]);
});

test('a subcircuit of a reserved name overrides it', () => {
  const read = readNetlist('t\nXF1 a b c FUSE\n.subckt FUSE 1 2 3\nR1 1 2 5\n.ends\n');
  if (!read.ok) throw new Error('read');
  expect(findPart(read.value.board, 'F1')).toMatchObject({ kind: 'ic', subcircuit: 'FUSE' });
});

const folder = join(__dirname, '../../../fixtures/boards');
test.each(readdirSync(folder).filter((f) => f.endsWith('.cir')))(
  '%s: whichever line is lost or spoiled, the reader says where or reads on, and never throws',
  (file) => {
    const lines = readFileSync(join(folder, file), 'utf8').split('\n');
    const random = seededRandom(17);
    for (let k = 0; k < 40; k++) {
      const at = 1 + Math.floor(random() * (lines.length - 1));
      const spoiled = [...lines];
      const line = spoiled[at]!;
      spoiled[at] = [line.slice(0, Math.floor(random() * line.length)), '', line.replace(/\S+$/u, ''), `${line} "`][
        k % 4
      ]!;
      const read = readNetlist(spoiled.join('\n'));
      if (read.ok) continue;
      expect(read.problem.length).toBeGreaterThan(0);
      for (const p of read.problem) {
        expect(p.sentence).toMatch(/^Line \d+: /u);
        expect(p.details!.line).toBeGreaterThanOrEqual(0);
      }
    }
  },
);

const refusal = (text: string): string => {
  const read = readNetlist(text);
  return read.ok ? 'read' : read.problem.map((p) => `${p.sentence} ${p.remedy}`).join('\n');
};
/** Insides that hold two of the next each: a kilobyte that unfolds to a thousand million parts. */
const doubling = (deep: number): string =>
  [
    't',
    'X1 a b S0',
    ...Array.from({ length: deep }, (_, i) => `.subckt S${i} 1 2\nXA 1 2 S${i + 1}\nXB 1 2 S${i + 1}\n.ends`),
    `.subckt S${deep} 1 2\nR1 1 2 1k\n.ends`,
  ].join('\n');

test.each([
  ['a title of 301 characters', `${'T'.repeat(301)}\nR1 a b 1k`, /characters of the title/u],
  ['a net of 65 characters', `t\nR1 ${'n'.repeat(65)} b 1k`, /Line 2: the characters of a name at R1/u],
  ['2,001 parts', `t\n${Array.from({ length: 2001 }, (_, i) => `R${i} a b 1k`).join('\n')}`, /the parts .* 2000/u],
  ['10,001 comments', `t\nR1 a b 1k\n${'* c\n'.repeat(10_001)}`, /too many lines/u],
  ['150,000 continuations', `t\nR1 a b 1k\n${'* c\n+\n'.repeat(75_000)}`, /too many lines/u],
  ['insides that double thirty times', doubling(30), /with every inside unfolded/u],
  ['insides that double ten times', doubling(10), /with every inside unfolded/u],
  ['a value of 400 digits', `t\nR1 a b ${'9'.repeat(400)}k9`, /not a number/u],
  ['a value beyond all parts', 't\nR1 a b 1e20', /beyond all parts/u],
  ['450 kB of blanks in quotes', `t\nR1 a b 1k mark="${' '.repeat(450_000)}"`, /characters of a value at R1/u],
  ['450 kB of blanks', `t\nR1 a b 1k ${' '.repeat(450_000)}x`, /not complete/u],
  ['400 kB of blanks in a model', `t\nD1 a b DX\n.model DX D(${' '.repeat(400_000)}IS=zz)`, /not a number/u],
  ['a designator with a point', 't\nR1.2 a b 1k', /cannot name a part/u],
  ['a file that is too long', `t\n${'x'.repeat(1_000_001)}`, /too long/u],
] as const)('%s is refused, by a limit that is said, in no time', (_name, text, reason) => {
  const begun = performance.now();
  expect(refusal(text)).toMatch(reason);
  expect(performance.now() - begun).toBeLessThan(2000);
});

test.each(['constructor', '__proto__', 'toString', 'hasOwnProperty'])(
  '%s names a part or a net like any other',
  (name) => {
    const read = readNetlist(`t\nX${name} a ${name} KV51\nR1 ${name} b 1k\nR2 b a 1k`);
    expect(read.ok && read.value.board.parts.map((p) => p.ref)).toEqual([name, 'R1', 'R2']);
    expect(refusal(`t\nX1 a b ${name}`)).toBe('read');
    expect(refusal(`t\n.model ${name} ${name}(IS=1n)\nR1 a b 1k`)).toMatch(/not complete/u);
  },
);

test('keys may stand apart from their equals signs, but not in quotes', () => {
  const read = readNetlist('t\nR1 a b 1k tol = 5% mark= "a = b" pr =0.25');
  expect(read.ok && read.value.board.parts[0]!.keys).toEqual([
    { key: 'tol', text: '5%' },
    { key: 'mark', text: 'a = b' },
    { key: 'pr', text: '0.25' },
  ]);
});
