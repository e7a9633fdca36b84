import { netKey, pinNames } from '../circuit';
import type { Board } from '../circuit';
import { recogniseStages } from '../stages';
import type { StageMap } from '../stages';
import { around, bandsOf } from './bands';
import { GRID, STEP_TO } from './drawing';
import type { Box, DrawnSymbol, Drawing } from './drawing';
import { CELL_HEIGHT, CELL_WIDTH } from './form';
import { measureDrawing } from './measure';
import { letter, lettersOf } from './lettering';
import { nameNets, placeSigns } from './nameNets';
import type { GridPin } from './nameNets';
import type { Placement } from './placement';
import { pinLabels } from './pinLabels';
import { wordsOnWires } from './onWires';
import { railWords } from './rails';
import { FEW_PINS, Router } from './router';
import { readDrawing } from './readDrawing';
import type { Scene } from './scene';
import { resettle, settle } from './settle';
import { standingOf } from './standing';
import type { Standing } from './remembered';
import { WireGrid } from './wireGrid';

/** Steps of the grid around the sheet. */
const MARGIN = 5;
/** What a wire to one more pin may cost, by how many pins its net has. */
const MOST_FEW = 150;
const MOST_MANY = 70;
/** Crossings that a drawing may have for each of its nets, and the share of nets of few pins that may be named for it. */
const CROSSINGS_PER_NET = 0.245;
/** How often a board is placed anew where the drawing is not good: the fewer symbols the more often. And what makes it so. */
const ATTEMPTED = 400;
const LEAST_ATTEMPTS = 2;
const MOST_ATTEMPTS = 14;
const LEAST_WIRED = 0.86;
const MOST_CROSSED = 0.25;
const OUT_OF_ORDER = 1.5;
const SHORT_OF = 250;
const WRONG = 100;
const MAY_BE_NAMED = 0.11;

/** A drawing, and where everything stands in it: what it is drawn from again when something was added. */
export interface Drawn {
  readonly drawing: Drawing;
  readonly standing: Standing;
}

/**
 * Draws a board from what was traced of it. before: where everything stood when it was drawn last; what is still there stays
 * where it was.
 */
export function draw(board: Board, map: StageMap = recogniseStages(board), before?: Standing): Drawn {
  if (before) {
    const known = readDrawing(board, map, before);
    const kept = resettle(known, before);
    if (kept) return { drawing: withRails(board, drawPlaced(known, kept)), standing: standingOf(known, kept) };
  }
  const scene = readDrawing(board, map);
  let best: { readonly drawing: Drawing; readonly p: Placement } | null = null;
  let least = Infinity;
  const attempts = Math.min(MOST_ATTEMPTS, Math.max(LEAST_ATTEMPTS, Math.round(ATTEMPTED / scene.symbols.length)));
  for (let attempt = 1; attempt <= attempts; attempt++) {
    const p = settle(scene, attempt);
    const drawing = drawPlaced(scene, p);
    const faults = faultsOf(drawing) + OUT_OF_ORDER * backwards(scene, drawing);
    if (faults < least) [best, least] = [{ drawing, p }, faults];
    if (faults === 0) break;
  }
  return { drawing: withRails(board, best!.drawing), standing: standingOf(scene, best!.p) };
}

/** What is drawn, with its rails' names and volts where these find room. */
function withRails(board: Board, drawing: Drawing): Drawing {
  return { ...drawing, rails: wordsOnWires(drawing, railWords(board)) };
}

/** What a drawing lacks of what is asked of every one; 0 for one that is good. */
function faultsOf(drawing: Drawing): number {
  const { unreached, overlaps, through, wired, crossingsPerNet } = measureDrawing(drawing);
  const wrong = unreached.length + overlaps.length + through.length;
  return WRONG * wrong + SHORT_OF * (Math.max(0, LEAST_WIRED - wired) + Math.max(0, crossingsPerNet - MOST_CROSSED));
}

/** Pairs of stages of which the second is not right of the first, though the power goes from that to this. */
function backwards({ order }: Scene, { stages }: Drawing): number {
  const centre = (k: number): number => stages[k]!.x + stages[k]!.width / 2;
  return order.filter(([a, b]) => centre(b) <= centre(a)).length;
}

