'use client';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import type { PointerEvent as ReactPointerEvent } from 'react';
import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { IslandFinding } from '@/core/stages';
import { PartSymbol } from './PartSymbol';
import { useSchematicLayout } from './useSchematicLayout';
import type { SchematicLayout } from './elkLayout';

/** What is picked out: a part, a net, or the two nets under the leads. */
export interface Selection {
  readonly part?: string | undefined;
  readonly nets?: readonly string[] | undefined;
}

interface View {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

/** The schematic that draws itself: zoom with the wheel or the buttons, drag to move. Suspicion glows behind the parts. */
export function Schematic({
  board,
  selection,
  byPart,
  onPickPart,
  onPickNet,
  height: given,
}: {
  board: Board;
  selection: Selection;
  byPart?: ReadonlyMap<string, number> | undefined;
  onPickPart(ref: string): void;
  onPickNet?: ((net: string) => void) | undefined;
  height: number;
}) {
  const { layout, islands, failed } = useSchematicLayout(board);
  const [large, setLarge] = useState(false);
  const height = large ? 660 : given;
  const frame = useRef<HTMLDivElement>(null);
  const [view, setView] = useState<View | null>(null);
  const fitted = useMemo(() => (layout ? fit(layout, height) : null), [layout, height]);
  const shown = view ?? fitted;
  const drawn = useRef<SVGSVGElement>(null);
  const drag = useRef<{ x: number; y: number; view: View } | null>(null);

  useEffect(() => {
    const target = frame.current;
    if (!target) return;
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault();
      const box = target.getBoundingClientRect();
      const [px, py] = [event.clientX - box.left, event.clientY - box.top];
      setView((kept) => zoomAt(kept ?? fitted, event.deltaY < 0 ? 1.15 : 1 / 1.15, px, py));
    };
    target.addEventListener('wheel', onWheel, { passive: false });
    return () => target.removeEventListener('wheel', onWheel);
  }, [fitted]);

  // What is picked elsewhere comes into sight here.
  const focus =
    selection.part ??
    board.parts.find((p) => selection.nets?.every((n) => p.nets.some((m) => netKey(m) === netKey(n))))?.ref;
  const centred = useMemo(
    () => (layout && focus !== undefined ? centre(layout, focus, height, frame.current?.clientWidth ?? 800) : null),
    [layout, focus, height],
  );
  const [lastFocus, setLastFocus] = useState<string | undefined>(undefined);
  if (focus !== lastFocus && layout) {
    setLastFocus(focus);
    setView(centred);
  }

  if (failed) return <p className="p-3 text-faint">The schematic could not be laid out. The tables hold everything.</p>;
  if (!layout || !shown) return <p className="p-3 text-faint">Drawing the schematic …</p>;
  const onDown = (event: ReactPointerEvent): void => {
    drag.current = { x: event.clientX, y: event.clientY, view: shown };
  };
  const onMove = (event: ReactPointerEvent): void => {
    const from = drag.current;
    if (from && event.buttons === 1)
      setView({ ...from.view, x: from.view.x + event.clientX - from.x, y: from.view.y + event.clientY - from.y });
  };
  return (
    <div
      ref={frame}
      className={
        large
          ? 'fixed inset-x-4 top-16 z-30 overflow-hidden border-2 border-line bg-ground'
          : 'relative overflow-hidden border border-line bg-ground'
      }
      style={{ height }}
      onKeyDown={(e) => {
        if (e.key === 'Escape') setLarge(false);
      }}
    >
      <svg
        ref={drawn}
        width="100%"
        height={height}
        role="img"
        aria-label={`Schematic of ${board.title}`}
        onPointerDown={onDown}
        onPointerMove={onMove}
      >
        <g transform={`translate(${shown.x} ${shown.y}) scale(${shown.scale})`}>
          <Drawing
            layout={layout}
            board={board}
            selection={selection}
            byPart={byPart}
            islands={islands}
            onPickPart={onPickPart}
            onPickNet={onPickNet}
          />
        </g>
      </svg>
      <div className="absolute right-2 bottom-2 flex gap-1">
        {[
          ['−', 'Smaller', () => setView(zoomAt(shown, 1 / 1.4, 400, height / 2))],
          ['+', 'Larger', () => setView(zoomAt(shown, 1.4, 400, height / 2))],
          ['all', 'Show all', () => setView(fit(layout, height, 0, frame.current?.clientWidth ?? 800))],
          [
            large ? 'close' : 'large',
            large ? 'Back to the page' : 'Over the whole window',
            () => (setLarge(!large), setView(null)),
          ],
          ['SVG', 'Save the drawing as SVG', () => saveSvg(drawn.current, layout, board.title)],
        ].map(([sign, label, act]) => (
          <button
            key={String(label)}
            type="button"
            aria-label={String(label)}
            onClick={act as () => void}
            className="min-w-7 rounded-sm border border-line bg-raised px-1.5"
          >
            {String(sign)}
          </button>
        ))}
      </div>
    </div>
  );
}

