/**
 * Linked faults: what dies with what. One small table; combinations are made from it for each board.
 *
 * trigger   the role of the part that failed first, and its mode.
 * takes     roles that go with it, each with the share of cases in which it does.
 * Roles are found on the netlist by `partRoles.ts`. Source of the shares: engine.md section 7; a shorted main switch
 * takes the fuse, the sense resistor, the gate resistor and often the controller with it.
 */
export type TriggerRole = 'mov' | 'bridge' | 'bulk' | 'switch' | 'clamp-diode' | 'line-capacitor';
export type TakenRole =
  'fuse' | 'bridge-leg' | 'bridge-rail' | 'sense-resistor' | 'gate-resistor' | 'gate-pin' | 'sense-pin';

export interface LinkedFaultRule {
  readonly trigger: TriggerRole;
  readonly takes: readonly { readonly role: TakenRole; readonly mode: string; readonly share: number }[];
}

export const LINKED_FAULTS: readonly LinkedFaultRule[] = [
  { trigger: 'mov', takes: [{ role: 'fuse', mode: 'open', share: 0.8 }] },
  { trigger: 'line-capacitor', takes: [{ role: 'fuse', mode: 'open', share: 0.8 }] },
  {
    trigger: 'bridge',
    takes: [
      { role: 'fuse', mode: 'open', share: 0.8 },
      { role: 'bridge-leg', mode: 'short', share: 0.15 },
      { role: 'bridge-rail', mode: 'short', share: 0.15 },
    ],
  },
  { trigger: 'bulk', takes: [{ role: 'fuse', mode: 'open', share: 0.7 }] },
  { trigger: 'clamp-diode', takes: [{ role: 'fuse', mode: 'open', share: 0.3 }] },
  {
    trigger: 'switch',
    takes: [
      { role: 'fuse', mode: 'open', share: 0.7 },
      { role: 'sense-resistor', mode: 'open', share: 0.3 },
      { role: 'gate-resistor', mode: 'open', share: 0.2 },
      { role: 'gate-pin', mode: 'leak=150', share: 0.2 },
      { role: 'sense-pin', mode: 'leak=150', share: 0.15 },
    ],
  },
];

/** What is named on screen for each role that was taken along: what to check before power. */
export const TAKEN_ROLE_WORDS: Readonly<Record<TakenRole, string>> = {
  fuse: 'the fuse',
  'bridge-leg': 'the other diode of the same leg',
  'bridge-rail': 'the other diode on the same rail',
  'sense-resistor': 'the current-sense resistor',
  'gate-resistor': 'the gate resistor',
  'gate-pin': "the controller's gate pin",
  'sense-pin': "the controller's sense pin",
};