/** Draws what has been placed: letters, then wires around them, then names where no wire goes. */
function drawPlaced(scene: Scene, p: Placement): Drawing {
  const symbols = placedSymbols(scene, p);
  const parts = new Map(scene.board.parts.map((x) => [x.ref, x]));
  const signs = placeSigns(scene, symbols);
  const texts = letter(
    symbols,
    (s) =>
      lettersOf(
        s.refs,
        s.kind,
        s.refs.map((r) => parts.get(r)!),
        (ref) => parts.has(ref),
      ),
    signs,
  );
  const grid = new WireGrid(p.cols * CELL_WIDTH + 2 * MARGIN, p.rows * CELL_HEIGHT + 2 * MARGIN);
  const point = (x: number, y: number): number => grid.at(Math.round(x / GRID), Math.round(y / GRID));
  for (const s of symbols) block(grid, s);
  for (const t of texts) block(grid, { x: t.x + 1, y: t.y + 1, width: t.width - 2, height: t.height - 2 });
  const netOf = new Map(scene.nets.map((n, i) => [n.key, i]));
  const pinsOf = scene.nets.map((): GridPin[] => []);
  for (const s of symbols)
    for (const pin of s.pins) {
      const n = netOf.get(netKey(pin.net));
      const at = point(pin.x, pin.y);
      grid.blocked[at] = 0;
      grid.pin[at] = n ?? 32000;
      if (n === undefined) continue;
      pinsOf[n]!.push({ point: at, side: pin.side });
      const [dx, dy] = STEP_TO[pin.side];
      const door = point(pin.x + dx * GRID, pin.y + dy * GRID);
      if (grid.doorstep[door] === -1) grid.doorstep[door] = n;
    }
  for (const sign of signs) block(grid, sign, point(...sign.at));
  const router = new Router(
    grid,
    scene.nets.flatMap((net, n) =>
      net.sign === null
        ? [
            {
              net: n,
              pins: pinsOf[n]!.map((q) => q.point),
              most: net.pins.length <= FEW_PINS ? MOST_FEW : MOST_MANY,
              isPower: net.isPower,
            },
          ]
        : [],
    ),
  );
  const most = CROSSINGS_PER_NET * scene.nets.length;
  router.wireAll(most);
  const few = scene.nets.filter((n) => n.sign === null && n.pins.length >= 2 && n.pins.length <= FEW_PINS).length;
  router.thin(most, Math.floor(few * MAY_BE_NAMED));
  const { names, wires } = nameNets(scene, grid, router.wired, pinsOf, [...symbols, ...texts, ...signs]);
  return {
    grid: GRID,
    width: grid.width * GRID,
    height: grid.height * GRID,
    symbols,
    wires,
    names: [...signs, ...names],
    texts,
    rails: [],
    stages: stageBoxes(scene, symbols),
    barriers: barrierOf(scene, p, grid),
  };
}

function placedSymbols(scene: Scene, p: Placement): readonly DrawnSymbol[] {
  const parts = new Map(
    scene.board.parts.map((x) => [x.ref, { ...x, names: pinNames(x), labels: pinLabels(x, scene.map) }]),
  );
  return scene.symbols.flatMap((s, i) => {
    const pose = s.poses[p.pose[i]!]!;
    const x = (MARGIN + p.col[i]! * CELL_WIDTH) * GRID;
    const y = (MARGIN + p.row[i]! * CELL_HEIGHT) * GRID;
    return pose.parts.map((part, m): DrawnSymbol => ({
      ...s.members[m]!,
      x: x + part.x * GRID,
      y: y + part.y * GRID,
      width: part.width * GRID,
      height: part.height * GRID,
      turn: part.turn,
      flip: part.flip,
      pins: pose.pins
        .slice(part.from, part.to)
        .map((pin, k) => {
          const own = parts.get(pin.ref)!;
          const seat = pose.pins[p.seats[i]?.[k] ?? part.from + k]!;
          return {
            ref: pin.ref,
            pin: own.names[pin.pin]!,
            label: own.labels[pin.pin]!,
            index: pin.pin,
            net: own.nets[pin.pin]!,
            x: x + seat.x * GRID,
            y: y + seat.y * GRID,
            side: seat.side,
          };
        })
        .sort((a, b) => s.members[m]!.refs.indexOf(a.ref) - s.members[m]!.refs.indexOf(b.ref) || a.index - b.index),
    }));
  });
}

/** Takes every point of a box away from wires. */
function block(grid: WireGrid, box: Box, but = -1): void {
  for (let y = Math.ceil(box.y / GRID); y <= Math.floor((box.y + box.height) / GRID); y++)
    for (let x = Math.ceil(box.x / GRID); x <= Math.floor((box.x + box.width) / GRID); x++)
      if (grid.inside(x, y) && grid.at(x, y) !== but) grid.blocked[grid.at(x, y)] = 1;
}

function stageBoxes(scene: Scene, symbols: readonly DrawnSymbol[]): Drawing['stages'] {
  const byRef = new Map(symbols.flatMap((s) => s.refs.map((r) => [r, s] as const)));
  return scene.stages.map(({ kind, body }) => {
    const boxes = body.flatMap((i) => scene.symbols[i]!.members.map((m) => byRef.get(m.refs[0]!)!));
    return { kind, ...around(boxes), bands: bandsOf(boxes) };
  });
}

function barrierOf(scene: Scene, p: Placement, grid: WireGrid): Drawing['barriers'] {
  if (p.barrier < 0 || !scene.parted) return [];
  const x = (MARGIN + p.barrier * CELL_WIDTH + 8) * GRID;
  return [
    {
      points: [
        [x, 0],
        [x, grid.height * GRID],
      ],
    },
  ];
}
