/** A line of a symbol, as an SVG path in pixels from the corner of its box as it stands upright. */
export interface Stroke {
  readonly d: string;
  readonly filled?: boolean;
  readonly dashed?: boolean;
  readonly bold?: boolean;
}

/** Letters inside a symbol: their middle, and which way they are set. */
export interface Mark {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly anchor: 'start' | 'middle' | 'end';
}

/** The lines and letters of a symbol, upright. */
export interface Art {
  readonly strokes: readonly Stroke[];
  readonly marks?: readonly Mark[];
}

/** A pin of a symbol as it stands upright, pixels from the corner of its box. */
export interface ArtPin {
  readonly ref: string;
  readonly name: string;
  readonly index: number;
  readonly x: number;
  readonly y: number;
}

/** What a symbol of no fixed shape is drawn from. */
export interface ArtFrame {
  readonly width: number;
  readonly height: number;
  readonly pins: readonly ArtPin[];
}

/** How one kind of symbol is drawn. */
export type Draw = (frame: ArtFrame) => Art;

export const lines = (...d: readonly string[]): Art => ({ strokes: d.map((path) => ({ d: path })) });
