import { seededRandom } from '../quantity';
import type { Random } from '../quantity';
import { tendency } from './flow';
import { Energy } from './energy';
import { cells, columnsFor } from './placement';
import type { Placement } from './placement';
import type { Scene } from './scene';

/** How warm it begins and ends: steps of wire that are given away for a try. */
const WARM = 70;
const COLD = 0.4;
/** What a crossing costs, and the share of the tries before they count. */
const CROSSING = 30;
const ROUGH = 0.4;
/** Tries for each symbol that comes to a sheet. */
const FITTING = 800;

/** A sheet with its symbols on it. */
export class Sheet {
  private readonly taken: Int16Array;
  private readonly energy: Energy;
  private readonly random: Random;
  /** The symbols that may be moved. */
  private movable: readonly number[];
  private warmth = 0;
  private crossing = 0;
  private steady = false;

  constructor(
    private readonly scene: Scene,
    private readonly p: Placement,
    seed: number,
  ) {
    this.random = seededRandom(seed);
    this.taken = new Int16Array(p.cols * p.rows).fill(-1);
    this.energy = new Energy(scene, p, this.taken);
    this.movable = scene.symbols.map((_, i) => i);
  }

  /** Every symbol as near as there is room to where its stage belongs; false where there is no room for one. */
  begin(): boolean {
    const { scene, p } = this;
    const stageOf = scene.symbols.map((_, i) => scene.stages.findIndex((k) => k.symbols.includes(i)));
    const rank = (i: number): number => scene.along[stageOf[i]!] ?? 0.5;
    const large = (i: number): number => cells(scene.symbols[i]!.poses[0]!);
    const order = scene.symbols.map((_, i) => i).sort((a, b) => large(b) - large(a) || rank(a) - rank(b));
    for (const i of order) {
      const [from, to] = columnsFor(scene, p, i);
      const pose = scene.symbols[i]!.poses[0]!;
      const kind = scene.stages[stageOf[i]!]?.kind ?? 'unplaced';
      const x = from + rank(i) * (to - from + 1 - pose.cols);
      const y = tendency(kind) * (p.rows - pose.rows);
      if (!this.nearest(i, x, y)) return false;
    }
    return true;
  }

  /** Puts a symbol there in a pose, whatever side it belongs to, if there is room for it. */
  stand(i: number, col: number, row: number, pose: number): boolean {
    const { cols, rows } = this.scene.symbols[i]!.poses[pose]!;
    if (col < 0 || col + cols > this.p.cols || row < 0 || row + rows > this.p.rows) return false;
    if (!this.free(i, col, row, cols, rows)) return false;
    this.put(i, col, row, pose);
    return true;
  }

  /** Puts a symbol as near to a place as there is room; false where there is none. */
  nearest(i: number, x: number, y: number): boolean {
    const [from, to] = columnsFor(this.scene, this.p, i);
    const { cols, rows } = this.scene.symbols[i]!.poses[0]!;
    let best = Infinity;
    let [col, row] = [-1, -1];
    for (let c = from; c + cols <= to + 1; c++)
      for (let r = 0; r + rows <= this.p.rows; r++) {
        const far = Math.abs(c - x) + Math.abs(r - y);
        if (far < best && this.free(i, c, r, cols, rows)) [best, col, row] = [far, c, r];
      }
    if (col < 0) return false;
    this.put(i, col, row, 0);
    return true;
  }

  private free(i: number, col: number, row: number, cols: number, rows: number): boolean {
    for (let c = col; c < col + cols; c++)
      for (let r = row; r < row + rows; r++) {
        const there = this.taken[r * this.p.cols + c]!;
        if (there >= 0 && there !== i) return false;
      }
    return true;
  }

  private mark(i: number, as: number): void {
    const { cols, rows } = this.scene.symbols[i]!.poses[this.p.pose[i]!]!;
    for (let c = 0; c < cols; c++)
      for (let r = 0; r < rows; r++) this.taken[(this.p.row[i]! + r) * this.p.cols + this.p.col[i]! + c] = as;
  }

  private put(i: number, col: number, row: number, pose: number): void {
    if (this.p.col[i]! >= 0) this.mark(i, -1);
    this.p.col[i] = col;
    this.p.row[i] = row;
    this.p.pose[i] = pose;
    this.mark(i, i);
  }

  /** Many small changes, fewer and fewer of them for the worse; crossings count once things have found their region. */
  anneal(tries: number): void {
    this.energy.begin();
    for (let t = 0; t < tries; t++) {
      this.warmth = WARM * (COLD / WARM) ** (t / tries);
      this.crossing = t > tries * ROUGH ? CROSSING : 0;
      this.attempt(1 - t / tries);
    }
    this.warmth = 0;
    for (let t = 0; t < tries / 8; t++) this.attempt(0.05);
  }

