import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { partFigure } from '../part';
import type { Part } from '../part';
import { NOWHERE, inletNets, outputNets, rectified, spread } from './powerPath';
import type { PoleSeed } from './powerPath';

/**
 * Nets that stand at one potential of the energy's way through a board, as far as a short circuit is concerned: an
 * inlet line, plus or minus of a bus, the middle of two switches, an output rail or its return.
 *
 * seed   the net it grew from, as a key; nets: keys. kind: what it is.
 */
export interface EnergyPole {
  readonly kind: 'line' | 'bus' | 'switched' | 'rail';
  readonly seed: string;
  readonly nets: ReadonlySet<string>;
}

/** From here on a rail's capacitor holds what may hurt, volts rated. */
const HIGH_RAIL_VOLTS = 60;
/** From here on a capacitor stores energy, farad. */
export const STORING_FARADS = 0.1e-6;

/**
 * The poles of every way that energy can take on a board: from each inlet, behind its rectifier, through each power
 * switch, to and from each output (a battery or a dc link gives energy backwards), and every high rail that a
 * winding feeds. Two nets of different poles that a fault joins are a short or leak that matters.
 *
 * Without a nameplate every connector is taken for a place where energy may come in. Parts that are not fitted join
 * nothing. The first pole that reaches a net keeps it.
 */
export function findEnergyPoles(board: Board): readonly EnergyPole[] {
  const poles: EnergyPole[] = [];
  const add = (kind: EnergyPole['kind'], seeds: readonly PoleSeed[]): void => {
    const taken = poles.map((p) => p.nets);
    const fresh = new Map(
      seeds.filter((s) => !taken.some((p) => p.has(netKey(s.net)))).map((s) => [netKey(s.net), s] as const),
    );
    const own = [...fresh.values()];
    spread(board, own, taken).forEach((nets, i) => poles.push({ kind, seed: netKey(own[i]!.net), nets }));
  };
  const still = (net: string): PoleSeed => ({ net, forward: false });
  const inlets = inletNets(board);
  add(
    'line',
    inlets.flatMap((x) => (x.alternating ? [still(x.rail), still(x.return)] : [])),
  );
  const lines = poles.map((p) => p.nets);
  const behind: PoleSeed[] = [];
  for (let i = 0; i < lines.length; i++) {
    for (const other of lines.slice(i + 1)) {
      const { plus, minus } = rectified(board, lines[i] ?? NOWHERE, other);
      if (plus !== null) behind.push({ net: plus, forward: true });
      if (minus !== null) behind.push(still(minus));
    }
  }
  add('bus', [
    ...inlets.flatMap((x) => (x.alternating ? [] : [{ net: x.rail, forward: true }, still(x.return)])),
    ...behind,
  ]);
  add('rail', outlets(board).map(still));
  const followSwitches = (): void => {
    for (let before = -1; before < poles.length;) {
      before = poles.length;
      add('switched', beyondSwitches(board, poles).slice(0, 1).map(still));
    }
  };
  followSwitches();
  add('rail', windingRails(board, poles).map(still));
  add('switched', rectifiedWindings(board, poles).map(still));
  add('rail', otherInlets(board, poles).map(still));
  followSwitches();
  return poles.filter((p) => p.nets.size > 0);
}

/** Rails and returns of the outputs; without a nameplate every pin of a connector of two pins and more. */
function outlets(board: Board): readonly string[] {
  const outputs = outputNets(board).flatMap((o) => [o.rail, o.return]);
  const more = (board.nameplate?.outputs ?? []).flatMap((o) => o.rails ?? []);
  if (outputs.length + more.length > 0 || board.nameplate?.inputRail !== undefined) return [...outputs, ...more];
  return board.parts.flatMap((p) => (p.kind === 'connector' && p.nets.length > 1 ? p.nets.filter(isConnected) : []));
}

const isConnected = (net: string): boolean => netKey(net) !== 'nc';

/** The two nets between which a transistor or thyristor switches a current; null for other parts. */
export function switchedNets(part: Part): readonly [string, string] | null {
  const [first = '', second = '', third = ''] = part.nets.map(netKey);
  if (part.kind === 'mosfet' || part.kind === 'bjt') return [first, third];
  return part.kind === 'triac' ? [first, second] : null;
}

