import { netKey } from '../circuit';
import type { Box, DrawnName, DrawnSymbol, DrawnWire, Side } from './drawing';
import { overlap } from './lettering';
import { Names, signBox } from './naming';
import type { Written } from './naming';
import type { WiredNet } from './router';
import { runs } from './runs';
import type { Scene } from './scene';
import type { WireGrid } from './wireGrid';

/** What the wire to a name may cost: the shorter first. */
const REACHES = [12, 40, 120, 400] as const;
/** What it costs the wire to a name to cross another: names are there to be rid of crossings. */
const NAME_CROSSING = 100;
/** Steps before a pin within which a wire may wall it in. */
const BEFORE = 2;

/** A reference's sign at each of its pins: where the pin looks, else where it touches nothing. */
export function placeSigns(scene: Scene, symbols: readonly DrawnSymbol[]): readonly DrawnName[] {
  const signs = new Map(scene.nets.flatMap((n) => (n.sign === null ? [] : [[n.key, n] as const])));
  const names: DrawnName[] = [];
  for (const pin of symbols.flatMap((s) => s.pins)) {
    const net = signs.get(netKey(pin.net));
    if (!net) continue;
    const sides = [pin.side, ...(['down', 'left', 'right', 'up'] as const).filter((s) => s !== pin.side)];
    const free = (side: Side): boolean => {
      const box = signBox(pin.x, pin.y, side);
      return ![...symbols, ...names].some((t) => overlap(t, box));
    };
    const side = sides.find(free) ?? pin.side;
    names.push({ net: net.name, ...signBox(pin.x, pin.y, side), sign: net.sign, at: [pin.x, pin.y], side });
  }
  return names;
}

/** Where a pin of a net is on the grid, and the way it looks. */
export interface GridPin {
  readonly point: number;
  readonly side: Side;
}

/** Writes names at all that wires do not join, and gives the wires with those to the names. */
export function nameNets(
  scene: Scene,
  grid: WireGrid,
  wired: ReadonlyMap<number, WiredNet>,
  pinsOf: readonly (readonly GridPin[])[],
  taken: readonly Box[],
): { readonly names: readonly DrawnName[]; readonly wires: readonly DrawnWire[] } {
  grid.crossingCost = NAME_CROSSING;
  const writer = new Names(grid, [...taken]);
  const ways = new Map([...wired].map(([n, w]) => [n, [...w.trees.flat()]]));
  const names = new Map<number, DrawnName[]>();
  const freed = new Set<number>();
  let queue = [...wired].flatMap(([n, { trees, lone }]) =>
    scene.nets[n]!.pins.length < 2 || lone.length + trees.length < 2
      ? []
      : // What wires join is named once too: at the first of their points where there is room.
        [...lone.map((at) => [at]), ...trees.map((tree) => spots(grid, tree))].map((places) => ({ n, places })),
  );
  while (queue.length > 0) {
    const { n, places } = queue.shift()!;
    const sideOf = new Map(pinsOf[n]!.map((q) => [q.point, q.side]));
    const written = REACHES.reduce<Written | null>(
      (found, far) =>
        places.reduce<Written | null>(
          (one, at) => one ?? writer.write(n, at, scene.nets[n]!.name, sideOf.get(at) ?? 'up', far),
          found,
        ),
      null,
    );
    if (written) {
      names.set(n, [...(names.get(n) ?? []), written.name]);
      if (written.way.length > 1) ways.get(n)!.push(written.way);
      continue;
    }
    // A pin that is walled in: the wires before it become names, and it is tried again.
    const walls = wallsBefore(grid, n, places[0]!).filter((m) => !freed.has(m));
    for (const m of walls) {
      freed.add(m);
      for (const way of ways.get(m)!) grid.lift(m, way);
      ways.set(m, []);
      for (const name of names.get(m) ?? []) writer.erase(name);
      names.delete(m);
      queue = queue.filter((q) => q.n !== m);
      queue.push(...pinsOf[m]!.map((q) => ({ n: m, places: [q.point] })));
    }
    if (walls.length > 0) queue.unshift({ n, places });
  }
  const wires = [...ways].flatMap(([n, list]) =>
    runs(grid, list).map((points) => ({ net: scene.nets[n]!.name, points })),
  );
  return { names: [...names.values()].flat(), wires };
}

/** The nets whose wires run right before a place. */
function wallsBefore(grid: WireGrid, net: number, at: number): readonly number[] {
  const found = new Set<number>();
  for (const step of [-1, 1, -grid.width, grid.width])
    for (let k = 1; k <= BEFORE; k++)
      for (const m of [grid.across[at + k * step], grid.down[at + k * step]])
        if (m !== undefined && m >= 0 && m !== net) found.add(m);
  return [...found];
}

/** Points of a net's wires where its name may stand, from their middle outwards. */
function spots(grid: WireGrid, ways: readonly (readonly number[])[]): readonly number[] {
  const points = ways
    .flat()
    .filter((i) => grid.pin[i] === -1 && grid.mayStop(grid.across[i]! >= 0 ? grid.across[i]! : grid.down[i]!, i));
  const middle = Math.floor(points.length / 2);
  const order = points.map((at, i) => ({ at, far: Math.abs(i - middle) })).sort((x, y) => x.far - y.far);
  const all = [...order.map((o) => o.at), ...ways.flatMap((w) => [w[0]!, w.at(-1)!])];
  return all.filter((_, i) => i % 2 === 0 || i < 20);
}
