import type { Board } from '@/core/circuit';
import { readNetlist } from '@/core/netlist';
import { seededRandom } from '@/core/quantity';
import { rateUnit } from '@/core/rate';
import { LOADS, PoweredReader } from '@/core/work';
import { leftOver } from './balances';
import { pick } from './hostile';

const NETS = ['VIN', 'GND', 'SW', 'OUT', 'G', 'FB', 'AUX', 'X', 'FAR', 'OFF'] as const;
const VALUES = ['0', '1e-9', '0.1', '10', '4.7k', '1MEG', '1e12'] as const;
const MODELS = `.model DX D(IS=1n N=1.8 RS=0.05)
.model DZ D(IS=1n N=1.2 BV=12 IBV=1m)
.model QX NPN(BF=100)
.model QY PNP(BF=60)
.model MX NMOS(VTO=3 KP=10 RON=0.1)
.model MY PMOS(VTO=-3 KP=10 RON=0.1)
`;

/** A board with sources that nobody would build: loops of sources, floating nets, parts of nothing and of far too much. */
export function hostileUnit(seed: number): Board | null {
  const random = seededRandom(seed);
  const used = NETS.slice(0, 3 + Math.floor(random() * (NETS.length - 2)));
  const net = (): string => (random() < 0.03 ? 'NC' : pick(random, used));
  const volts = (): string => ((random() - 0.3) * 10 ** (random() * 5 - 1)).toPrecision(3);
  const lines: string[] = [];
  const windings: string[] = [];
  const count = 3 + Math.floor(random() * 22);
  for (let i = 1; i <= count; i++) {
    const [a, b, c, d] = [net(), net(), net(), net()];
    const kind = random();
    if (kind < 0.3) lines.push(`R${i} ${a} ${b} ${pick(random, VALUES)}`);
    else if (kind < 0.42) lines.push(`C${i} ${a} ${b} ${pick(random, ['0', '1p', '100n', '470u', '1'])}`);
    else if (kind < 0.52) {
      windings.push(`L${i}`);
      lines.push(`L${i} ${a} ${b} ${pick(random, ['0', '1u', '100u', '1m', '1e6'])} dcr=${pick(random, ['0', '0.1'])}`);
    } else if (kind < 0.65) lines.push(`D${i} ${a} ${b} ${pick(random, ['DX', 'DZ'])}`);
    else if (kind < 0.72) lines.push(`Q${i} ${a} ${b} ${c} ${pick(random, ['QX', 'QY'])}`);
    else if (kind < 0.8) lines.push(`M${i} ${a} ${b} ${c} ${pick(random, ['MX', 'MY'])}`);
    else if (kind < 0.85) lines.push(`V${i} ${a} ${b} ${volts()}`);
    else if (kind < 0.88) lines.push(`XB${i} ${a} ${b} ${c} ${d} BRIDGE`);
    else if (kind < 0.91) lines.push(`XO${i} ${a} ${b} ${c} ${d} OPTO`);
    else if (kind < 0.94) lines.push(`XS${i} ${a} ${b} ${c} ${pick(random, ['SHUNTREF', 'REG3'])}`);
    else if (kind < 0.96) lines.push(`XF${i} ${a} ${b} FUSE ir=1`);
    else lines.push(`XU${i} VIN GND ${a} ${b} IC`);
  }
  for (let i = 1; i < windings.length; i++)
    if (random() < 0.5) lines.push(`K${i} ${windings[i - 1]} ${windings[i]} ${pick(random, ['0.5', '0.99', '1'])}`);
  const read = readNetlist(`t\n${lines.join('\n')}\nXJ1 VIN GND CONN\nXJ2 OUT GND CONN\n${MODELS}.end\n`);
  if (!read.ok) return null;
  const mains = random() < 0.3;
  const volt = mains ? 230 : pick(random, [0, 12, 48, 1e4]);
  const ics = read.value.board.parts.flatMap((p) => (p.kind === 'ic' ? [p.ref] : []));
  return {
    ...read.value.board,
    nameplate: {
      source: mains ? 'mains' : 'dc',
      inputRail: 'VIN',
      inputReturn: random() < 0.9 ? 'GND' : 'NOWHERE',
      inputMin: volt / 2,
      inputNominal: volt,
      inputMax: 2 * volt,
      hertz: mains ? 50 : 0,
      outputs: [{ rail: 'OUT', return: 'GND', volts: 5, amps: pick(random, [0, 1, 1e3]), kind: 'dc' }],
    },
    facts: Object.fromEntries(ics.map((ref) => [ref, { fSwitch: 1e5, fbRef: 2.5, vccStart: 8, vccStop: 5 }])),
  };
}

/** Puts such a unit under power: volts that balance, or the word that there are none. Gives the board where it was solved. */
export function exerciseUnit(seed: number): Board | null {
  const board = hostileUnit(seed);
  if (!board) return null;
  const load = LOADS[seed % LOADS.length]!;
  const reader = PoweredReader.at(board, { source: board.nameplate!.inputNominal!, load }, []);
  const { operation } = reader;
  if (operation.volts.some((v) => !Number.isFinite(v))) throw new Error('volts that are none');
  if (!operation.found) return null;
  const seen = reader.read('dcv', 'VIN', 'GND')?.value;
  if (seen !== undefined && seen !== null && !Number.isFinite(seen)) throw new Error('a reading that is none');
  // What cycles is a mean over its cycle, what does not come to rest a moment: no network is in balance with either.
  if (operation.unit.settled && operation.period === null) {
    const { net, share } = leftOver(operation);
    if (share > MOST_LEFT) throw new Error(`${share.toPrecision(2)} of its current is left over at ${net}`);
  }
  if (seed % RATED_EVERY === 0) {
    const wrong = rateUnit(board)?.rows.find((r) => !Number.isFinite(r.stress) || r.stress < 0);
    if (wrong) throw new Error(`a stress that is none: ${wrong.ref} ${wrong.quantity}`);
  }
  return board;
}

/** Every so many units are rated as well. */
const RATED_EVERY = 5;

/** Of the greatest current at a node this much may be left over. */
const MOST_LEFT = 5e-3;
