import { isFuse, partFigure } from '../part';
import { engineeringParts } from '../quantity';
import { alternating, cycling, feedback, heldByIc, readThere, regulated, regulator, source } from './heldCauses';
import type { Operation } from './operate';
import { OFF, Scene, amps, ohms, own, volts } from './scene';
import type { Cause, Derived, Flow } from './scene';
import { swings, wound } from './woundCauses';

export type { Derived, DerivationStep } from './scene';

/** Steps that a chain of causes may have. */
const MOST_STEPS = 8;
/** Of a node's currents, these do not count. */
const SMALL_SHARE = 0.02;

/** How the mean volts of a net against another one come about on a unit at work. */
export class Derivation {
  private readonly scene: Scene;

  constructor(operation: Operation) {
    this.scene = new Scene(operation);
  }

  /** Steps from a source to the net, the last one with its volts. Nets are names; none where they are not there. */
  of(red: string, black: string): Derived {
    const { unit } = this.scene.operation;
    const [a, b] = [unit.node(red), unit.node(black)];
    if (a < 0 || b < 0) return { steps: [], spread: 0 };
    const ground = this.groundOf(a, b);
    const upper = this.chain(a, ground);
    if (b === ground) return upper;
    const lower = this.chain(b, ground);
    const last = `${red} stands ${volts(Math.abs(this.scene.between(a, b)))} ${this.scene.between(a, b) < 0 ? 'below' : 'above'} ${black}: ${volts(this.scene.between(a, ground))} less ${volts(this.scene.between(b, ground))}`;
    // What both hang on does not part them.
    const told = new Set(upper.steps.map((s) => s.words));
    const common = lower.steps.some((s) => told.has(s.words));
    const spread = common
      ? Math.abs(upper.spread - lower.spread) + OFF.drop * Math.abs(this.scene.between(a, b))
      : Math.hypot(upper.spread, lower.spread);
    return {
      steps: [...upper.steps, ...lower.steps.filter((s) => !told.has(s.words)), { words: last, refs: [] }],
      spread,
    };
  }

  /** The black lead's node where it is a place that volts count from, else the reference of its island. */
  private groundOf(a: number, b: number): number {
    const { unit } = this.scene.operation;
    const { references, outputs, inputs } = unit.plan;
    const grounds = [inputs.return, ...references, ...outputs.map((o) => o.return)].flatMap((n) =>
      n === null ? [] : [unit.node(n)],
    );
    if (grounds.includes(b)) return b;
    return grounds.find((g) => g >= 0 && this.scene.network.joined(g, a)) ?? b;
  }

  /** Follows the volts of a node back to what holds them; gives the steps in the order in which they come about. */
  private chain(node: number, ground: number): Derived {
    const found: Cause[] = [];
    const seen = new Set<number>([ground]);
    let at = node;
    while (found.length < MOST_STEPS && !seen.has(at)) {
      seen.add(at);
      const { step, from } = this.cause(at, ground, seen);
      if (step) found.push(step);
      if (from === null) break;
      at = from;
    }
    found.reverse();
    const spread = found.reduce((sum, c) => Math.hypot(c.spread, c.passes * sum), 0);
    return { steps: found.map(({ words, refs }) => ({ words, refs })), spread };
  }

  /** What gives a node its volts without leaning on another one. */
  private anchored(node: number, ground: number): Cause | null {
    const key = `${node} ${ground}`;
    const known = this.anchors.get(key);
    if (known !== undefined) return known;
    const made = this.anchor(node, ground);
    this.anchors.set(key, made);
    return made;
  }

  private readonly anchors = new Map<string, Cause | null>();

  private anchor(node: number, ground: number): Cause | null {
    const held =
      readThere(this.scene, node, ground) ??
      cycling(this.scene, node, ground) ??
      source(this.scene, node, ground) ??
      alternating(this.scene, node) ??
      feedback(this.scene, node) ??
      regulated(this.scene, node, ground) ??
      heldByIc(this.scene, node);
    // What a regulator makes hangs on its input.
    if (held || regulator(this.scene, node)) return held;
    return wound(this.scene, node) ?? swings(this.scene, node, ground);
  }

  /** What gives a node its volts, and the node that it hangs on in turn. */
  private cause(
    node: number,
    ground: number,
    seen: ReadonlySet<number>,
  ): { readonly step: Cause | null; readonly from: number | null } {
    const held = this.anchored(node, ground);
    if (held) return { step: held, from: null };
    return regulator(this.scene, node) ?? this.divided(node, ground) ?? this.strongest(node, ground, seen);
  }

