import { writtenNet } from './anatomy';
import type { Anatomy } from './anatomy';
import type { Branch } from './partGraph';
import type { Core } from './shapes';
import { SUPPOSED, isSupposed } from './supposed';
import type { Half, Supposed } from './supposed';

function ref(a: Anatomy): string {
  return `${SUPPOSED}${a.board.parts.filter((p) => isSupposed(p.ref)).length + 1}`;
}

const plain = { keys: [], numbers: {}, fitted: true, basis: 'assumed' } as const;

export function transistor({ a }: Half, high: string, gate: string | null, low: string, words: string): Supposed {
  const name = ref(a);
  const nets = [writtenNet(a, high), gate === null ? `${name} gate` : writtenNet(a, gate), writtenNet(a, low)];
  return { part: { ...plain, kind: 'mosfet', ref: name, nets, model: name }, couplings: [], words: named(a, words) };
}

export function diode({ a }: Half, x: string, y: string, words: string): Supposed {
  const name = ref(a);
  const nets = [writtenNet(a, x), writtenNet(a, y)];
  return { part: { ...plain, kind: 'diode', ref: name, nets, model: name }, couplings: [], words: named(a, words) };
}

export function choke({ a }: Half, x: string, y: string, words: string, value = 47e-6): Supposed {
  const nets = [writtenNet(a, x), writtenNet(a, y)];
  return {
    part: { ...plain, kind: 'inductor', ref: ref(a), nets, value, valueText: String(value) },
    couplings: [],
    words: named(a, words),
  };
}

export function winding({ a }: Half, core: Core, x: string, y: string, henries: number, words: string): Supposed {
  const name = ref(a);
  const nets = [writtenNet(a, x), writtenNet(a, y)];
  const first = (core.windings[0] as Branch).parts[0]!.ref;
  return {
    part: { ...plain, kind: 'inductor', ref: name, nets, value: henries, valueText: String(henries) },
    couplings: [{ name: `K ${name}`, first, second: name, factor: 0.99 }],
    words: named(a, words),
  };
}

/** The sentence with nets as they are written. */
function named(a: Anatomy, words: string): string {
  return words.replace(/\S+(?= and the supply\.$|\.$)/u, (key) => writtenNet(a, key));
}
