import { CELL_HEIGHT, CELL_WIDTH } from './form';
import { tendency } from './flow';
import { twins } from './neighbours';
import type { Placement } from './placement';
import type { Scene } from './scene';
import { WireSketch } from './wireSketch';

/** What stands badly costs, in steps of wire. */
const SIGN_UP = 14;
const SIGN_ASIDE = 11;
const UPSIDE_DOWN = 10;
/** A part that lies though its ends are far apart in height, and one that stands though they are not. */
const LYING_DOWN = 12;
const STANDING_UP = 8;
const OUT_OF_ORDER = 400;
/** A stage's middle stands at least so many cells right of that of the one before. */
const LEAST_GAP = 0.5;
const COHESION = 0.5;
const TENDENCY = 4;
/** Parts on the same two nets stand side by side. */
const TWINS_APART = 5;
/** A wire that runs over a symbol has to go round about it. */
const RUN_OVER = 10;
/** Levels nearer than this are alike. */
const ALIKE = 0.12;
const FLAT = 0.25;

/** What a placement costs: wires by the shape they will have, symbols by how they stand, stages by their order. */
export class Energy {
  readonly sketch: WireSketch;
  private readonly stagesAt: readonly (readonly number[])[];
  /** Which of the scene's ordered pairs each stage is in. */
  private readonly pairsAt: readonly (readonly number[])[];
  private readonly twinsAt: readonly (readonly number[])[];
  /** What each pose of each symbol costs wherever it stands. */
  private readonly standing: readonly (readonly number[])[];
  /** The left and right edge of each pose of each symbol, in steps from its corner. */
  private readonly edges: readonly Int16Array[];
  private readonly wanted: readonly number[];
  private readonly stageCost: Float64Array;
  private readonly stageNow: Float64Array;
  /** Whether what crosses is counted. */
  private counting = false;

  constructor(
    readonly scene: Scene,
    readonly p: Placement,
    taken: Int16Array,
  ) {
    this.sketch = new WireSketch(scene, p, taken);
    this.stagesAt = scene.symbols.map((_, i) => scene.stages.flatMap((s, k) => (s.symbols.includes(i) ? [k] : [])));
    this.pairsAt = scene.stages.map((_, k) => scene.order.flatMap(([a, b], j) => (a === k || b === k ? [j] : [])));
    this.twinsAt = twins(scene);
    this.standing = standingCosts(scene);
    this.edges = scene.symbols.map((s) =>
      Int16Array.from(
        s.poses.flatMap(({ parts }) => [
          Math.min(...parts.map((q) => q.x)),
          Math.max(...parts.map((q) => q.x + q.width)),
        ]),
      ),
    );
    this.wanted = scene.symbols.map((_, i) => tendency(scene.stages[this.stagesAt[i]![0]!]?.kind ?? 'unplaced'));
    this.stageCost = new Float64Array(scene.stages.length);
    this.stageNow = new Float64Array(scene.stages.length);
  }

  /** Takes everything as it stands now: to be asked for before the first change. */
  begin(): void {
    this.sketch.begin();
    this.counting = true;
    this.scene.stages.forEach((_, k) => (this.stageCost[k] = this.stage(k)));
  }

  /**
   * Makes a change of where one or two symbols stand, and takes it back where all costs more than so much more.
   *
   * crossing  what two wires that cross cost; 0 leaves crossings out.
   * most      how much more it may cost.
   */
  try(
    symbols: readonly number[],
    make: () => void,
    undo: () => void,
    crossing: number,
    most: number,
    touched = this.touched(symbols),
  ): void {
    const { sketch } = this;
    const { pieces } = sketch;
    const { nets, stages } = touched;
    if (crossing > 0 && !this.counting) this.begin();
    this.counting = crossing > 0;
    let room = most;
    for (const n of nets) {
      room += sketch.cost(n) + crossing * pieces.crossingsOf(n) + RUN_OVER * pieces.run(n, -1);
    }
    for (const k of stages) room += this.stageCost[k]!;
    for (const i of symbols) room += this.symbol(i) + RUN_OVER * pieces.runOver(i);
    make();
    for (const i of symbols) room -= this.symbol(i) + RUN_OVER * pieces.runOver(i);
    for (const k of stages) room -= this.stageNow[k] = this.stage(k);
    let drawn = 0;
    for (; drawn < nets.length && room >= 0; drawn++) {
      sketch.draw(nets[drawn]!);
      room -= sketch.cost(nets[drawn]!) + RUN_OVER * pieces.run(nets[drawn]!, 0);
    }
    if (room >= 0 && crossing > 0) room -= crossing * pieces.crossings(nets, room / crossing);
    if (room >= 0) {
      for (const k of stages) this.stageCost[k] = this.stageNow[k]!;
      if (crossing > 0) pieces.keep(nets);
    } else {
      while (drawn > 0) pieces.takeBack(nets[--drawn]!);
      undo();
    }
    for (const n of nets) pieces.run(n, 1);
  }

