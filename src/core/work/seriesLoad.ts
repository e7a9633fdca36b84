import { netKey } from '../circuit';
import { partFigure } from '../part';
import type { Part } from '../part';
import type { UnitCircuit } from './unitCircuit';
import { loadShare } from './workBoard';

/**
 * Amperes rms of every part in the way of loads that stand in series with the source: from the rail that the nameplate names to
 * its return by fuses, contacts, chokes and thyristors. Two thyristors the other way round share the halves of a sine.
 */
export function seriesAmps(unit: UnitCircuit): ReadonlyMap<string, number> {
  const { plan, condition } = unit;
  const found = new Map<string, number>();
  for (const o of plan.outputs) {
    if (o.series !== true) continue;
    const amps = o.amps * loadShare(condition);
    const way = wayOf(plan.board.parts, o.rail, o.return);
    for (const hop of way)
      for (const p of hop) found.set(p.ref, hop.length === 2 && p.kind === 'triac' ? amps / Math.SQRT2 : amps);
  }
  return found;
}

const LINK_OHMS = 0.1;

function leads(p: Part): boolean {
  if (!p.fitted) return false;
  if (p.kind === 'resistor') return p.value <= LINK_OHMS;
  if (p.kind === 'inductor') return (partFigure(p, 'windingOhms') ?? 0) < 1;
  return p.kind === 'fuse' || p.kind === 'switch' || p.kind === 'triac' || p.kind === 'relay';
}

const endsOf = (p: Part): readonly [string, string] => {
  const [a, b] = p.kind === 'relay' ? [p.nets[2]!, p.nets[3]!] : [p.nets[0]!, p.nets[1]!];
  return [netKey(a), netKey(b)];
};

/** The shortest way between two nets: at each hop the parts side by side. */
function wayOf(parts: readonly Part[], from: string, to: string): readonly (readonly Part[])[] {
  const ways = new Map<string, readonly string[]>([[from, [from]]]);
  const queue = [from];
  const own = parts.filter(leads);
  for (let net = queue.shift(); net !== undefined && !ways.has(to); net = queue.shift())
    for (const p of own) {
      const [a, b] = endsOf(p);
      if (a !== net && b !== net) continue;
      const far = a === net ? b : a;
      if (ways.has(far)) continue;
      ways.set(far, [...ways.get(net)!, far]);
      queue.push(far);
    }
  const nets = ways.get(to) ?? [];
  return nets.slice(1).map((far, i) =>
    own.filter((p) => {
      const [a, b] = endsOf(p);
      return (a === nets[i] && b === far) || (b === nets[i] && a === far);
    }),
  );
}
