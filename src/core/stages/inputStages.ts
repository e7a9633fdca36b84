import { isElectrolytic, safetyClass, isFuse } from '../part';
import { islandOf, transformerOf } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodesAt } from './cells';
import { cone } from './claims';
import type { Scene } from './claims';
import { diodeClass, farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { isRail, railCapacitors } from './rails';
import type { LineInput } from './rectifiers';

/** Stages of alternating inlets, from the connector to the storage behind the rectifier. */
export function claimLine(scene: Scene, line: LineInput): void {
  const { a, book } = scene;
  const poleOf = (net: string): number => line.poles.findIndex((p) => p.has(net));
  book.addAll(line.connectors, 'mains-input', 0.95, 'where the line comes in');
  const chokes = new Set(a.cores.filter((c) => c.purpose === 'common-mode').flatMap((c) => c.windings));
  for (const b of line.series) {
    if (b.kind === 'fuse' || b.kind === 'switch') book.add(b, 'mains-input', 0.9, 'in series at the inlet');
    else if (b.parts.some(isFuse)) book.add(b, 'mains-input', 0.9, 'a fusible resistor at the inlet');
    else if (b.kind === 'inductor')
      book.add(b, 'emi-filter', 0.95, chokes.has(b) ? 'one winding in each conductor' : 'a choke in the line');
    else if (b.kind === 'resistor' && b.nets.some((n) => isMiddle(a, n)))
      book.add(b, 'bulk', 0.92, 'joins the line with the middle of the storage: it doubles');
    else if (b.kind === 'relay') claimRelay(scene, b, bypasses(a, b) ? 'inrush' : 'mains-input');
    else book.add(b, 'inrush', 0.9, 'limits the charging current of the storage');
  }
  for (const branch of a.graph.branches) {
    const ends = branch.nets.map(poleOf);
    const across = branch.nets.length === 2 && ends[0]! >= 0 && ends[1]! >= 0 && ends[0] !== ends[1];
    const toEarth =
      branch.nets.length === 2 &&
      ends.some((p) => p >= 0) &&
      branch.nets.some((n, i) => ends[i]! < 0 && islandOf(a, n) === undefined);
    if (!across && !toEarth) continue;
    if (branch.kind === 'mov' || (branch.kind === 'diode' && diodeClass(a.board, branch) === 'zener'))
      book.add(branch, 'surge', 0.95, 'clamps surges across the line');
    if (branch.kind === 'capacitor')
      book.add(branch, 'emi-filter', 0.95, across ? 'across the line' : 'from the line to earth');
    if (branch.kind === 'resistor') book.add(branch, 'emi-filter', 0.85, 'empties the capacitor across the line');
    if (branch.kind === 'lamp') book.add(branch, 'indicator', 0.9, 'across the line');
  }
  book.addAll(line.rectifier.branches, 'rectifier', 0.95, 'turns the line into direct current');
  claimEarth(scene, line);
  claimStorage(scene, line);
  claimSideRectifiers(scene, line);
  claimCapacitiveDropper(scene, line);
}

/** A capacitor in series with a conductor of the line that lets a small current through to a zener and a diode. */
function claimCapacitiveDropper({ a, book }: Scene, line: LineInput): void {
  const poles = new Set(line.poles.flatMap((p) => [...p]));
  for (const pole of poles)
    for (const { branch: c } of a.graph.on(pole, 'capacitor')) {
      if (poles.has(farEnd(c, pole))) continue;
      const seen = new Set([farEnd(c, pole)]);
      const found = new Set<Branch>([c]);
      for (const net of seen)
        for (const { branch } of a.graph.on(net, 'resistor', 'diode', 'capacitor')) {
          const far = farEnd(branch, net);
          if (branch.kind === 'resistor' && branch.value! > 1e3 && !poles.has(far)) continue;
          found.add(branch);
          const onward = branch.kind === 'resistor' || (branch.kind === 'diode' && branch.nets[0] === net);
          if (onward && !poles.has(far) && !a.grounds.has(far) && !isRail(a, far)) seen.add(far);
        }
      const rectifies = [...found].some((b) => b.kind === 'diode' && b.nets.some((n) => isRail(a, n)));
      const carries = c.value! >= 100e-9 && c.nets.every((n) => !a.grounds.has(n));
      if (carries && rectifies)
        book.addAll(found, 'aux-supply', 0.955, 'lets a small current through for the control supply');
    }
}

/** The middle of two storage capacitors in series. */
function isMiddle(a: Anatomy, net: string): boolean {
  return (
    a.graph.on(net, 'capacitor').filter((p) => isElectrolytic(p.branch.parts[0]!) && p.branch.value! >= 10e-6).length >=
    2
  );
}

/** Capacitors from behind the rectifier to an earth that only they and the inlet know. */
function claimEarth({ a, book }: Scene, line: LineInput): void {
  const earths = new Set(line.connectors.flatMap((c) => c.nets).filter((n) => islandOf(a, n) === undefined));
  for (const net of earths)
    for (const { branch } of a.graph.on(net, 'capacitor'))
      book.add(branch, 'emi-filter', 0.9, 'from the line side to earth');
}

/** Diodes that pick the line up beside the main rectifier, and the storage behind them. */
function claimSideRectifiers(scene: Scene, line: LineInput): void {
  const { a, book } = scene;
  const seen = new Set<string>();
  const queue = line.poles.flatMap((pole) => [...pole]).filter((n) => !a.grounds.has(n));
  const why = 'picks the line up beside the main rectifier';
  for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
    for (const d of diodesAt(a, net, 'anode')) {
      const to = d.nets[1]!;
      if (line.rectifier.branches.includes(d) || a.grounds.has(to) || line.rectifier.plus === to) continue;
      book.add(d, 'rectifier', 0.88, why);
      if (seen.has(to)) continue;
      seen.add(to);
      queue.push(to);
      for (const { branch } of a.graph.on(to, 'resistor')) {
        const far = farEnd(branch, to);
        if (branch.value! > INRUSH_OHMS || !isRail(a, far)) continue;
        book.add(branch, 'inrush', 0.86, 'limits the charging current of the storage');
        seen.add(far);
      }
    }
  }
  for (const net of seen) {
    const storage = railCapacitors(a, net).filter((c) => c.value! >= 1e-6);
    book.addAll(storage, 'bulk', 0.86, 'storage behind the rectifier');
  }
}

