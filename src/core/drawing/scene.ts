import type { Board } from '../circuit';
import type { StageKind, StageMap } from '../stages';
import type { Pose } from './form';
import type { SheetSide } from './sheetSides';

/** One symbol of the sheet: the part it stands for, or the windings of a core. */
export interface Member {
  readonly refs: readonly string[];
  readonly kind: string;
}

/** A block to be placed: what it stands for, how it may stand, where on the sheet it belongs. */
export interface SceneSymbol {
  /** What it is made of: one symbol, or several that always stand together. */
  readonly members: readonly Member[];
  readonly poses: readonly Pose[];
  readonly side: SheetSide;
  /** Groups of pins that may change places with each other: those of an IC on one side, or known of neither. */
  readonly seats: readonly (readonly number[])[];
  /** Indices of the stages its parts belong to; empty for what has none. */
  readonly stages: readonly number[];
}

/** A net to be drawn: its pins as numbers of symbol and pin of that symbol. */
export interface SceneNet {
  readonly key: string;
  readonly name: string;
  readonly pins: readonly (readonly [number, number])[];
  /** The island whose reference it is; null for a net of wires. */
  readonly sign: number | null;
  readonly level: number;
  /** Whether it carries the power. */
  readonly isPower: boolean;
}

/** A board as symbols and nets. */
export interface Scene {
  readonly board: Board;
  readonly map: StageMap;
  readonly symbols: readonly SceneSymbol[];
  readonly nets: readonly SceneNet[];
  readonly stages: readonly {
    readonly kind: StageKind | 'unplaced';
    readonly symbols: readonly number[];
    /** Those of them that say where the stage stands: what stands on the barrier for a transformer, else what does not. */
    readonly body: readonly number[];
  }[];
  /** Pairs of stages that follow each other on the power's way: the second belongs to the right. */
  readonly order: readonly (readonly [number, number])[];
  /** How far along the power's way each stage stands, from 0 to 1; what only hangs on it stands in its middle. */
  readonly along: readonly number[];
  /** Whether the sheet is parted by a barrier. */
  readonly parted: boolean;
}
