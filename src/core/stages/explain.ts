import { branchesOf } from './converter';
import { writtenNet } from './anatomy';
import type { Anatomy } from './anatomy';
import type { Scene } from './claims';
import type { Converter, Topology } from './converter';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { isRail } from './rails';
import { settledTopology } from './settled';
import { isSupposed } from './supposed';

/** What else a converter may be, and the question whose answer settles it: yes makes it the rival. */
export interface Rival {
  readonly topology: Topology;
  readonly question: string;
}

/** How a converter is explained: by the parts it is made of, how sure, and what speaks beside it. */
export interface Explanation {
  readonly topology: Topology;
  /** A part of the converter that its topology can be set at. */
  readonly ref: string;
  readonly confidence: number;
  readonly rival: Rival | null;
  readonly why: string;
}

/** Sure, when everything that makes a converter has been traced. */
const WHOLE = 0.985;

/** What a converter is and how sure that is: less with each thing that it must have and that is not traced. */
export function explain(scene: Scene, c: Converter): Explanation {
  const parts = branchesOf(c).flatMap((b) => b.parts);
  const ref = parts.find((p) => !isSupposed(p.ref))?.ref ?? '';
  const base = { topology: c.topology, ref, why: c.why };
  if (settledTopology(c) !== null) return { ...base, confidence: 1, rival: null };
  const confidence = doubts(scene, c).reduce((sure, [here, cost]) => (here ? sure * (1 - cost) : sure), WHOLE);
  return { ...base, confidence, rival: rivalOf(scene, c) };
}

/** Things that speak against being sure: whether each is there, and what it costs. */
function doubts(scene: Scene, c: Converter): readonly (readonly [boolean, number])[] {
  const { a } = scene;
  const supposed = c.transistors.filter((t) => isSupposed(t.branch.parts[0]!.ref)).length;
  const coils = c.coils.filter((b) => isSupposed(b.parts[0]!.ref)).length;
  const bridge = c.core === null && c.coils.length === 0;
  const driven = c.ics.length > 0 || c.transistors.some((t) => isDriven(scene, t.control));
  const selfDriven = c.topology === 'royer' || c.topology === 'blocking-oscillator';
  return [
    [supposed > 0, c.transistors.length > 2 ? 0.08 : 0.14],
    [coils > 0, 0.16],
    [c.supply === '' || !isRail(a, c.supply), 0.12],
    [!bridge && c.outputs.size === 0 && c.topology !== 'line-frequency-inverter', 0.14],
    [!driven && !selfDriven, 0.08],
    [selfDriven && c.transistors.length === (c.topology === 'royer' ? 1 : 0), 0.2],
    [c.topology === 'flyback' && !storesBehind(scene, c), 0.14],
    [bridge && c.legs.length !== 3 && scene.missing.length > 0, 0.1],
    [c.legs.length === 2 && bridge && spareDrivers(scene, c), 0.25],
    [c.topology === 'boost' || c.topology === 'synchronous-buck' ? directionUnclear(a, c) : false, 0.12],
    [scene.missing.length > 1, 0.06],
  ];
}

/** Whether something drives a gate net: an integrated circuit, a drive transformer, an opto. */
function isDriven({ a, switches }: Scene, gate: string): boolean {
  const path = [...switches.drives].find(([t]) => t.control === gate)?.[1];
  const nets = [...(path?.nets ?? [gate])];
  return nets.some((n) => a.graph.on(n, 'ic', 'inductor', 'opto').length > 0);
}

/** Whether a winding that is not driven charges a capacitor through its rectifier. */
function storesBehind(scene: Scene, c: Converter): boolean {
  return scene.secondaries.some((s) => s.core === c.core && [...s.rails].some((n) => isRail(scene.a, n)));
}

/** A driver with outputs that lead to no leg: there may be one more. */
function spareDrivers({ pins, switches }: Scene, c: Converter): boolean {
  const driving = [...pins].filter(([, list]) => list.some((f) => f.role === 'BST'));
  const own = driving.filter(([ic]) => c.nodes.some((n) => ic.nets.includes(n)));
  return driving.length > own.length && own.length > 0 && switches.legs.length < driving.length;
}

/** Neither side of a converter that could work both ways leads to a connector through a fuse or a blocking part. */
function directionUnclear(a: Anatomy, c: Converter): boolean {
  const rails = [c.supply, ...c.outputs];
  const fused = (n: string): boolean => a.graph.on(n, 'fuse', 'diode', 'connector').length > 0;
  return c.legs.length > 0 && !rails.some((n) => n !== '' && fused(n));
}

function coilName(c: Converter): string {
  const part: Branch['parts'][number] | undefined = c.coils.flatMap((b) => b.parts).find((p) => !isSupposed(p.ref));
  return part?.ref ?? 'the winding';
}

/** The next best explanation of a converter and what would settle it. */
function rivalOf(scene: Scene, c: Converter): Rival | null {
  const { a } = scene;
  const coil = coilName(c);
  const [node = ''] = c.nodes;
  switch (c.topology) {
    case 'flyback':
      return {
        topology: 'forward',
        question: `Is there a choke between the rectifier behind ${coil} and its capacitor, and a second diode from the return?`,
      };
    case 'forward':
      return {
        topology: 'two-switch-forward',
        question: `Does the other end of ${coil} go to a second switch and not straight to the supply?`,
      };
    case 'two-switch-forward':
      return {
        topology: 'half-bridge',
        question: `Are the two switches in series, with ${coil} at the point between them?`,
      };
    case 'half-bridge':
      return {
        topology: 'full-bridge',
        question: `Does the other end of ${coil} go to a second pair of switches and not to capacitors?`,
      };
    case 'full-bridge':
      return c.core
        ? {
            topology: 'line-frequency-inverter',
            question: `Does the other side of ${coil} leave the board as it is, without a rectifier?`,
          }
        : { topology: 'three-phase-inverter', question: 'Is there a third pair of switches on the same rail?' };
    case 'three-phase-inverter':
      return { topology: 'full-bridge', question: 'Do only two of the three outputs leave the board?' };
    case 'push-pull':
      return {
        topology: 'royer',
        question: `Do windings on the core of ${coil} drive the two switches, with no integrated circuit between?`,
      };
    case 'royer':
      return { topology: 'push-pull', question: 'Does an integrated circuit drive the two switches?' };
    case 'line-frequency-inverter':
      return { topology: 'push-pull', question: `Does a rectifier follow the other side of ${coil}?` };
    case 'blocking-oscillator':
      return {
        topology: 'flyback',
        question: `Does an integrated circuit drive the switch at ${writtenNet(a, node)}?`,
      };
    case 'buck':
    case 'synchronous-buck':
      return {
        topology: 'boost',
        question: `Does power come in at ${writtenNet(a, [...c.outputs][0] ?? node)} and leave at ${writtenNet(a, c.supply)}?`,
      };
    case 'boost':
      return {
        topology: 'synchronous-buck',
        question: `Does power come in at ${writtenNet(a, [...c.outputs][0] ?? node)} and leave at ${writtenNet(a, c.supply)}?`,
      };
    case 'boost-pfc':
      return {
        topology: 'boost',
        question: `Is ${writtenNet(a, c.supply)} a smooth direct voltage and not the rectified line?`,
      };
    case 'buck-boost':
      return { topology: 'flyback', question: `Does another winding on the core of ${coil} feed the output?` };
    default: {
      const far = c.coils[0] ? farEnd(c.coils[0], node) : '';
      return {
        topology: 'boost',
        question: `Does a diode lead from ${writtenNet(a, node)} to a rail above ${writtenNet(a, far)}?`,
      };
    }
  }
}