  /** Moves these alone to where they cost the least; those they would change places with stay. */
  fit(symbols: readonly number[]): void {
    this.movable = symbols;
    this.steady = true;
    this.energy.begin();
    this.crossing = CROSSING;
    for (let t = 0; t < FITTING * symbols.length; t++) {
      this.warmth = WARM * 0.2 * (COLD / WARM) ** (t / (FITTING * symbols.length));
      this.attempt(0.5);
    }
    this.warmth = 0;
    for (let t = 0; t < (FITTING / 4) * symbols.length; t++) this.attempt(0.1);
  }

  private attempt(reach: number): void {
    const { scene, p, random } = this;
    const i = this.movable[Math.floor(random() * this.movable.length)]!;
    const symbol = scene.symbols[i]!;
    const what = random();
    if (symbol.seats.length > 0 && what < 0.5) {
      this.changeSeats(i);
      return;
    }
    if (what < 0.2) {
      const pose = Math.floor(random() * symbol.poses.length);
      if (pose !== p.pose[i]) this.change(i, p.col[i]!, p.row[i]!, pose);
      return;
    }
    const [from, to] = columnsFor(scene, p, i);
    const pose = random() < 0.25 ? Math.floor(random() * symbol.poses.length) : p.pose[i]!;
    const { cols, rows } = symbol.poses[pose]!;
    let [x, y] = [p.col[i]!, p.row[i]!];
    if (what < 0.75 || this.energy.sketch.netsAt[i]!.length === 0) {
      const far = Math.max(1, reach * p.cols * 0.6);
      x += Math.round((random() * 2 - 1) * far);
      y += Math.round((random() * 2 - 1) * Math.max(1, reach * p.rows * 0.6));
    } else {
      // Beside something it is joined to.
      const nets = this.energy.sketch.netsAt[i]!;
      const { pins } = scene.nets[nets[Math.floor(random() * nets.length)]!]!;
      const [j] = pins[Math.floor(random() * pins.length)]!;
      x = p.col[j]! + Math.round((random() * 2 - 1) * 1.6);
      y = p.row[j]! + Math.round((random() * 2 - 1) * 1.6);
    }
    x = Math.min(to + 1 - cols, Math.max(from, x));
    y = Math.min(p.rows - rows, Math.max(0, y));
    if (x === p.col[i] && y === p.row[i] && pose === p.pose[i]) return;
    this.change(i, x, y, pose);
  }

  /** Two pins of an IC change places. */
  private changeSeats(i: number): void {
    const { scene, random, energy } = this;
    const { seats } = scene.symbols[i]!;
    const group = seats[Math.floor(random() * seats.length)]!;
    const k = group[Math.floor(random() * group.length)]!;
    const l = group[Math.floor(random() * group.length)]!;
    if (k === l) return;
    const swap = (): void => energy.sketch.swap(i, k, l);
    const touched = { nets: energy.sketch.netsAtPins(i, k, l), stages: [] };
    energy.try([], swap, swap, this.crossing, this.most(), touched);
  }

  /** Puts a symbol there, or changes places with what stands there; takes it back where it costs too much. */
  private change(i: number, col: number, row: number, pose: number): void {
    const { scene, p, energy } = this;
    const { cols, rows } = scene.symbols[i]!.poses[pose]!;
    if (this.free(i, col, row, cols, rows)) {
      const [c, r, o] = [p.col[i]!, p.row[i]!, p.pose[i]!];
      energy.try(
        [i],
        () => this.put(i, col, row, pose),
        () => this.put(i, c, r, o),
        this.crossing,
        this.most(),
      );
      return;
    }
    const j = this.taken[row * p.cols + col]!;
    if (j < 0 || j === i || this.steady) return;
    const own = scene.symbols[i]!.poses[p.pose[i]!]!;
    const other = scene.symbols[j]!.poses[p.pose[j]!]!;
    if (own.cols !== other.cols || own.rows !== other.rows || p.col[j] !== col || p.row[j] !== row) return;
    const [from, to] = columnsFor(scene, p, j);
    if (p.col[i]! < from || p.col[i]! + other.cols > to + 1) return;
    const swap = (): void => this.swap(i, j);
    energy.try([i, j], swap, swap, this.crossing, this.most());
  }

  private swap(i: number, j: number): void {
    const { p } = this;
    [p.col[i], p.col[j]] = [p.col[j]!, p.col[i]!];
    [p.row[i], p.row[j]] = [p.row[j]!, p.row[i]!];
    this.mark(i, i);
    this.mark(j, j);
  }

  /** How much more the next change may cost: the warmer, the more often it is much. */
  private most(): number {
    return this.warmth > 0 ? -this.warmth * Math.log(1 - this.random()) : 0;
  }
}
