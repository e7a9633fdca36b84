/**
 * How parts fail: per kind of part its modes, the share of each, and the grid of values a drift or a leak is tried at.
 *
 * This is the one editable place for it. `share` is relative within the kind; the weight of the kind itself stands in
 * `priors.ts`. Modes are written in the fault notation without the designator; `x` values multiply the part's own.
 * Source of the shares: the failure counts of engine.md section 7, filled up by the trade's experience.
 */
export interface FaultMode {
  readonly mode: string;
  readonly share: number;
  readonly why: string;
}

/** Kinds of part as failure statistics tell them apart; finer than part kinds. */
export type FailureKind =
  | 'electrolytic'
  | 'small-capacitor'
  | 'safety-capacitor'
  | 'high-resistor'
  | 'low-resistor'
  | 'winding'
  | 'power-rectifier'
  | 'small-diode'
  | 'zener'
  | 'led'
  | 'bjt'
  | 'switch-transistor'
  | 'bridge'
  | 'fuse'
  | 'ntc'
  | 'mov'
  | 'opto-or-reference'
  | 'regulator'
  | 'relay'
  | 'contact'
  | 'triac'
  | 'ic';

export const FAULT_MODES = {
  electrolytic: [
    { mode: 'esr=x20', share: 14, why: 'dried out' },
    { mode: 'value=x0.2', share: 7, why: 'lost capacity' },
    { mode: 'short', share: 3, why: 'oxide punctured' },
    { mode: 'leak=1k', share: 2, why: 'oxide leaking' },
    { mode: 'leak=47', share: 1, why: 'oxide leaking hard' },
    { mode: 'open', share: 1, why: 'lead corroded off the foil' },
  ],
  'small-capacitor': [
    { mode: 'short', share: 5, why: 'cracked ceramic' },
    { mode: 'leak=220', share: 2, why: 'cracked ceramic, moist' },
    { mode: 'leak=4.7k', share: 1, why: 'moist' },
    { mode: 'open', share: 3, why: 'cracked off its end' },
    { mode: 'value=x0.2', share: 1, why: 'lost capacity' },
    { mode: 'esr=x20', share: 0.2, why: 'corroded end contact' },
  ],
  'safety-capacitor': [
    { mode: 'value=x0.2', share: 5, why: 'film eaten away by self-healing' },
    { mode: 'open', share: 1, why: 'end contact lost' },
    { mode: 'short', share: 1, why: 'film punctured' },
    { mode: 'leak=4.7k', share: 0.5, why: 'film carbonised' },
    { mode: 'esr=x20', share: 0.2, why: 'corroded end contact' },
  ],
  'high-resistor': [
    { mode: 'open', share: 6, why: 'high-ohm resistors on high voltage go open' },
    { mode: 'value=x3', share: 3, why: 'or high' },
    { mode: 'value=x0.33', share: 0.5, why: 'seldom low: track carbonised, wet' },
    { mode: 'short', share: 0.1, why: 'solder bridge' },
  ],
  'low-resistor': [
    { mode: 'open', share: 6, why: 'burnt' },
    { mode: 'value=x3', share: 2, why: 'cooked high' },
    { mode: 'value=x0.33', share: 0.6, why: 'cooked low' },
    { mode: 'short', share: 0.1, why: 'solder bridge' },
  ],
  winding: [
    { mode: 'open', share: 5, why: 'wire broken or burnt, cracked joint' },
    { mode: 'short', share: 2, why: 'turns shorted end to end' },
    { mode: 'value=x0.2', share: 3, why: 'turns shorted' },
  ],
  'power-rectifier': [
    { mode: 'short', share: 8, why: 'rectifiers fail short' },
    { mode: 'open', share: 2, why: 'bond wire or joint' },
    { mode: 'leak=470', share: 1, why: 'junction damaged' },
    { mode: 'leak=4.7k', share: 0.5, why: 'junction leaking' },
  ],
  'small-diode': [
    { mode: 'short', share: 5, why: 'junction punched through' },
    { mode: 'open', share: 4, why: 'bond or joint' },
    { mode: 'leak=470', share: 1, why: 'junction damaged' },
    { mode: 'leak=4.7k', share: 0.5, why: 'junction leaking' },
  ],
  zener: [
    { mode: 'short', share: 7, why: 'took an overvoltage' },
    { mode: 'open', share: 2, why: 'burnt open' },
    { mode: 'leak=470', share: 1, why: 'junction damaged' },
    { mode: 'leak=4.7k', share: 0.5, why: 'junction leaking' },
  ],
  led: [
    { mode: 'open', share: 6, why: 'bond wire' },
    { mode: 'short', share: 2, why: 'surge' },
    { mode: 'leak=1k', share: 0.3, why: 'junction damaged' },
  ],
  bjt: [
    { mode: 'short(c,e)', share: 5, why: 'second breakdown' },
    { mode: 'short(c,b)', share: 2, why: 'collector junction punched through' },
    { mode: 'short(b,e)', share: 2, why: 'base junction avalanched' },
    { mode: 'short', share: 1, why: 'all shorted' },
    { mode: 'b:open', share: 1, why: 'bond wire' },
    { mode: 'open', share: 2, why: 'burnt open' },
    { mode: 'e:open', share: 0.5, why: 'bond wire' },
    { mode: 'c:open', share: 0.5, why: 'bond wire' },
    { mode: 'leak(c,e)=1k', share: 0.5, why: 'junction damaged' },
  ],
  'switch-transistor': [
    { mode: 'short(d,s)', share: 8, why: 'over-voltage or over-current' },
    { mode: 'short', share: 5, why: 'gate punched through as well' },
    { mode: 'short(g,s)', share: 1.5, why: 'gate oxide' },
    { mode: 'short(d,g)', share: 1.5, why: 'gate oxide' },
    { mode: 'leak(g,s)=470', share: 1, why: 'gate oxide damaged' },
    { mode: 'leak(d,s)=1k', share: 0.5, why: 'drain leaking' },
    { mode: 's:open', share: 0.5, why: 'source joint or bond wire' },
    { mode: 'open', share: 0.5, why: 'burst open' },
    { mode: 'd:open', share: 0.3, why: 'drain joint' },
    { mode: 'g:open', share: 0.3, why: 'gate joint' },
  ],
  bridge: [
    { mode: 'short(ac1,plus)', share: 3, why: 'one leg shorted' },
    { mode: 'short(ac2,plus)', share: 3, why: 'one leg shorted' },
    { mode: 'short(ac1,minus)', share: 3, why: 'one leg shorted' },
    { mode: 'short(ac2,minus)', share: 3, why: 'one leg shorted' },
    { mode: 'short(ac1,ac2)', share: 0.5, why: 'inlet side shorted' },
    { mode: 'short(plus,minus)', share: 0.5, why: 'output side shorted' },
    { mode: 'short', share: 1, why: 'burst' },
    { mode: 'ac1:open', share: 0.5, why: 'joint' },
    { mode: 'ac2:open', share: 0.5, why: 'joint' },
    { mode: 'plus:open', share: 0.5, why: 'joint' },
    { mode: 'minus:open', share: 0.5, why: 'joint' },
    { mode: 'open', share: 0.1, why: 'burst open' },
  ],
  fuse: [{ mode: 'open', share: 1, why: 'blown' }],
  ntc: [
    { mode: 'open', share: 8, why: 'cracked by inrush' },
    { mode: 'short', share: 1, why: 'burst and fused' },
  ],
  mov: [
    { mode: 'short', share: 6, why: 'took a surge' },
    { mode: 'leak=1k', share: 2, why: 'worn by surges' },
    { mode: 'leak=22k', share: 0.5, why: 'worn by surges' },
  ],
  'opto-or-reference': [
    { mode: 'PIN:open', share: 4, why: 'LED or joint open' },
    { mode: 'PAIR:short', share: 3, why: 'output or reference shorted' },
    { mode: 'open', share: 0.5, why: 'off the board' },
    { mode: 'short', share: 0.3, why: 'burst' },
  ],
  regulator: [
    { mode: 'PAIR:short', share: 5, why: 'pass element shorted' },
    { mode: 'PIN:open', share: 2, why: 'joint' },
    { mode: 'open', share: 1, why: 'dead' },
  ],
  relay: [
    { mode: 'coil1:open', share: 4, why: 'coil open' },
    { mode: 'short(com,no)', share: 4, why: 'contact welded' },
    { mode: 'short(coil1,coil2)', share: 1, why: 'coil turns shorted' },
  ],
  contact: [
    { mode: 'open', share: 8, why: 'worn contact or broken joint' },
    { mode: 'short', share: 0.2, why: 'welded' },
  ],
  triac: [
    { mode: 'short(mt1,mt2)', share: 6, why: 'over-current' },
    { mode: 'short(gate,mt1)', share: 1, why: 'gate destroyed' },
    { mode: 'gate:open', share: 1, why: 'gate bond' },
    { mode: 'open', share: 1, why: 'burst open' },
    { mode: 'short', share: 0.5, why: 'all shorted' },
  ],
  ic: [
    { mode: 'REFPAIR:short', share: 5, why: 'supply or output pin shorted to ground' },
    { mode: 'REFPAIR:leak=150', share: 3, why: 'pin leaking to ground' },
    { mode: 'REFPAIR:leak=1k', share: 1, why: 'pin leaking to ground' },
    { mode: 'PAIR:short', share: 1, why: 'two pins joined inside' },
    { mode: 'PIN:open', share: 0.5, why: 'joint or bond wire' },
    { mode: 'open', share: 0.5, why: 'off the board' },
  ],
} as const satisfies Record<FailureKind, readonly FaultMode[]>;
