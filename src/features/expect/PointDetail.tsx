'use client';
import type { Board } from '@/core/circuit';
import { POWERED_NAMES } from '@/features/frame/lineWords';
import { PointHead } from '@/features/frame/PointHead';
import { POINT_CAUTIONS, bandWords } from '@/features/frame/pointWords';
import type { Waveform } from '@/core/work';
import { Notice } from '@/ui/Notice';
import type { WorkingPoint } from '@/workers/workingMessages';
import { WaveView } from './WaveView';
import { useWave } from './useWave';

/** A point opened: what to mind there, where the leads go, how its figure comes about, its waveform where it has one. */
export function PointDetail({
  board,
  point,
  wave,
  onPart,
}: {
  board: Board;
  point: WorkingPoint;
  wave(red: string, black: string): Promise<Waveform | null>;
  onPart(ref: string | undefined): void;
}) {
  const caution = point.hazard && POINT_CAUTIONS[point.hazard];
  const seen = useWave(wave, point.red, point.black, point);
  return (
    <div className="flex flex-col gap-2 pt-2">
      {caution && <Notice kind="caution">{caution}</Notice>}
      <PointHead
        board={board}
        red={point.red}
        black={point.black}
        mode={POWERED_NAMES[point.mode]}
        shows={bandWords(point)}
      />
      {point.steps.length > 0 && (
        <ol aria-label="How it comes about" className="list-inside list-decimal">
          {point.steps.map((s) => (
            <li key={s.words}>
              {s.words}{' '}
              {s.refs.map((ref) => (
                <button
                  key={ref}
                  type="button"
                  className="figure mr-1 text-sm text-slate underline"
                  onFocus={() => onPart(ref)}
                  onClick={() => onPart(ref)}
                >
                  {ref}
                </button>
              ))}
            </li>
          ))}
        </ol>
      )}
      {seen && <WaveView wave={seen} name={`${point.red} against ${point.black}`} />}
    </div>
  );
}