const INRUSH_OHMS = 150;

/** A contact with a limiting resistor or thermistor beside it. */
function bypasses(a: Anatomy, relay: Branch): boolean {
  return a.graph.between(relay.nets[2]!, relay.nets[3]!, 'resistor', 'ntc', 'lamp').length > 0;
}

/** A relay with what works its coil. */
export function claimRelay(scene: Scene, relay: Branch, kind: 'inrush' | 'mains-input' | 'protection'): void {
  scene.book.add(relay, kind, 0.9, kind === 'inrush' ? 'bypasses the inrush limiter' : 'connects when its coil is fed');
  for (const net of relay.nets.slice(0, 2)) {
    for (const { branch } of scene.a.graph.on(net, 'diode', 'resistor', 'capacitor', 'bjt', 'mosfet')) {
      const quenches = branch.nets.length === 2 && branch.nets.every((n) => relay.nets.slice(0, 2).includes(n));
      const drives = branch.nets.length === 3 && !scene.a.grounds.has(net) && !isRail(scene.a, net);
      if (quenches) scene.book.add(branch, kind, 0.9, "takes the coil's spark");
      if (drives) {
        scene.book.add(branch, kind, 0.9, 'switches the coil');
        scene.book.addAll(
          cone(scene, branch.nets[1]!, (b) => b === branch),
          kind,
          0.78,
          'steers the relay',
        );
      }
    }
  }
}

/** Storage behind a line rectifier: capacitors in one piece or two halves, balance, pi choke, thermistor. */
function claimStorage(scene: Scene, { rectifier }: LineInput): void {
  const { a, book, converters } = scene;
  const { plus, minus } = rectifier;
  const boost = converters.find((c) => c.topology === 'boost-pfc' && c.supply === plus);
  const rails = new Set([plus]);
  const queue = [plus];
  for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
    for (const { branch } of a.graph.on(net, 'inductor', 'ntc', 'fuse', 'resistor')) {
      if (branch.kind === 'inductor' && (transformerOf(a, branch) || boost?.coils.includes(branch))) continue;
      if (branch.kind === 'resistor' && branch.value! > 100) continue;
      const far = farEnd(branch, net);
      if (a.grounds.has(far) || !stores(a, far, minus)) continue;
      book.add(branch, branch.kind === 'inductor' ? 'emi-filter' : 'inrush', 0.85, 'between two storage capacitors');
      for (const beside of a.graph.between(net, far, 'resistor'))
        book.add(beside, 'emi-filter', 0.8, 'damps the choke beside it');
      if (!rails.has(far)) queue.push(far);
      rails.add(far);
    }
  }
  const low = (net: string): boolean => net === minus || a.grounds.has(net);
  claimValleyFill(scene, plus, low);
  for (const rail of rails) {
    for (const { branch } of a.graph.on(rail, 'capacitor')) {
      const far = farEnd(branch, rail);
      const half =
        !low(far) &&
        a.graph.on(far, 'capacitor').some((p) => low(farEnd(p.branch, far)) && isElectrolytic(p.branch.parts[0]!));
      const direct = low(far);
      if (boost && rail === plus) book.add(branch, 'pfc', 0.85, 'input capacitor of the boost stage');
      else if (direct || half)
        book.add(branch, 'bulk', 0.9, direct ? 'storage behind the rectifier' : 'upper half of the storage');
      if (!half) continue;
      for (const c of a.graph.on(far, 'capacitor'))
        if (low(farEnd(c.branch, far))) book.add(c.branch, 'bulk', 0.9, 'lower half of the storage');
      for (const r of a.graph.on(far, 'resistor')) {
        const end = farEnd(r.branch, far);
        if (end === rail || low(end)) book.add(r.branch, 'bulk', 0.9, 'keeps the two halves equal');
      }
    }
  }
}