  /** Between two resistors and nothing else that counts: a divider. */
  private divided(node: number, ground: number): { readonly step: Cause; readonly from: number | null } | null {
    const flows = this.scene.flowsAt(node);
    const most = Math.max(...flows.map((f) => Math.abs(f.amps)), 0);
    if (!(most > 0)) return null;
    const main = flows.filter((f) => Math.abs(f.amps) > SMALL_SHARE * most);
    if (main.length !== 2 || !main.every((f) => f.ohms !== null && f.ohms > 10)) return null;
    const [one, two] = main as [Flow, Flow];
    const [upper, lower] =
      this.scene.between(one.to, ground) >= this.scene.between(two.to, ground) ? [one, two] : [two, one];
    if (upper.to === node || lower.to === node) return null;
    const below = lower.to === ground ? '' : ` on ${this.scene.net[lower.to]}`;
    const [u, l] = [this.scene.between(upper.to, ground), this.scene.between(lower.to, ground)];
    return {
      step: {
        words: `${upper.name} ${ohms(upper.ohms!)} over ${lower.name} ${ohms(lower.ohms!)} divide ${volts(u - l)} from ${this.scene.net[upper.to]}${below}: ${this.scene.net[node]} ${volts(this.scene.between(node, ground))}`,
        refs: [...this.scene.refsOf(upper.name), ...this.scene.refsOf(lower.name)],
        spread:
          Math.abs(this.scene.between(node, lower.to)) *
          Math.SQRT2 *
          Math.max(this.scene.toleranceOf(upper.name), this.scene.toleranceOf(lower.name)),
        passes: u === l ? 1 : Math.abs((this.scene.between(node, ground) - l) / (u - l)),
      },
      from: upper.to,
    };
  }

  /** Of some ways out of a node the one with the least drop, all told, to what holds volts of its own. */
  private nearest(ways: readonly Flow[], node: number, ground: number, seen: ReadonlySet<number>): Flow | undefined {
    if (ways.length < 2) return ways[0];
    const open = ways.map((way) => ({ way, at: way.to, drop: Math.abs(this.scene.between(node, way.to)) }));
    const done = new Set([node, ground, ...seen]);
    while (open.length > 0) {
      const next = open.reduce((best, o) => (o.drop < best.drop ? o : best));
      open.splice(open.indexOf(next), 1);
      if (done.has(next.at)) continue;
      done.add(next.at);
      if (this.anchored(next.at, ground)) return next.way;
      const flows = this.scene.flowsAt(next.at);
      const most = Math.max(...flows.map((f) => Math.abs(f.amps)), 0);
      for (const f of flows) {
        if (done.has(f.to) || Math.abs(f.amps) < SMALL_SHARE * most) continue;
        const drop = next.drop + Math.abs(this.scene.between(next.at, f.to));
        open.push({ way: next.way, at: f.to, drop });
      }
    }
    return [...ways].sort(
      (p, q) => Math.abs(this.scene.between(node, p.to)) - Math.abs(this.scene.between(node, q.to)),
    )[0];
  }

  /** The way to what holds volts of its own, or to the ground where that is nearer. */
  private strongest(
    node: number,
    ground: number,
    seen: ReadonlySet<number>,
  ): { readonly step: Cause | null; readonly from: number | null } {
    const flows = this.scene.flowsAt(node);
    const most = Math.max(...flows.map((f) => Math.abs(f.amps)), 0);
    const toGround = flows.find((f) => f.to === ground && Math.abs(f.amps) >= 0.999 * most && flows.length === 1);
    const ways = flows.filter((f) => !seen.has(f.to) && (Math.abs(f.amps) > SMALL_SHARE * most || most === 0));
    const on = this.nearest(ways, node, ground, seen);
    const v = this.scene.between(node, ground);
    // Nearer to the ground than to anything else: it is tied to it.
    const low = flows.some((f) => f.to === ground) && on && Math.abs(v) < Math.abs(this.scene.between(node, on.to));
    if (!on || low) {
      const lead = flows.filter((f) => f.to === ground).sort((p, q) => Math.abs(q.amps) - Math.abs(p.amps))[0];
      const by = toGround ?? lead;
      const words = by
        ? `${this.scene.net[node]} is tied to ${this.scene.net[ground]} by ${by.name}${by.ohms === null ? '' : ` ${ohms(by.ohms)}`}, ${amps(by.amps)} through it: ${volts(v)}`
        : `Nothing brings ${this.scene.net[node]} any volts`;
      return { step: { words, refs: by ? this.scene.refsOf(by.name) : [], ...own(OFF.drop * v) }, from: null };
    }
    const drop = this.scene.between(on.to, node);
    const how = on.ohms === null ? '' : ` = ${amps(on.amps)} x ${ohms(on.ohms)}`;
    const part = this.scene.operation.unit.plan.board.parts.find((p) => p.ref === on.name);
    const rated = part && isFuse(part) ? partFigure(part, 'ratedAmps') : undefined;
    const fuse = rated === undefined ? '' : ` (made for ${engineeringParts(rated, 'A').figure} A)`;
    return {
      step: {
        words: `${this.scene.net[node]} hangs on ${this.scene.net[on.to]} (${volts(this.scene.between(on.to, ground))}) by ${on.name}${fuse}, ${volts(drop)}${how} across it: ${volts(v)}`,
        refs: this.scene.refsOf(on.name),
        spread: OFF.drop * Math.abs(drop),
        passes: 1,
      },
      from: on.to,
    };
  }
}
