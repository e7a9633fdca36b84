'use client';
import type { Board } from '@/core/circuit';
import type { ExpectedReading } from '@/core/expect';
import { isCold } from '@/core/meter';
import { formatQuantity } from '@/core/quantity';
import { MODE_NAMES, expectedWords } from '@/features/frame/lineWords';
import { PointHead } from '@/features/frame/PointHead';
import type { PlanEntry } from '@/workers/messages';
import { isLongWait, waitWords } from './waitWords';

/** The current point, large: where each lead goes, the mode, and what should show. */
export function PointPanel({
  board,
  point,
  expected,
  allPlaces,
}: {
  board: Board;
  point: PlanEntry;
  expected: ExpectedReading;
  allPlaces: boolean;
}) {
  return (
    <div>
      <PointHead
        board={board}
        red={point.red}
        black={point.black}
        mode={MODE_NAMES[point.mode]}
        shows={expectedWords(expected)}
        all={allPlaces}
      />
      <p className="mt-1 text-sm text-faint">
        {expected.why} ({expected.basis}
        {expected.judged ? '' : '; a figure here is noted, not judged'})
        {point.creep
          ? `. Creeps up for minutes: after ${point.creep.seconds} s type what it shows with ~; a sound board is past ${formatQuantity(point.creep.passed, 'ohm', 2)} by then.`
          : point.settle > 2 &&
            `. Give it ${waitWords(point.settle)} to settle${isLongWait(point.settle) ? ', clipped on' : ''}.`}
        {!isCold(point.mode) && '. Both ends empty first: a charge destroys this instrument.'}
        {lowOhms(expected) && '. Zero the leads first: hold them together and press relative.'}
      </p>
    </div>
  );
}

/** Whether the leads' own resistance would spoil the reading. */
function lowOhms({ unit, nominal }: ExpectedReading): boolean {
  return unit === 'ohm' && nominal !== null && nominal < 5;
}