/** Storage that charges in series through diodes and feeds back in parallel. */
function claimValleyFill({ a, book }: Scene, plus: string, low: (net: string) => boolean): void {
  const end = (net: string): boolean => net === plus || low(net);
  const stores = a.graph.all('capacitor').filter((c) => c.value! >= 1e-6 && c.nets.filter(end).length === 1);
  const inner = (c: Branch): string => c.nets.find((n) => !end(n))!;
  // The upper one is filled from below, the lower one gives upwards.
  const fills = stores.filter((c) =>
    c.nets.includes(plus)
      ? diodesAt(a, inner(c), 'cathode').some((d) => low(d.nets[0]!))
      : diodesAt(a, inner(c), 'anode').some((d) => d.nets[1] === plus),
  );
  if (!fills.some((c) => c.nets.includes(plus)) || !fills.some((c) => c.nets.some(low))) return;
  for (const c of fills) {
    book.add(c, 'bulk', 0.9, 'storage that charges in series with its like');
    for (const { branch } of a.graph.on(inner(c), 'diode', 'resistor')) {
      const far = farEnd(branch, inner(c));
      book.add(branch, 'bulk', 0.88, 'charges the storage in series or lets it feed back');
      if (end(far)) continue;
      for (const next of a.graph.on(far, 'diode', 'resistor'))
        book.add(next.branch, 'bulk', 0.87, 'charges the storage in series');
    }
  }
}

function stores(a: Anatomy, net: string, minus: string): boolean {
  return a.graph
    .on(net, 'capacitor')
    .some((p) => [minus].includes(farEnd(p.branch, net)) || a.grounds.has(farEnd(p.branch, net)));
}

/** Stages of direct-current inlets: back from a converter's supply to the connector. */
export function claimDirectInlet(scene: Scene, supply: string): void {
  const { a, book } = scene;
  const seen = new Set([supply]);
  const queue = [supply];
  const windings = new Set(a.cores.filter((c) => c.purpose === 'transformer').flatMap((c) => c.windings));
  for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
    for (const { branch, pin } of a.graph.on(net)) {
      if (branch.kind === 'connector') book.add(branch, 'connector', 0.9, 'where the supply comes in');
      const next = branch.nets.length === 2 ? branch.nets[1 - pin]! : null;
      if (next === null) continue;
      const shunts = a.grounds.has(next);
      if (shunts) {
        claimAcrossInlet(scene, branch, pin);
        continue;
      }
      const plain = branch.kind === 'diode' && !['led', 'zener'].includes(diodeClass(a.board, branch));
      const limited = branch.kind === 'resistor' && a.graph.between(net, next, 'relay', 'switch').length > 0;
      const beside = besideContact(a, branch, net);
      if (beside) {
        book.add(branch, 'inrush', 0.9, 'limits the charging current of the storage');
        claimRelay(scene, beside, 'inrush');
      }
      const small =
        branch.kind === 'resistor' &&
        branch.value! <= 100 &&
        a.graph.on(next, 'connector').length > 0 &&
        !isRail(a, next);
      const reaches = branch.kind === 'fuse' || (plain && pin === 1) || beside !== null || limited || small;
      const coil =
        branch.kind === 'inductor' && !windings.has(branch) && !scene.converters.some((c) => c.coils.includes(branch));
      if (!reaches && !coil) continue;
      if (scene.converters.some((c) => c.outputs.has(net) && plain)) continue;
      if (!beside)
        book.add(
          branch,
          coil ? 'emi-filter' : 'protection',
          0.85,
          coil
            ? 'a choke in the supply line'
            : branch.kind === 'fuse'
              ? 'fuse in the supply line'
              : 'blocks a supply connected the wrong way round',
        );
      if (seen.has(next)) continue;
      seen.add(next);
      queue.push(next);
    }
  }
}

/** The relay whose contact bypasses a resistor or thermistor here. */
function besideContact(a: Anatomy, branch: Branch, net: string): Branch | null {
  if (branch.kind !== 'resistor' && branch.kind !== 'ntc') return null;
  const far = farEnd(branch, net);
  const relay = a.graph.on(net, 'relay').find((p) => p.pin >= 2 && p.branch.nets[5 - p.pin] === far);
  return relay?.branch ?? null;
}

function claimAcrossInlet(scene: Scene, branch: Branch, pin: number): void {
  const { a, book } = scene;
  if (branch.kind === 'capacitor') {
    const small = safetyClass(branch.parts[0]!) !== null || branch.value! < 0.5e-6;
    book.add(branch, small ? 'emi-filter' : 'bulk', 0.8, 'storage at the inlet');
  }
  if (branch.kind === 'mov') book.add(branch, 'surge', 0.9, 'clamps surges at the inlet');
  if (branch.kind === 'resistor' && branch.value! > 5)
    book.add(branch, 'discharge', 0.6, "empties the inlet's storage");
  if (branch.kind === 'diode' && pin === 1 && diodeClass(a.board, branch) !== 'led')
    book.add(
      branch,
      'protection',
      0.85,
      diodeClass(a.board, branch) === 'zener' ? 'clamps the inlet' : 'shorts a supply connected the wrong way round',
    );
}
