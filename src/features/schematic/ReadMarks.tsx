import { useId } from 'react';
import type { Drawing } from '@/core/drawing';
import type { ReadMark } from '@/features/job/readMarks';

/** What was read at parts: a tick where it agrees, a hatch with a notch where it does not. */
export function ReadMarks({ drawing, marks }: { drawing: Drawing; marks: ReadonlyMap<string, ReadMark> }) {
  const hatch = useId();
  if (marks.size === 0) return null;
  return (
    <g pointerEvents="none">
      <defs>
        <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V5" stroke="var(--oxide)" strokeWidth={1.6} />
        </pattern>
      </defs>
      {drawing.symbols.map((s) => {
        const own = s.refs.flatMap((r) => marks.get(r) ?? []);
        if (own.length === 0) return null;
        const [x, y, width, height] = [s.x - 2, s.y - 2, s.width + 4, s.height + 4];
        return own.includes('disagree') ? (
          <g key={s.refs[0]} data-read="disagree">
            <path
              d={`M${x} ${y}h${width - 7}l7 7v${height - 7}h${-width}z`}
              fill={`url(#${hatch})`}
              fillOpacity={0.35}
              stroke="var(--oxide)"
              strokeWidth={1.4}
            />
            <path d={`M${x + width - 7} ${y}v7h7z`} fill="var(--oxide)" />
          </g>
        ) : (
          <path
            key={s.refs[0]}
            data-read="agree"
            d={`M${s.x - 8} ${s.y + 2}l3 4l6 -9`}
            fill="none"
            stroke="var(--verdigris)"
            strokeWidth={2}
          />
        );
      })}
    </g>
  );
}