/** Smallest scale at which designators can still be read. */
const READABLE = 0.88;

function fit(layout: SchematicLayout, height: number, least = READABLE, width = 790): View {
  const scale = Math.min(1, (height - 16) / Math.max(1, layout.height), (width - 16) / Math.max(1, layout.width));
  if (scale >= least) return { x: 8, y: 8 - layout.top * scale, scale };
  // Too large to be read whole: it begins where the power comes in.
  const inlet = layout.rooms.find((r) => layout.graph.rooms.find((g) => g.id === r.id)?.row === 'input');
  return { x: 8, y: 8 - (inlet?.y ?? 0) * least, scale: least };
}

function zoomAt(view: View | null, factor: number, px: number, py: number): View | null {
  if (!view) return view;
  const scale = Math.min(3, Math.max(0.1, view.scale * factor));
  const k = scale / view.scale;
  return { scale, x: px - (px - view.x) * k, y: py - (py - view.y) * k };
}

function centre(layout: SchematicLayout, ref: string, height: number, width: number): View | null {
  const at = layout.at.get(ref);
  return at ? { scale: 1, x: width / 2 - at.x - 30, y: height / 2 - at.y - 15 } : null;
}

const Drawing = memo(function Drawing({
  layout,
  board,
  selection,
  byPart,
  islands,
  onPickPart,
  onPickNet,
}: {
  layout: SchematicLayout;
  board: Board;
  selection: Selection;
  byPart?: ReadonlyMap<string, number> | undefined;
  islands: readonly IslandFinding[];
  onPickPart(ref: string): void;
  onPickNet?: ((net: string) => void) | undefined;
}) {
  const lit = new Set(selection.nets?.map(netKey));
  const grounds = useMemo(() => new Set(islands.map((i) => netKey(i.reference))), [islands]);
  return (
    <>
      <defs>
        <radialGradient id="suspicion">
          <stop offset="0%" stopColor="rgb(var(--glow))" stopOpacity="0.85" />
          <stop offset="100%" stopColor="rgb(var(--glow))" stopOpacity="0" />
        </radialGradient>
      </defs>
      <Rooms layout={layout} />
      {layout.symbols.map((s) => {
        const p = byPart?.get(s.ref) ?? 0;
        const at = layout.at.get(s.ref);
        if (!at || p < 0.02) return null;
        return (
          <ellipse
            key={s.ref}
            cx={at.x + s.width / 2}
            cy={at.y + s.height / 2}
            rx={s.width * (0.6 + 0.7 * p)}
            ry={s.height * (0.7 + 0.9 * p) + 8}
            fill="url(#suspicion)"
            opacity={0.3 + 0.7 * p}
          />
        );
      })}
      {layout.graph.rooms
        .flatMap((r) => r.wires)
        .map((w) => {
          const points = layout.wires.get(w.id) ?? [];
          const bright = lit.has(netKey(w.net));
          return (
            <polyline
              key={w.id}
              points={points.map((p) => `${p.x},${p.y}`).join(' ')}
              fill="none"
              stroke={bright ? 'var(--slate)' : 'var(--faint)'}
              strokeWidth={bright ? 3 : 1.2}
            />
          );
        })}
      {layout.flags.map((f) => {
        const at = layout.at.get(f.id)!;
        const bright = lit.has(netKey(f.net));
        return (
          <text
            key={f.id}
            x={at.x + 6}
            y={at.y + 10}
            fontSize={8.5}
            fill={bright ? 'var(--slate)' : 'var(--faint)'}
            className="cursor-pointer"
            onClick={() => onPickNet?.(f.net)}
          >
            {f.net}
          </text>
        );
      })}
      {layout.symbols.map((s) => {
        const part = board.parts.find((p) => p.ref === s.ref)!;
        const at = layout.at.get(s.ref)!;
        const p = byPart?.get(s.ref) ?? 0;
        const picked = selection.part === s.ref;
        return (
          <g
            key={s.ref}
            transform={`translate(${at.x} ${at.y})`}
            onClick={() => onPickPart(s.ref)}
            className="cursor-pointer"
          >
            <rect
              x={-2}
              y={-16}
              width={s.width + 4}
              height={s.height + 18}
              fill="transparent"
              stroke={picked ? 'var(--slate)' : 'none'}
              strokeWidth={2}
            />
            <g
              fill="none"
              stroke={part.basis === 'assumed' ? 'var(--faint)' : 'var(--ink)'}
              strokeWidth={part.basis === 'assumed' ? 1 : 1.6}
              strokeDasharray={part.fitted ? (part.basis === 'assumed' ? '3 2' : undefined) : '1 4'}
              color={part.basis === 'assumed' ? 'var(--faint)' : 'var(--ink)'}
            >
              <PartSymbol part={part} box={s} />
            </g>
            <text x={s.width / 2} y={-4} textAnchor="middle" fontSize={11} fill="var(--ink)">
              {s.ref}
              <tspan fill="var(--faint)">{s.label.slice(s.ref.length)}</tspan>
              {p >= 0.02 && <tspan fill="var(--brass)" fontWeight={700}>{` ${Math.round(100 * p)} %`}</tspan>}
            </text>
            {s.ports.map((port) =>
              port.stub === null ? (
                // The wire ends where names have their room: lead it up to the symbol.
                <path
                  key={port.id}
                  d={port.side === 'west' ? `M0 ${port.y}h-${s.margin.west}` : `M${s.width} ${port.y}h${s.margin.east}`}
                  fill="none"
                  stroke={lit.has(netKey(part.nets[port.pin]!)) ? 'var(--slate)' : 'var(--faint)'}
                  strokeWidth={lit.has(netKey(part.nets[port.pin]!)) ? 3 : 1.2}
                />
              ) : (
                <g key={port.id}>
                  <path
                    d={port.side === 'west' ? `M0 ${port.y}h-8` : `M${s.width} ${port.y}h8`}
                    stroke={lit.has(netKey(port.stub)) ? 'var(--slate)' : 'var(--faint)'}
                    strokeWidth={lit.has(netKey(port.stub)) ? 3 : 1.2}
                  />
                  {grounds.has(netKey(port.stub)) && (
                    <GroundSign
                      x={port.side === 'west' ? -8 : s.width + 8}
                      y={port.y}
                      turn={port.side === 'west' ? -1 : 1}
                    />
                  )}
                  <text
                    x={port.side === 'west' ? -13 : s.width + 13}
                    y={port.y + 3}
                    textAnchor={port.side === 'west' ? 'end' : 'start'}
                    fontSize={8.5}
                    fill={lit.has(netKey(port.stub)) ? 'var(--slate)' : 'var(--faint)'}
                  >
                    {port.stub}
                  </text>
                </g>
              ),
            )}
          </g>
        );
      })}
    </>
  );
});

