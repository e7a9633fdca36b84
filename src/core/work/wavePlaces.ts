import type { PoweredReader } from './readPowered';

/** A place where a scope shows something: what it is, where its tip and its ground go. */
export interface WavePlace {
  readonly what: string;
  readonly red: string;
  readonly black: string;
}

/** Where a scope tells most of a unit at work: switching nodes, gates, current sense, rectifiers, ripple, sawing supply pins. */
export function wavePlaces(reader: PoweredReader): readonly WavePlace[] {
  const { unit, state, hiccup } = reader.operation;
  const { plan } = unit;
  const name = (n: number): string => unit.circuit.nodeNames[n] ?? '';
  const places = new Map<string, WavePlace>();
  const add = (what: string, a: number, b: number): void => {
    const key = `${a} ${b}`;
    if (a >= 0 && b >= 0 && a !== b && !places.has(key) && name(a) !== 'NC')
      places.set(key, { what, red: name(a), black: name(b) });
  };
  unit.cells.forEach((own, i) => {
    if (!own?.result || !state.running.has(i)) return;
    const { converter: c, cell } = own;
    for (const s of c.switches) {
      const [high, low] = [unit.node(s.high), unit.node(s.low)];
      const swings = cell.spots.get(high);
      if (s.side !== 'top' && swings && swings.unknown >= 0) add(`switching node of ${s.refs[0]}`, high, low);
      add(`gate of ${s.refs[0]}`, unit.node(s.control), low);
    }
    const ic = c.controller === null ? undefined : plan.ics.get(c.controller);
    if (ic) add(`current sense of ${ic.ref}`, unit.pin(ic, 'CS'), unit.ground(ic));
    for (const d of cell.diodeDevices) {
      const [anode, cathode] = [d.nodes[0]!, d.nodes[1]!];
      const output = plan.outputs.find(
        (o) => unit.node(o.rail) === cathode || c.outputs.some((n) => unit.node(n) === cathode),
      );
      const back = output ? unit.node(output.return) : -1;
      const swings = cell.spots.get(anode);
      if (d.name.includes('/') || !swings || swings.unknown < 0 || unit.isSteady(anode) || back < 0) continue;
      if (!c.switches.some((s) => s.refs.includes(d.name))) add(`rectifier ${d.name}`, anode, back);
    }
  });
  for (const o of plan.outputs)
    if (o.kind === 'dc') add(`ripple of ${o.rail.toUpperCase()}`, unit.node(o.rail), unit.node(o.return));
  if (hiccup) {
    const ic = plan.ics.get(hiccup.ref);
    if (ic) add(`supply pin of ${ic.ref}`, unit.pin(ic, 'VCC'), unit.ground(ic));
  }
  return [...places.values()].filter((p) => reader.waveform(p.red, p.black) !== null);
}
