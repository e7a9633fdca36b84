'use client';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import type { PointerEvent as ReactPointerEvent } from 'react';
import { netKey } from '@/core/circuit';
import type { Board, Part } from '@/core/circuit';
import { formatQuantity } from '@/core/quantity';
import { PartSymbol } from './PartSymbol';
import { STUB, useSchematicLayout } from './useSchematicLayout';
import type { SchematicLayout } from './useSchematicLayout';

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
  height,
}: {
  board: Board;
  selection: Selection;
  byPart?: ReadonlyMap<string, number> | undefined;
  onPickPart(ref: string): void;
  height: number;
}) {
  const { layout, failed } = useSchematicLayout(board);
  const frame = useRef<HTMLDivElement>(null);
  const [view, setView] = useState<View | null>(null);
  const fitted = useMemo(() => (layout ? fit(layout, height) : null), [layout, height]);
  const shown = view ?? fitted;
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
    <div ref={frame} className="relative overflow-hidden border border-line bg-ground" style={{ height }}>
      <svg
        width="100%"
        height={height}
        role="img"
        aria-label={`Schematic of ${board.title}`}
        onPointerDown={onDown}
        onPointerMove={onMove}
      >
        <g transform={`translate(${shown.x} ${shown.y}) scale(${shown.scale})`}>
          <Drawing layout={layout} board={board} selection={selection} byPart={byPart} onPickPart={onPickPart} />
        </g>
      </svg>
      <div className="absolute right-2 bottom-2 flex gap-1">
        {[
          ['−', 'Smaller', () => setView(zoomAt(shown, 1 / 1.4, 400, height / 2))],
          ['+', 'Larger', () => setView(zoomAt(shown, 1.4, 400, height / 2))],
          ['all', 'Show all', () => setView(fit(layout, height, 0))],
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

function fit(layout: SchematicLayout, height: number, least = READABLE): View {
  const scale = Math.min(1, (height - 16) / Math.max(1, layout.height), 810 / Math.max(1, layout.width));
  if (scale >= least) return { x: 8, y: 8, scale };
  // Too large to be read whole: it begins where the power comes in.
  const inlet = layout.graph.symbols.find((s) => s.kind === 'connector') ?? layout.graph.symbols[0];
  const at = (inlet && layout.at.get(inlet.ref)) ?? { x: 0, y: 0 };
  return { x: 40 - at.x * least, y: height / 2 - at.y * least, scale: least };
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
  onPickPart,
}: {
  layout: SchematicLayout;
  board: Board;
  selection: Selection;
  byPart?: ReadonlyMap<string, number> | undefined;
  onPickPart(ref: string): void;
}) {
  const lit = new Set(selection.nets?.map(netKey));
  return (
    <>
      <defs>
        <radialGradient id="suspicion">
          <stop offset="0%" stopColor="rgb(var(--glow))" stopOpacity="0.85" />
          <stop offset="100%" stopColor="rgb(var(--glow))" stopOpacity="0" />
        </radialGradient>
      </defs>
      {layout.graph.symbols.map((s) => {
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
      {layout.graph.wires.map((w) => {
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
      {layout.graph.symbols.map((s) => {
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
              {s.ref} <tspan fill="var(--faint)">{shortValue(part)}</tspan>
              {p >= 0.02 && <tspan fill="var(--brass)" fontWeight={700}>{` ${Math.round(100 * p)} %`}</tspan>}
            </text>
            {s.ports.map((port) =>
              port.stub === null ? (
                s.ports.some((other) => other.side === port.side && other.stub !== null) && (
                  // The wire ends where stubs have their room: lead it up to the symbol.
                  <path
                    key={port.id}
                    d={port.side === 'west' ? `M0 ${port.y}h-${STUB}` : `M${s.width} ${port.y}h${STUB}`}
                    stroke="var(--faint)"
                    strokeWidth={1.2}
                  />
                )
              ) : (
                <g key={port.id}>
                  <path
                    d={port.side === 'west' ? `M0 ${port.y}h-8` : `M${s.width} ${port.y}h8`}
                    stroke={lit.has(netKey(port.stub)) ? 'var(--slate)' : 'var(--faint)'}
                    strokeWidth={lit.has(netKey(port.stub)) ? 3 : 1.2}
                  />
                  <text
                    x={port.side === 'west' ? -10 : s.width + 10}
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

/** The value beside a symbol, short. */
export function shortValue(part: Part): string {
  if (part.kind === 'resistor') return formatQuantity(part.value, 'ohm');
  if (part.kind === 'capacitor') return formatQuantity(part.value, 'F');
  if (part.kind === 'inductor') return formatQuantity(part.value, 'H');
  if (part.kind === 'fuse' && part.numbers['ir'] !== undefined) return formatQuantity(part.numbers['ir'], 'A');
  return '';
}
