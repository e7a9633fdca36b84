'use client';
import { memo, useMemo } from 'react';
import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { IslandFinding } from '@/core/stages';
import { PartSymbol } from './PartSymbol';
import type { SchematicLayout } from './elkLayout';
import type { Selection } from './selection';

/** The drawing itself: rooms, glow of suspicion, wires, symbols with their labels. */
export const Drawing = memo(function Drawing({
  layout,
  board,
  selection,
  byPart,
  islands,
  volts,
  lit: pointed,
  onPickPart,
  onPickNet,
  onHoverPart,
}: {
  layout: SchematicLayout;
  board: Board;
  selection: Selection;
  byPart?: ReadonlyMap<string, number> | undefined;
  islands: readonly IslandFinding[];
  /** What stands at nets at work, by key. */
  volts: ReadonlyMap<string, string>;
  onPickPart(ref: string): void;
  onPickNet?: ((net: string) => void) | undefined;
  /** A part pointed at elsewhere. */
  lit?: string | undefined;
  onHoverPart?: ((ref: string | undefined) => void) | undefined;
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
            {volts.has(netKey(f.net)) && <tspan fill="var(--brass)">{` ${volts.get(netKey(f.net))}`}</tspan>}
          </text>
        );
      })}
      {layout.symbols.map((s) => {
        const part = board.parts.find((p) => p.ref === s.ref)!;
        const at = layout.at.get(s.ref)!;
        const p = byPart?.get(s.ref) ?? 0;
        const picked = selection.part === s.ref || pointed === s.ref;
        return (
          <g
            key={s.ref}
            transform={`translate(${at.x} ${at.y})`}
            onClick={() => onPickPart(s.ref)}
            onPointerEnter={onHoverPart && (() => onHoverPart(s.ref))}
            onPointerLeave={onHoverPart && (() => onHoverPart(undefined))}
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
                    x={port.side === 'west' ? -16 : s.width + 16}
                    y={port.y + 3}
                    textAnchor={port.side === 'west' ? 'end' : 'start'}
                    fontSize={8.5}
                    fill={lit.has(netKey(port.stub)) ? 'var(--slate)' : 'var(--faint)'}
                  >
                    {port.stub}
                    {volts.has(netKey(port.stub)) && (
                      <tspan x={port.side === 'west' ? -16 : s.width + 16} dy={8.5} fontSize={8} fill="var(--brass)">
                        {volts.get(netKey(port.stub))}
                      </tspan>
                    )}
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