/** The stages' rooms with their names, and the barrier between primary and secondary. */
function Rooms({ layout }: { layout: SchematicLayout }) {
  return (
    <>
      {layout.rooms.map((r) => {
        const room = layout.graph.rooms.find((g) => g.id === r.id)!;
        return (
          <g key={r.id}>
            <rect
              x={r.x}
              y={r.y}
              width={r.width}
              height={r.height}
              fill="var(--raised)"
              fillOpacity={0.35}
              stroke="var(--line)"
            />
            <text x={r.x + 8} y={r.y + 14} fontSize={10.5} fontWeight={600} fill="var(--faint)">
              {roomName(room.kind)}
            </text>
          </g>
        );
      })}
      {layout.barrier.map((b) => (
        <g key={`${b.x} ${b.top}`}>
          <path d={`M${b.x} ${b.top}V${b.bottom}`} stroke="var(--oxide)" strokeWidth={2} strokeDasharray="10 5" />
          <text
            x={b.x + 4}
            y={(b.top + b.bottom) / 2}
            fontSize={9}
            fill="var(--oxide)"
            transform={`rotate(-90 ${b.x + 12} ${(b.top + b.bottom) / 2})`}
          >
            isolation
          </text>
        </g>
      ))}
    </>
  );
}

/** A stage's name on screen. */
export function roomName(kind: string): string {
  const words = kind === 'unplaced' ? 'no stage yet' : kind.replaceAll('-', ' ');
  return words.replace('emi', 'EMI').replace('pfc', 'power factor');
}

function GroundSign({ x, y, turn }: { x: number; y: number; turn: 1 | -1 }) {
  return (
    <path
      d={`M${x} ${y - 5}v10M${x + 2 * turn} ${y - 3}v6M${x + 4 * turn} ${y - 1.2}v2.4`}
      stroke="var(--ink)"
      strokeWidth={1.2}
      fill="none"
    />
  );
}

/** Saves the whole drawing as an SVG file of its own, in black on white. */
function saveSvg(svg: SVGSVGElement | null, layout: SchematicLayout, title: string): void {
  if (!svg) return;
  const copy = svg.cloneNode(true) as SVGSVGElement;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('viewBox', `-10 ${layout.top - 10} ${layout.width + 20} ${layout.height + 20}`);
  copy.setAttribute('width', String(layout.width + 20));
  copy.setAttribute('height', String(layout.height + 20));
  copy.setAttribute('font-family', 'sans-serif');
  copy.querySelector('g')?.setAttribute('transform', '');
  const plain: Readonly<Record<string, string>> = {
    ink: '#000',
    faint: '#444',
    line: '#999',
    raised: '#fff',
    slate: '#000',
    oxide: '#000',
    brass: '#000',
  };
  const text = new XMLSerializer()
    .serializeToString(copy)
    .replace(/var\(--(\w+)\)/gu, (_, name: string) => plain[name] ?? '#000');
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type: 'image/svg+xml' }));
  link.download = `${title.replace(/[^\w-]+/gu, '-').slice(0, 60) || 'schematic'}.svg`;
  link.click();
  URL.revokeObjectURL(link.href);
}
