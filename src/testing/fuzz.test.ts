import { ATTACKS, fuzz } from './fuzz';
import type { Attack } from './fuzz';

const SEED = 7001;
const COUNTS: Readonly<Record<Attack, number>> = {
  netlists: 700,
  shorthand: 500,
  tables: 500,
  boards: 400,
  units: 240,
  ledgers: 180,
};

test.each(Object.keys(ATTACKS) as Attack[])(
  `hostile %s from seed ${SEED} on: nothing breaks, hangs or cannot be read again`,
  (attack) => {
    const { sound, breaches } = fuzz(attack, SEED, COUNTS[attack]);
    expect(breaches).toEqual([]);
    // An attack that is always refused at the door tries nothing of the house.
    if (attack !== 'tables') expect(sound).toBeGreaterThan(COUNTS[attack] / 6);
  },
);
