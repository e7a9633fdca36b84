/** What a net is by the pins it is known to hold. */
export const NET_CLASSES = [
  'ground',
  'high',
  'rail',
  'line',
  'gate',
  'base',
  'switch',
  'winding',
  'power',
  'opto',
  'pin',
  'diode',
  'bypass',
  'none',
] as const;
export type NetClass = (typeof NET_CLASSES)[number];

const SIGNS: readonly (readonly [NetClass, RegExp])[] = [
  ['ground', /^(C (bulk|electrolytic) minus|B minus)$/u],
  ['high', /^(C bulk plus|B plus)$/u],
  ['rail', /^(C electrolytic plus|regulator (in|out))$/u],
  ['line', /^(C X|L pair|mov|B ac|fuse|ntc)$/u],
  ['gate', /^mosfet g$/u],
  ['base', /^bjt b$/u],
];
const POWER = /^(mosfet [ds]|bjt [ce])$/u;
const REST: readonly (readonly [NetClass, RegExp])[] = [
  ['opto', /^(opto|shunt-reference)/u],
  ['pin', /^U /u],
  ['diode', /^D /u],
  ['bypass', /^C bypass$/u],
];

/** The class of a net from the types of its pins, the telling ones first. */
export function netClass(types: ReadonlySet<string>): NetClass {
  const has = (sign: RegExp): boolean => [...types].some((t) => sign.test(t));
  for (const [name, sign] of SIGNS) if (has(sign)) return name;
  if (types.has('L winding') || types.has('L choke')) return has(POWER) ? 'switch' : 'winding';
  if (has(POWER)) return 'power';
  for (const [name, sign] of REST) if (has(sign)) return name;
  return 'none';
}
