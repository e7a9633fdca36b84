/** How the leads are driven: a current with an open-circuit limit, or a voltage from a stiff source. */
export type LeadDrive =
  | { readonly kind: 'current'; readonly amps: number; readonly limitVolts: number }
  | { readonly kind: 'voltage'; readonly volts: number };

/**
 * What is connected to a network, and what may be assumed of the answer.
 *
 * red, black    nodes of the leads.
 * amps          out of the red lead; siemens: Norton conductance of the source, 0 for a pure current source.
 * clampVolts    volts at which the current source gives way; Infinity for none.
 * mostAmps      the most that can flow anywhere, amperes; mostVolts: the most that can stand anywhere: both or one Infinity.
 * roomVolts     no node stands above this against the black lead, nor below it by more than a hundredth; Infinity: not known.
 * passive       nothing in the network gives power: an ampere anywhere moves the leads no more than one through them does.
 */
export interface Stimulus {
  readonly red: number;
  readonly black: number;
  readonly amps: number;
  readonly siemens: number;
  readonly clampVolts: number;
  readonly mostAmps: number;
  readonly mostVolts: number;
  readonly roomVolts: number;
  readonly passive: boolean;
}

/** Conductance of the source that stands for a stiff voltage, siemens. */
const STIFF_SIEMENS = 100;

/**
 * A cold reading: the leads are the only source, so that nothing carries more than they give and nothing stands outside
 * what they put on the board.
 */
export function coldStimulus(red: number, black: number, drive: LeadDrive): Stimulus {
  const [mostAmps, mostVolts] = drive.kind === 'current' ? [drive.amps, Infinity] : [Infinity, drive.volts];
  const clampVolts = drive.kind === 'current' ? drive.limitVolts : Infinity;
  return {
    red,
    black,
    amps: drive.kind === 'current' ? drive.amps : STIFF_SIEMENS * drive.volts,
    siemens: drive.kind === 'voltage' ? STIFF_SIEMENS : 0,
    clampVolts,
    mostAmps,
    mostVolts,
    roomVolts: Math.min(clampVolts, mostVolts) * 1.01,
    passive: true,
  };
}
