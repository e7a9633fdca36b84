import { ATTACKS, fuzz } from '@/testing/fuzz';
import type { Attack } from '@/testing/fuzz';
import { UnusableArguments, option, readArguments } from './arguments';

/** How many of each make one round. */
const ROUND: Readonly<Record<Attack, number>> = {
  netlists: 2000,
  shorthand: 500,
  tables: 200,
  boards: 100,
  units: 1000,
  ledgers: 1000,
};
const DEFAULT_MINUTES = 10;

/** `lantern fuzz [--minutes N] [--seed S]`: generated attacks with fresh seeds until the time is up. Gives the exit status. */
export function fuzzCommand(words: readonly string[]): number {
  const args = readArguments(words, ['minutes', 'seed']);
  const minutes = Number(option(args, 'minutes') ?? DEFAULT_MINUTES);
  const first = Number(option(args, 'seed') ?? Date.now() % 1_000_000_000);
  if (!(minutes > 0) || !Number.isInteger(first) || first < 0)
    throw new UnusableArguments('--minutes wants a figure above zero, --seed a whole number.');
  const end = performance.now() + minutes * 60_000;
  const totals = new Map<Attack, { tried: number; sound: number; broken: number }>();
  console.log(`Seeds from ${first} on.`);
  for (let seed = first; performance.now() < end;) {
    for (const attack of Object.keys(ATTACKS) as Attack[]) {
      if (performance.now() >= end) break;
      const { tried, sound, breaches } = fuzz(attack, seed, ROUND[attack]);
      const total = totals.get(attack) ?? { tried: 0, sound: 0, broken: 0 };
      totals.set(attack, {
        tried: total.tried + tried,
        sound: total.sound + sound,
        broken: total.broken + breaches.length,
      });
      for (const { what, seed: at } of breaches.slice(0, 5)) console.log(`${attack}, seed ${at}: ${what}`);
    }
    seed += ROUND.netlists;
  }
  let broken = 0;
  for (const [attack, t] of totals) {
    broken += t.broken;
    console.log(`${attack}: ${t.tried} tried, ${t.sound} taken in, ${t.broken} broke something`);
  }
  return broken === 0 ? 0 : 1;
}
