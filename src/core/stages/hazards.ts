import { netKey } from '../circuit';
import { marking, partFigure } from '../part';
import type { Anatomy } from './anatomy';
import type { Scene } from './claims';
import type { GalvanicIsland } from './islands';
import { farEnd, ratedVolts } from './partGraph';
import type { Branch } from './partGraph';
import { isRail, railCapacitors } from './rails';

export type IslandHazard = 'mains' | 'hv' | 'battery' | 'elv';

/** Above this printed voltage a storing capacitor may hold more than 60 V. */
const ELV_CAPACITOR_VOLTS = 80;
/** Below this a rectifier's storage is no mains one. */
const MAINS_CAPACITOR_VOLTS = 100;
const ELV_VOLTS = 60;
/** Nominal voltages that batteries and cells come in. */
const BATTERY_VOLTS = ['3.2', '3.6', '3.7', '6', '7.2', '7.4', '11.1', '12', '24', '36', '48'];

/** The worst hazard that applies to an island. */
export function hazardOf(scene: Scene, island: GalvanicIsland): IslandHazard {
  if (isMains(scene, island)) return 'mains';
  const limit = Math.max(ELV_CAPACITOR_VOLTS, Math.min(ELV_VOLTS, batteryVolts(scene, island)) * BATTERY_MARGIN);
  if (storedVolts(scene, island) > limit || windingVolts(scene, island) > ELV_VOLTS) return 'hv';
  return hasBattery(scene, island) ? 'battery' : 'elv';
}

function isMains({ a }: Scene, island: GalvanicIsland): boolean {
  const plate = a.board.nameplate;
  if (plate?.source && plate.inputRail !== undefined)
    return plate.source === 'mains' && island.nets.has(plate.inputRail.toLowerCase());
  const line = a.lines.some((l) => {
    if (![...l.poles].some((pole) => [...pole].some((n) => island.nets.has(n)))) return false;
    const volts = a.graph.on(l.rectifier.plus, 'capacitor').flatMap((p) => ratedVolts(p.branch) ?? []);
    return volts.length === 0 || Math.max(...volts) >= MAINS_CAPACITOR_VOLTS;
  });
  return line || lineParts(a, island);
}

/** Parts that are only found on mains, on an island with a connector and without a rectifier. */
function lineParts(a: Anatomy, island: GalvanicIsland): boolean {
  const inlet = (net: string): boolean => a.graph.on(net, 'connector').length > 0;
  return a.graph.branches.some((b) => {
    if (!b.nets.some((n) => island.nets.has(n))) return false;
    const volts = ratedVolts(b) ?? 0;
    const [first = '', second = ''] = b.nets;
    const reaches = (n: string): boolean => inlet(n) || a.graph.on(n, 'fuse').some((p) => inlet(farEnd(p.branch, n)));
    const near = b.kind === 'fuse' ? reaches(first) || reaches(second) : reaches(first) && reaches(second);
    if (b.kind === 'relay')
      return (
        volts >= 230 &&
        b.nets.slice(2).every((n) => island.nets.has(n) && !isRail(a, n)) &&
        b.nets.slice(2).some(reaches)
      );
    if (b.kind === 'triac') return near && volts >= 400;
    if (b.kind === 'fuse') return near && volts >= 230 && a.rectifiers.length === 0 && a.transistors.length === 0;
    return b.kind === 'mov' && near && volts >= 230;
  });
}

/** Below this a capacitor at its printed voltage stores nothing that matters, joule. */
const STORED_JOULES = 0.05;

/** The highest printed voltage of the capacitors that store energy. */
function storedVolts({ a }: Scene, island: GalvanicIsland): number {
  const stores = [...island.nets].flatMap((net) => railCapacitors(a, net));
  const single = (c: Branch): boolean => c.parts.every((p) => p.nets.every((n) => c.nets.includes(netKey(n))));
  const volts = stores.flatMap((c) => {
    // Several in parallel each tell their own; a chain in series its sum.
    const each = single(c)
      ? c.parts.map((p) => [p.kind === 'capacitor' ? p.value : 0, partFigure(p, 'ratedVolts') ?? 0])
      : [[c.value!, ratedVolts(c) ?? 0]];
    return each.flatMap(([farads, v]) => ((farads! * v! * v!) / 2 >= STORED_JOULES ? [v!] : []));
  });
  return Math.max(0, ...volts);
}

/** Capacitors of a battery's bus are printed with up to this times its voltage. */
const BATTERY_MARGIN = 2.2;

/** The voltage that a battery's connector is printed with; 0 where nothing is. */
function batteryVolts({ a }: Scene, island: GalvanicIsland): number {
  const volts = a.graph.all('connector').flatMap((c) => {
    const print = c.parts.map((p) => marking(p) ?? '').join(' ');
    const figure = /(\d+(?:\.\d+)?)\s*V/iu.exec(print)?.[1];
    return figure !== undefined && BATTERY_PRINT.test(print) && c.nets.some((n) => island.nets.has(n))
      ? [Number(figure)]
      : [];
  });
  return Math.max(0, ...volts);
}

const BATTERY_PRINT = /batt?|cell|li-?ion|accu/iu;

/** Volts that turns ratios give a winding with no capacitor to tell. */
function windingVolts({ a }: Scene, island: GalvanicIsland): number {
  if ([...island.nets].some((net) => railCapacitors(a, net).length > 0)) return 0;
  let worst = 0;
  for (const core of a.cores) {
    if (core.purpose !== 'transformer') continue;
    for (const w of core.windings) {
      if (!island.nets.has(w.nets[0]!)) continue;
      for (const driver of core.windings) {
        if (island.nets.has(driver.nets[0]!)) continue;
        const rail = Math.max(0, ...driver.nets.flatMap((n) => railCapacitors(a, n).map((c) => ratedVolts(c) ?? 0)));
        worst = Math.max(worst, 0.5 * rail * Math.sqrt(w.value! / driver.value!));
      }
    }
  }
  return worst;
}

/** A battery: said by the nameplate, printed at a connector, or guessed from an inlet of a battery's voltage. */
function hasBattery({ a, converters }: Scene, island: GalvanicIsland): boolean {
  const plate = a.board.nameplate;
  const on = (net: string | undefined): boolean => net !== undefined && island.nets.has(net.toLowerCase());
  if (plate?.source === 'battery' && on(plate.inputRail)) return true;
  if (plate?.auxInputs?.some((x) => x.source === 'battery' && on(x.rail))) return true;
  if (plate?.source) return false;
  const made = new Set(converters.flatMap((c) => [...c.outputs]));
  return a.graph.all('connector').some((c) => {
    if (!c.nets.some((n) => island.nets.has(n))) return false;
    const print = c.parts.map((p) => marking(p) ?? '').join(' ');
    // A charger's output too: the battery stands there.
    if (BATTERY_PRINT.test(print)) return true;
    if (c.nets.some((n) => made.has(n))) return false;
    const figure = /^(\d+(?:\.\d+)?)\s*V(?:dc)?$/iu.exec(print)?.[1];
    const range = /^(\d+)\s*-\s*(\d+)\s*V/iu.exec(print);
    const fed = converters.some((k) => island.nets.has(k.supply)) && a.lines.length === 0;
    return (
      fed &&
      ((figure !== undefined && BATTERY_VOLTS.includes(figure)) ||
        (range !== null &&
          range[2] !== undefined &&
          Number(range[2]) / Number(range[1]) <= 2 &&
          BATTERY_VOLTS.some((v) => Number(v) >= Number(range[1]) && Number(v) <= Number(range[2]))))
    );
  });
}
