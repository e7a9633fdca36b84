import type { Anatomy } from './anatomy';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { isRail, isReference, isSteady } from './rails';

/** An amplifier inside an IC: what is fed back from its output pin to its inverting one. Nets of the two pins. */
export interface AmplifierLoop {
  readonly input: string;
  readonly output: string;
}

/**
 * The amplifiers of an IC that are closed by parts around it: a resistor, a capacitor or both in series from one pin to
 * another. The input is the pin that something else reaches through a resistor; nothing pulls at the output.
 *
 * power  nets that carry drive or power, which no loop ends on.
 */
export function amplifierLoops(a: Anatomy, ic: Branch, power: ReadonlySet<string>): readonly AmplifierLoop[] {
  const signal = [...new Set(ic.nets)].filter(
    (n) => !a.grounds.has(n) && !power.has(n) && (!isRail(a, n) || filtered(a, n)),
  );
  const found: AmplifierLoop[] = [];
  for (const output of signal) {
    const back = a.graph.on(output, 'resistor', 'capacitor').flatMap((p) => {
      const far = farEnd(p.branch, output);
      if (signal.includes(far)) return [{ parts: [p.branch], far }];
      const onward = a.graph.on(far).filter((q) => q.branch !== p.branch);
      const [next] = onward;
      const plain = next && onward.length === 1 && ['resistor', 'capacitor'].includes(next.branch.kind);
      const end = plain ? farEnd(next.branch, far) : '';
      return plain && signal.includes(end) ? [{ parts: [p.branch, next.branch], far: end }] : [];
    });
    for (const input of new Set(back.map((b) => b.far))) {
      if (input === output) continue;
      const loop = new Set(back.filter((b) => b.far === input).flatMap((b) => b.parts));
      const pulled = a.graph
        .on(output, 'resistor')
        .some(({ branch }) => !loop.has(branch) && isSteady(a, farEnd(branch, output)));
      const reached = a.graph.on(input, 'resistor').some(({ branch }) => !loop.has(branch));
      if (!pulled && reached) found.push({ input, output });
    }
  }
  return found;
}

/** An output held by a capacitor, with nothing on it that takes a current: no reference. */
function filtered(a: Anatomy, net: string): boolean {
  const others = a.graph.on(net).filter((p) => p.branch.kind !== 'ic' && p.branch.kind !== 'capacitor');
  return isReference(a, net) && others.length === 1 && others[0]!.branch.kind === 'resistor';
}
