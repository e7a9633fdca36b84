import type { ProbePoint } from '@/core/diagnose';
import { following } from './following';

const at = (mode: ProbePoint['mode'], red: string, black: string): ProbePoint => ({ mode, red, black });
const plan = [at('diode', 'G', 'DRAIN'), at('ohms', 'G', 'DRAIN'), at('diode', 'DRAIN', 'G'), at('diode', 'SRC', 'G')];

test.each([
  ['of this plan', plan[0]!, [1, 2, 3]],
  ['the same of a plan before it', at('diode', 'G', 'DRAIN'), [1, 2, 3]],
  ['written in other letters', at('diode', 'g', 'Drain'), [1, 2, 3]],
  ['the same place by ohms', at('ohms', 'G', 'DRAIN'), [0, 2, 3]],
  ['the leads the other way round', at('diode', 'DRAIN', 'G'), [0, 1, 3]],
  ['not planned any more', at('esr', 'G', 'DRAIN'), [0, 1, 2, 3]],
] as const)('after a point %s come the others, in their order', (_, point, left) => {
  expect(following(plan, point)).toEqual(left.map((i) => plan[i]));
});