/** Far sides of power switches with one end in a pole: what they switch when it carries a winding or stores energy. */
function beyondSwitches(board: Board, poles: readonly EnergyPole[]): readonly string[] {
  const inPole = (net: string): boolean => poles.some((p) => p.nets.has(net));
  return board.parts.flatMap((part) => {
    const ends = part.fitted ? switchedNets(part) : null;
    if (!ends || inPole(ends[0]) === inPole(ends[1])) return [];
    const far = inPole(ends[0]) ? ends[1] : ends[0];
    return far !== 'nc' && carriesPower(board, part, far, inPole) ? [far] : [];
  });
}

function carriesPower(board: Board, own: Part, net: string, inPole: (net: string) => boolean): boolean {
  return board.parts.some((part) => {
    if (part === own || !part.fitted || !part.nets.some((n) => netKey(n) === net)) return false;
    if (part.kind === 'inductor') return true;
    if (part.kind === 'capacitor')
      return part.value >= STORING_FARADS && (partFigure(part, 'ratedVolts') ?? 0) >= HIGH_RAIL_VOLTS;
    if (part.kind === 'mosfet' || part.kind === 'triac') {
      // The other switch of a leg.
      const ends = switchedNets(part);
      return ends !== null && ends.includes(net) && ends.some((n) => n !== net && inPole(n));
    }
    return false;
  });
}

/** Windings that diodes join to a pole: a shorted rectifier there shorts the winding onto its rail. */
function rectifiedWindings(board: Board, poles: readonly EnergyPole[]): readonly string[] {
  const windings = windingNets(board);
  const inPole = (net: string): boolean => poles.some((p) => p.nets.has(net));
  return board.parts.flatMap((p) => {
    if (!p.fitted || (p.kind !== 'diode' && p.kind !== 'bridge')) return [];
    const nets = p.nets.map(netKey);
    return nets.some(inPole) ? nets.filter((n) => windings.has(n) && !inPole(n)) : [];
  });
}

/** Kinds of part that stand where power goes in or out. */
const POWER_KINDS: readonly Part['kind'][] = ['fuse', 'mov', 'triac', 'relay'];

/** Connector pins beside a fuse, varistor, thyristor or contact that no pole has reached: energy may come in there too. */
function otherInlets(board: Board, poles: readonly EnergyPole[]): readonly string[] {
  const inPole = (net: string): boolean => poles.some((p) => p.nets.has(net));
  const powered = new Set(
    board.parts.flatMap((p) => (p.fitted && POWER_KINDS.includes(p.kind) ? p.nets.map(netKey) : [])),
  );
  return board.parts.flatMap((p) =>
    p.kind === 'connector' && p.nets.length > 1 && p.nets.some((n) => powered.has(netKey(n)))
      ? p.nets.map(netKey).filter((n) => n !== 'nc' && !inPole(n))
      : [],
  );
}

function windingNets(board: Board): ReadonlySet<string> {
  const coupled = new Set(board.couplings.flatMap((k) => [k.first.toLowerCase(), k.second.toLowerCase()]));
  return new Set(
    board.parts.flatMap((p) => (p.kind === 'inductor' && coupled.has(p.ref.toLowerCase()) ? p.nets.map(netKey) : [])),
  );
}

/** Rails of high voltage that diodes feed from windings and that no nameplate names, with their returns. */
function windingRails(board: Board, poles: readonly EnergyPole[]): readonly string[] {
  const windings = windingNets(board);
  const inPole = (net: string): boolean => poles.some((p) => p.nets.has(net));
  const fed = new Set(
    board.parts.flatMap((p) => {
      if (!p.fitted) return [];
      const nets = p.nets.map(netKey);
      if (p.kind === 'diode') return windings.has(nets[0]!) ? [nets[1]!] : windings.has(nets[1]!) ? [nets[0]!] : [];
      return p.kind === 'bridge' && nets.slice(0, 2).some((n) => windings.has(n)) ? nets.slice(2) : [];
    }),
  );
  return board.parts.flatMap((p) => {
    if (
      p.kind !== 'capacitor' ||
      !p.fitted ||
      (partFigure(p, 'ratedVolts') ?? 0) < HIGH_RAIL_VOLTS ||
      p.value < STORING_FARADS
    )
      return [];
    const nets = p.nets.map(netKey);
    return nets.some((n) => fed.has(n)) && !nets.every(inPole) ? nets : [];
  });
}
