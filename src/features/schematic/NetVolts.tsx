import { useMemo } from 'react';
import { netKey } from '@/core/circuit';
import { WORDS_SIZE, wordsOnWires } from '@/core/drawing';
import type { Drawing } from '@/core/drawing';
import { netSentence } from './netWords';
import type { NetWords } from './netWords';

/** Letters that are read from far away, pixels. */
const FAR_SIZE = 20;

/** Volts at nets, each at a wire of its net where it covers nothing: what should stand there and what was read; far away larger. */
export function NetVolts({
  drawing,
  volts,
  far,
}: {
  drawing: Drawing;
  volts: ReadonlyMap<string, NetWords>;
  far: boolean;
}) {
  const size = far ? FAR_SIZE : WORDS_SIZE;
  const placed = useMemo(() => {
    const wanted = [...volts].map(([key, told]) => ({ nets: new Set([key]), words: netSentence(told) }));
    return wordsOnWires(drawing, wanted, size, far);
  }, [drawing, volts, size, far]);
  return (
    <g textAnchor="middle" fontSize={size} fill="var(--brass)" fontWeight={600} className="figure">
      {placed.map(({ net, x, y, width, height }) => {
        const { expected, read } = volts.get(netKey(net))!;
        return (
          <text key={net} x={x + width / 2} y={y + height - size * 0.15}>
            {expected === null ? net : `${net} ${expected}`}
            {read !== null && <tspan fill="var(--ink)">{` read ${read}`}</tspan>}
          </text>
        );
      })}
    </g>
  );
}