  private touched(symbols: readonly number[]): {
    readonly nets: readonly number[];
    readonly stages: readonly number[];
  } {
    const [i, j] = symbols as [number, number?];
    if (j === undefined) return { nets: this.sketch.netsAt[i]!, stages: this.stagesAt[i]! };
    return {
      nets: [...new Set([...this.sketch.netsAt[i]!, ...this.sketch.netsAt[j]!])],
      stages: [...new Set([...this.stagesAt[i]!, ...this.stagesAt[j]!])],
    };
  }

  /** How a symbol stands: by itself, at what height of the sheet, beside what it is parallel to. */
  private symbol(i: number): number {
    const pose = this.scene.symbols[i]!.poses[this.p.pose[i]!]!;
    let sum = this.standing[i]![this.p.pose[i]!]!;
    sum += TENDENCY * Math.abs(this.p.row[i]! + pose.rows / 2 - this.wanted[i]! * this.p.rows);
    for (const j of this.twinsAt[i]!) {
      const other = this.scene.symbols[j]!.poses[this.p.pose[j]!]!;
      const upright = pose.turn % 2 === 1;
      if (pose.turn !== other.turn) sum += 2 * TWINS_APART;
      sum += TWINS_APART * Math.abs(upright ? this.p.row[i]! - this.p.row[j]! : this.p.col[i]! - this.p.col[j]!);
    }
    return sum;
  }

  /** How far a stage is spread, and how far it stands on the wrong side of those next to it. */
  private stage(k: number): number {
    let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
    for (const i of this.scene.stages[k]!.body) {
      const pose = this.scene.symbols[i]!.poses[this.p.pose[i]!]!;
      const [col, row] = [this.p.col[i]!, this.p.row[i]!];
      if (col < left) left = col;
      if (row < top) top = row;
      if (col + pose.cols > right) right = col + pose.cols;
      if (row + pose.rows > bottom) bottom = row + pose.rows;
    }
    let sum = COHESION * ((right - left) * CELL_WIDTH + (bottom - top) * CELL_HEIGHT);
    for (const j of this.pairsAt[k]!) {
      const [a, b] = this.scene.order[j]!;
      const gap = (this.centre(b) - this.centre(a)) / CELL_WIDTH;
      if (gap < LEAST_GAP) sum += outOfOrder(LEAST_GAP - gap);
    }
    return sum;
  }

  /** The middle of what a stage's symbols take of the sheet, in steps. */
  private centre(k: number): number {
    let left = Infinity;
    let right = -Infinity;
    for (const i of this.scene.stages[k]!.body) {
      const at = this.p.col[i]! * CELL_WIDTH;
      const pose = this.p.pose[i]!;
      if (at + this.edges[i]![2 * pose]! < left) left = at + this.edges[i]![2 * pose]!;
      if (at + this.edges[i]![2 * pose + 1]! > right) right = at + this.edges[i]![2 * pose + 1]!;
    }
    return (left + right) / 2;
  }
}

/** What it costs that a stage stands too far left by so many cells: little is little, so that a row of stages shares it. */
function outOfOrder(short: number): number {
  return short < LEAST_GAP ? OUT_OF_ORDER * (short / LEAST_GAP) ** 2 : OUT_OF_ORDER * (1 + short - LEAST_GAP);
}

/** What each pose of each symbol costs: references look down, what is higher is above. */
function standingCosts(scene: Scene): readonly (readonly number[])[] {
  const level = scene.symbols.map((s) => s.poses[0]!.pins.map(() => 0.5));
  const sign = scene.symbols.map((s) => s.poses[0]!.pins.map(() => false));
  for (const net of scene.nets)
    for (const [i, k] of net.pins) {
      level[i]![k] = net.level;
      sign[i]![k] = net.sign !== null;
    }
  return scene.symbols.map((symbol, i) =>
    symbol.poses.map((pose) => {
      let sum = pose.cost;
      let [high, low] = [-1, 2];
      let [above, below] = [0, 0];
      pose.pins.forEach((pin, k) => {
        if (sign[i]![k]) sum += pin.side === 'up' ? SIGN_UP : pin.side === 'down' ? 0 : SIGN_ASIDE;
        if (pin.side !== 'up' && pin.side !== 'down') return;
        if (level[i]![k]! > high) [high, above] = [level[i]![k]!, pin.y];
        if (level[i]![k]! < low) [low, below] = [level[i]![k]!, pin.y];
      });
      if (high > low + ALIKE && above > below) sum += UPSIDE_DOWN * (0.5 + high - low);
      if (pose.pins.length === 2 && symbol.side !== 'barrier') {
        const drop = Math.abs(level[i]![0]! - level[i]![1]!);
        const grounded = sign[i]!.some((s) => s);
        if (!grounded)
          sum += pose.turn % 2 === 0 ? LYING_DOWN * Math.max(0, drop - FLAT) : STANDING_UP * Math.max(0, FLAT - drop);
      }
      return sum;
    }),
  );
}
