import type { BlockKind } from '../part';

/** The reserved X names of the contract, with the parameters that each requires. */
export const RESERVED_BLOCKS: Readonly<
  Record<string, { readonly kind: BlockKind; readonly required: readonly string[] }>
> = {
  fuse: { kind: 'fuse', required: [] },
  switch: { kind: 'switch', required: [] },
  ntc: { kind: 'ntc', required: ['r25'] },
  mov: { kind: 'mov', required: [] },
  bridge: { kind: 'bridge', required: [] },
  opto: { kind: 'opto', required: [] },
  shuntref: { kind: 'shunt-reference', required: [] },
  reg3: { kind: 'regulator', required: [] },
  relay: { kind: 'relay', required: ['rcoil'] },
  lamp: { kind: 'lamp', required: ['r'] },
  triac: { kind: 'triac', required: [] },
  conn: { kind: 'connector', required: [] },
};

/** The netlist name of each reserved kind, for the writer. */
export const BLOCK_NAMES = {
  fuse: 'FUSE',
  switch: 'SWITCH',
  ntc: 'NTC',
  mov: 'MOV',
  bridge: 'BRIDGE',
  opto: 'OPTO',
  'shunt-reference': 'SHUNTREF',
  regulator: 'REG3',
  relay: 'RELAY',
  lamp: 'LAMP',
  triac: 'TRIAC',
  connector: 'CONN',
} as const satisfies Record<BlockKind, string>;

/** Keys whose value is a number. `tol` may be written in percent. */
export const NUMERIC_KEYS: ReadonlySet<string> = new Set([
  'tol',
  'vr',
  'pr',
  'ir',
  'esr',
  'dcr',
  'rp',
  'ctr',
  'vref',
  'r',
  'r25',
  'rcoil',
  'rg',
  'strike',
]);

/** Model types of the contract, the parameters each knows. Others are kept with a warning. */
export const MODEL_PARAMETERS = {
  D: ['is', 'n', 'rs', 'bv', 'ibv', 'cjo'],
  NPN: ['is', 'bf', 'br', 'nf', 'nr'],
  PNP: ['is', 'bf', 'br', 'nf', 'nr'],
  NMOS: ['vto', 'kp', 'ron', 'bodyis', 'bodyn', 'igbt'],
  PMOS: ['vto', 'kp', 'ron', 'bodyis', 'bodyn', 'igbt'],
} as const;
