'use client';
import { memo } from 'react';
import { artOf } from '@/core/drawing';
import type { DrawnSymbol } from '@/core/drawing';
import type { Part } from '@/core/part';
import type { ReadMark } from '@/features/job/readMarks';

/** A part's own sign where it stands; what moves glides. */
export const PartSign = memo(function PartSign({
  symbol,
  assumed,
  empty,
  picked,
  name,
  onPick,
  onHover,
}: {
  symbol: DrawnSymbol;
  assumed: boolean;
  empty: boolean;
  picked: boolean;
  /** What a screen reader says of it. */
  name: string;
  onPick(ref: string): void;
  onHover?: ((ref: string | undefined) => void) | undefined;
}) {
  const { x, y, width, height } = symbol;
  const here = { ...symbol, x: 0, y: 0, pins: symbol.pins.map((p) => ({ ...p, x: p.x - x, y: p.y - y })) };
  const art = artOf(here);
  const [ref] = symbol.refs as [string];
  const colour = assumed ? 'var(--faint)' : 'var(--ink)';
  const thin = assumed ? 1.1 : 1.6;
  return (
    <g
      data-refs={symbol.refs.join(' ')}
      style={{ transform: `translate(${x}px, ${y}px)` }}
      className="cursor-pointer transition-transform duration-300 motion-reduce:transition-none"
      onClick={() => onPick(ref)}
      onPointerEnter={onHover && (() => onHover(ref))}
      onPointerLeave={onHover && (() => onHover(undefined))}
    >
      <title>{name}</title>
      <rect
        x={-4}
        y={-4}
        width={width + 8}
        height={height + 8}
        rx={4}
        fill="transparent"
        stroke={picked ? 'var(--slate)' : 'none'}
        strokeWidth={2}
      />
      <g
        transform={art.transform}
        fill="none"
        stroke={colour}
        strokeWidth={thin}
        strokeLinejoin="round"
        strokeDasharray={empty ? '1 4' : assumed ? '3 2' : undefined}
      >
        {art.strokes.map((s) => (
          <path
            key={s.d}
            d={s.d}
            {...(s.filled && !assumed ? { fill: colour, stroke: 'none' } : {})}
            {...(s.bold ? { strokeWidth: 2.6 } : {})}
            {...(s.dashed ? { strokeDasharray: '4 3', strokeWidth: 1 } : {})}
          />
        ))}
      </g>
      {art.marks.map((m) => (
        <text
          key={`${m.x} ${m.y} ${m.text}`}
          x={m.x}
          y={m.y + 3}
          textAnchor={m.anchor}
          fontSize={8.5}
          fill={colour}
          className="figure"
        >
          {m.text}
        </text>
      ))}
    </g>
  );
});

/** What a screen reader says of a part on the drawing: its value, its nets, what was read at it. */
export function partSentence(part: Part, value: string, mark?: ReadMark): string {
  const nets = part.nets.length <= 4 ? part.nets.join(', ') : `${part.nets.length} pins`;
  return `${part.ref}${value === '' ? '' : `, ${value}`}: ${nets}${mark === undefined ? '' : `; read, ${mark}s`}`;
}
