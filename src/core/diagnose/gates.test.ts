import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Board } from '../circuit';
import { drawParts, simulateReading, solverFor } from '../meter';
import { readNetlist } from '../netlist';
import { seededRandom } from '../quantity';
import { Diagnoser, buildWholeDictionary, huntFault, listHypotheses } from '.';
import type { TakenReading } from '.';

/** The power gate on boards of other topologies: shut on every short of the supply path once read, open on a healthy board. */
const folder = join(__dirname, '../../../fixtures/boards');
const NAMES = ['radio-charger-5v', 'pump-aux-buck', 'fence-energiser', 'bench-supply-13v8'] as const;

function diagnoser(name: string): Diagnoser {
  const read = readNetlist(readFileSync(join(folder, `${name}.cir`), 'utf8'));
  if (!read.ok) throw new Error(name);
  const { nameplate } = JSON.parse(readFileSync(join(folder, `${name}.labels.json`), 'utf8')) as Pick<
    Board,
    'nameplate'
  >;
  const board = { ...read.value.board, ...(nameplate ? { nameplate } : {}) };
  return new Diagnoser(buildWholeDictionary(board, listHypotheses(board)));
}

/** Takes the readings that the gate itself asks for, until it names none. */
function clear(d: Diagnoser, faults: Parameters<typeof huntFault>[1], seed: number) {
  const random = seededRandom(seed);
  const solver = solverFor(d.dictionary.board, faults, drawParts(random));
  const readings: TakenReading[] = [];
  for (let k = 0; k < 40; k++) {
    const { gate } = d.diagnose(readings);
    const [next] = gate.clearing.filter(
      (p) => !readings.some((r) => r.mode === p.mode && r.red === p.red && r.black === p.black),
    );
    if (gate.allowed || !next) return { gate, count: readings.length };
    const { mode, red, black } = next;
    readings.push({ mode, red, black, seen: simulateReading(solver, mode, red, black, random) });
  }
  return { gate: d.diagnose(readings).gate, count: readings.length };
}

describe.each(NAMES)('%s', (name) => {
  const d = diagnoser(name);

  test('a healthy board is cleared by the few readings that the gate asks for, however its parts are drawn', () => {
    for (let seed = 1; seed <= 6; seed++) {
      const { gate, count } = clear(d, [], seed);
      expect([seed, gate.allowed, gate.reasons]).toEqual([seed, true, []]);
      expect(count).toBeLessThanOrEqual(16);
    }
  });

  test('every short of the supply path keeps it shut once the plan has been followed', () => {
    const shorts = d.dictionary.hypotheses.filter((h) => h.short === 'input' && h.faults.length === 1);
    expect(shorts.length).toBeGreaterThan(3);
    const open = shorts.filter((h, k) => {
      const { diagnosis } = huntFault(d, h.faults, drawParts(seededRandom(k + 5)), seededRandom(k + 9));
      return diagnosis.gate.allowed;
    });
    expect(open.map((h) => h.label)).toEqual([]);
  });

  test('nothing read yet: power is refused, with the reason and the way to clear it', () => {
    const { gate } = d.diagnose([]);
    expect(gate.allowed).toBe(false);
    expect(gate.reasons.join(' ')).toMatch(/Nothing has been read yet/u);
    expect(gate.clearing.length).toBeGreaterThan(0);
  });
});
