/** Units of a drawing: pixels; everything that wires meet lies on multiples of this. */
export const GRID = 10;

/** Quarter turns clockwise. */
export type Turn = 0 | 1 | 2 | 3;

/** A way out of a symbol. */
export type Side = 'left' | 'right' | 'up' | 'down';

/** Where a side looks: one step to the right and down. */
export const STEP_TO: Readonly<Record<Side, readonly [number, number]>> = {
  left: [-1, 0],
  right: [1, 0],
  up: [0, -1],
  down: [0, 1],
};

/** A box by its top left corner, pixels. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface DrawnPin {
  readonly ref: string;
  /** The pin's name, as faults and screens use it. */
  readonly pin: string;
  /** What is written at it: for an IC what it is for, where that is known. */
  readonly label: string;
  /** Its place in the part's list of nets. */
  readonly index: number;
  readonly net: string;
  readonly x: number;
  readonly y: number;
  readonly side: Side;
}

/** One symbol: the part it stands for, or all the windings of a core. */
export interface DrawnSymbol extends Box {
  readonly refs: readonly string[];
  readonly kind: string;
  readonly turn: Turn;
  /** Mirrored left to right before it is turned. */
  readonly flip: boolean;
  readonly pins: readonly DrawnPin[];
}

/** A wire from pin to pin, to a name or to where it joins another of its net: right-angled. */
export interface DrawnWire {
  readonly net: string;
  readonly points: readonly (readonly [number, number])[];
}

/** A net written instead of drawn: by its name, or by the sign of its island's reference. */
export interface DrawnName extends Box {
  readonly net: string;
  /** Number of the island whose reference it is, by its own sign; null for a name in letters. */
  readonly sign: number | null;
  /** Where the wire or the pin meets it, and to which side of that it lies. */
  readonly at: readonly [number, number];
  readonly side: Side;
}

export interface DrawnText extends Box {
  /** The designator it belongs to. */
  readonly of: string;
  readonly text: string;
}

export interface DrawnStage extends Box {
  readonly kind: string;
  /** What is tinted behind its symbols: one band where they stand together. */
  readonly bands: readonly Box[];
}

/** A rail's name and what it stands at, written at one of its wires. */
export interface DrawnRail extends Box {
  readonly net: string;
  readonly text: string;
}

/** A board as it is drawn on one sheet. */
export interface Drawing {
  readonly grid: number;
  readonly width: number;
  readonly height: number;
  readonly symbols: readonly DrawnSymbol[];
  readonly wires: readonly DrawnWire[];
  readonly names: readonly DrawnName[];
  readonly texts: readonly DrawnText[];
  readonly rails: readonly DrawnRail[];
  readonly stages: readonly DrawnStage[];
  readonly barriers: readonly { readonly points: readonly (readonly [number, number])[] }[];
}
