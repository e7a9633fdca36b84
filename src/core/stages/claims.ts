import type { Anatomy } from './anatomy';
import type { PowerSwitches } from './cells';
import type { Converter } from './converter';
import type { AmplifierLoop } from './icClasses';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import type { PinFinding } from './pinRoles';
import { isRail } from './rails';
import type { Secondary } from './secondaries';
import { STAGE_KINDS } from './stageKinds';
import type { StageKind } from './stageKinds';

/** A reason to count a branch to a stage, and how strong it is (0 to 1). */
export interface Claim {
  readonly kind: StageKind;
  readonly weight: number;
  readonly why: string;
}

/** Collects claims; a branch goes to the kind with the strongest one. */
export class ClaimBook {
  private readonly claims = new Map<Branch, Claim[]>();

  add(branch: Branch | undefined, kind: StageKind, weight: number, why: string): void {
    if (!branch) return;
    const list = this.claims.get(branch);
    if (list) list.push({ kind, weight, why });
    else this.claims.set(branch, [{ kind, weight, why }]);
  }

  addAll(branches: Iterable<Branch>, kind: StageKind, weight: number, why: string): void {
    for (const branch of branches) this.add(branch, kind, weight, why);
  }

  has(branch: Branch): boolean {
    return this.claims.has(branch);
  }

  /** The strongest claim and the strongest of another kind. */
  best(branch: Branch): { readonly first: Claim; readonly second: Claim | null } | null {
    const sorted = [...(this.claims.get(branch) ?? [])].sort(
      (a, b) => b.weight - a.weight || STAGE_KINDS.indexOf(a.kind) - STAGE_KINDS.indexOf(b.kind),
    );
    const first = sorted[0];
    return first ? { first, second: sorted.find((c) => c.kind !== first.kind) ?? null } : null;
  }
}

/** Everything that the rules of the stages look at. */
export interface Scene {
  readonly a: Anatomy;
  readonly switches: PowerSwitches;
  readonly converters: readonly Converter[];
  readonly secondaries: readonly Secondary[];
  readonly pins: ReadonlyMap<Branch, readonly PinFinding[]>;
  /** What is supposed to be there and not traced, a sentence each. */
  readonly missing: readonly string[];
  readonly loops: ReadonlyMap<Branch, readonly AmplifierLoop[]>;
  readonly book: ClaimBook;
}

/** The role of an IC's pin on a net, or null. */
export function roleAt(scene: Scene, ic: Branch, net: string): string | null {
  const findings = scene.pins.get(ic);
  const i = ic.nets.indexOf(net);
  return i < 0 ? null : (findings?.[i]?.role ?? null);
}

/** Nets where a signal path ends: grounds, rails, switching nodes, ends of windings, outputs. */
export function isEdge(scene: Scene, net: string): boolean {
  const { a } = scene;
  return (
    a.grounds.has(net) ||
    isRail(a, net) ||
    scene.converters.some((c) => c.nodes.includes(net) || c.supply === net || c.outputs.has(net)) ||
    scene.secondaries.some((s) => s.rails.has(net)) ||
    a.lines.some((l) => l.poles.some((p) => p.has(net))) ||
    a.graph.on(net, 'triac').some((p) => p.pin < 2) ||
    a.graph.on(net, 'inductor').length > 0
  );
}

/**
 * The signal network that ends in a net: resistors, capacitors, diodes, thermistors, transistors, optos and
 * references reached without crossing an edge or another IC's pin.
 */
export function cone(scene: Scene, start: string, skip: (b: Branch) => boolean = () => false): readonly Branch[] {
  const { graph } = scene.a;
  const found = new Set<Branch>();
  const seen = new Set([start]);
  const queue = [start];
  const visit = (net: string): void => {
    if (seen.has(net) || isEdge(scene, net) || graph.on(net, 'ic').some((p) => p.branch.nets.length > 2)) return;
    seen.add(net);
    queue.push(net);
  };
  for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
    for (const { branch, pin } of graph.on(net)) {
      if (skip(branch)) continue;
      switch (branch.kind) {
        case 'resistor':
        case 'capacitor':
        case 'diode':
        case 'ntc':
        case 'lamp':
          found.add(branch);
          visit(farEnd(branch, net));
          break;
        case 'ic':
          if (branch.nets.length > 2) break;
          found.add(branch);
          visit(farEnd(branch, net));
          break;
        case 'opto':
          // One whose LED shares the current does something else.
          if (pin >= 2) found.add(branch);
          if (pin >= 2) for (const n of branch.nets.slice(0, 2)) visit(n);
          else visit(branch.nets[1 - pin]!);
          break;
        case 'shunt-reference':
          found.add(branch);
          for (const n of branch.nets) visit(n);
          break;
        case 'bjt':
        case 'mosfet':
          if (scene.switches.drives.has(scene.a.transistors.find((t) => t.branch === branch)!)) break;
          found.add(branch);
          for (const n of branch.nets) visit(n);
          break;
        default:
          break;
      }
    }
  }
  return [...found];
}
