import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { exampleBoard } from '../../../bench/exampleBoards';
import { rateUnit } from '.';

interface Note {
  readonly ref: string;
  readonly quantity: string;
  readonly stress: number;
}

const folder = join(__dirname, '../../../fixtures/boards');
const names = readdirSync(folder).flatMap((f) => (f.endsWith('.cir') ? [f.slice(0, -4)] : []));

/** How many of the notes of a board its ratings meet within a tenth. */
function met(name: string): { readonly held: number; readonly of: number } {
  const { stress_notes: notes } = JSON.parse(readFileSync(join(folder, `${name}.labels.json`), 'utf8')) as {
    readonly stress_notes: readonly Note[];
  };
  const rows = rateUnit(exampleBoard(name))!.rows;
  // A note calls the volts backwards across a diode voltage, the ripple of a capacitor current.
  const same = (told: string, own: string): boolean =>
    own === told || (told === 'voltage' && own === 'peak-inverse') || (told === 'current' && own === 'ripple-current');
  const held = notes.filter((n) =>
    rows.some(
      (r) => r.ref === n.ref && same(n.quantity, r.quantity) && Math.abs(r.stress - n.stress) <= 0.1 * n.stress,
    ),
  );
  return { held: held.length, of: notes.length };
}

/** Boards whose notes name a corner that is not the worst, or a time that the engine does not run, meet fewer. */
const LEAST: Readonly<Record<string, number>> = {
  'fence-energiser': 0.7,
  'radio-charger-5v': 0.7,
  'ups-frontend-pfc': 0.7,
  'shelf-lamp-led': 0.8,
};

const counts: { held: number; of: number }[] = [];

test.each(names)('%s: stresses against independent sums', (name) => {
  const { held, of } = met(name);
  counts.push({ held, of });
  expect(held / of).toBeGreaterThanOrEqual(LEAST[name] ?? 0.86);
});

test('nine of ten over all boards', () => {
  const sum = (of: (c: { held: number; of: number }) => number): number => counts.reduce((n, c) => n + of(c), 0);
  expect(counts).toHaveLength(names.length);
  expect(sum((c) => c.held) / sum((c) => c.of)).toBeGreaterThanOrEqual(0.9);
});
