import type { Model, Part, Sheets } from '../part';

/** A magnetic coupling between two windings. */
export interface Coupling {
  readonly name: string;
  readonly first: string;
  readonly second: string;
  readonly factor: number;
}

/** The inside of an X part. */
export interface Subcircuit {
  readonly name: string;
  readonly pins: readonly string[];
  readonly parts: readonly Part[];
  readonly couplings: readonly Coupling[];
  /** All its lines as written, `.subckt` and `.ends` included. */
  readonly written: readonly string[];
}

/**
 * One line group of the file a board came from, so that it can be written back as it was.
 *
 * `verbatim` text is kept as it is (comments, blank lines). The others name what stands there; `written` is
 * their text when read, and `canonical` what the writer would have made of it then: while that still holds,
 * the written text is used.
 */
export type LayoutItem =
  | { readonly kind: 'verbatim'; readonly written: string }
  | { readonly kind: 'part' | 'coupling'; readonly name: string; readonly written: string; readonly canonical: string }
  | { readonly kind: 'model' | 'subcircuit'; readonly name: string };

/** What a netlist cannot carry, as `facts.md` lists it. Kept as plain JSON. */
export interface Nameplate {
  readonly input?: string | undefined;
  readonly source?: 'mains' | 'dc' | 'battery' | undefined;
  readonly inputRail?: string | undefined;
  readonly inputReturn?: string | undefined;
  readonly inputMin?: number | undefined;
  readonly inputNominal?: number | undefined;
  readonly inputMax?: number | undefined;
  readonly hertz?: number | undefined;
  readonly outputs?: readonly NameplateOutput[] | undefined;
  readonly auxInputs?:
    | readonly {
        readonly rail: string;
        readonly return: string;
        readonly volts: number;
        readonly voltsMin?: number | undefined;
        readonly voltsMax?: number | undefined;
        readonly source?: string | undefined;
      }[]
    | undefined;
}

export interface NameplateOutput {
  readonly rail?: string | undefined;
  readonly return?: string | undefined;
  readonly volts: number;
  readonly amps: number;
  readonly kind: 'dc' | 'ac' | 'pulse';
  /** Highest that the output may reach, volts; the nets of a three-phase output. */
  readonly voltsMax?: number | undefined;
  readonly rails?: readonly string[] | undefined;
  /** Of an alternating output. */
  readonly hertz?: number | undefined;
  /** The load stands in series with the input, not across these nets. */
  readonly series?: boolean | undefined;
}

/** A traced board: parts on nets, the models and insides they use, and what the file held besides. */
export interface Board {
  readonly title: string;
  readonly parts: readonly Part[];
  readonly couplings: readonly Coupling[];
  /** Keyed by lower-case name. */
  readonly models: ReadonlyMap<string, Model>;
  /** Keyed by lower-case name. */
  readonly subcircuits: ReadonlyMap<string, Subcircuit>;
  readonly layout: readonly LayoutItem[];
  readonly nameplate?: Nameplate;
  readonly facts?: Sheets;
}

/** Net name of a pin that is not connected. */
export const NOT_CONNECTED = 'NC';

/** Nets are compared without case. */
export function netKey(net: string): string {
  return net.toLowerCase();
}

/** What two nets are known by together, whichever comes first. */
export function netPairKey(a: string, b: string): string {
  return [netKey(a), netKey(b)].sort().join(' ');
}

/** All nets of the board in order of first appearance, as first written; `NC` left out. */
export function boardNets(board: Board): readonly string[] {
  const seen = new Map<string, string>();
  for (const part of board.parts) {
    for (const net of part.nets) {
      if (netKey(net) !== 'nc' && !seen.has(netKey(net))) seen.set(netKey(net), net);
    }
  }
  return [...seen.values()];
}

/** The part with this designator, without case, with or without the leading X of the netlist. */
export function findPart(board: Board, ref: string): Part | undefined {
  const wanted = ref.toLowerCase();
  return (
    board.parts.find((p) => p.ref.toLowerCase() === wanted) ??
    (wanted.startsWith('x') ? board.parts.find((p) => p.ref.toLowerCase() === wanted.slice(1)) : undefined)
  );
}

/** Every pin on a net: the parts and the index of the pin that sits there. */
export function pinsOnNet(board: Board, net: string): readonly { readonly part: Part; readonly pin: number }[] {
  const wanted = netKey(net);
  if (wanted === 'nc') return [];
  return board.parts.flatMap((part) => part.nets.flatMap((n, pin) => (netKey(n) === wanted ? [{ part, pin }] : [])));
}

/** A board of which nothing is known yet. */
export const EMPTY_BOARD: Board = {
  title: 'Traced board',
  parts: [],
  couplings: [],
  models: new Map(),
  subcircuits: new Map(),
  layout: [],
};
