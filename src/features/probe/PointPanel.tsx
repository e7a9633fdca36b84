'use client';
import { placesOnNet } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { ExpectedReading } from '@/core/expect';
import { formatQuantity } from '@/core/quantity';
import { expectedWords } from '@/features/frame/lineWords';
import type { PlanEntry } from '@/workers/messages';

export const MODE_NAMES = { diode: 'Diode test', ohms: 'Ohms', continuity: 'Continuity' } as const;

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
          : point.settle > 2 && `. Give it ${Math.round(point.settle)} s to settle.`}
        {lowOhms(expected) && '. Zero the leads first: hold them together and press relative.'}
      </p>
    </div>
  );
}

/** Whether the leads' own resistance would spoil the reading. */
function lowOhms({ unit, nominal }: ExpectedReading): boolean {
  return unit === 'ohm' && nominal !== null && nominal < 5;
}

/** Where each lead goes, the mode, and what should show. */
export function PointHead({
  board,
  red,
  black,
  mode,
  shows,
  all = false,
}: {
  board: Board;
  red: string;
  black: string;
  mode: string;
  shows: string;
  all?: boolean;
}) {
  return (
    <div className="grid grid-cols-[1fr_auto] gap-x-6">
      <div>
        <Lead name="Black" net={black} board={board} all={all} sign="●" />
        <Lead name="Red" net={red} board={board} all={all} sign="◆" />
      </div>
      <div className="text-right">
        <p className="text-lg font-semibold">{mode}</p>
        <p className="text-faint">should show</p>
        <p className="figure text-2xl whitespace-nowrap">{shows}</p>
      </div>
    </div>
  );
}

function Lead({
  name,
  net,
  board,
  all,
  sign,
}: {
  name: string;
  net: string;
  board: Board;
  all: boolean;
  sign: string;
}) {
  const places = placesOnNet(board, net);
  const [first, ...rest] = places;
  return (
    <p className="mb-1 text-2xl leading-snug">
      <span className={`inline-block w-30 font-bold ${name === 'Red' ? 'text-oxide' : ''}`}>
        <span aria-hidden>{sign}</span> {name}
      </span>
      {first?.words ?? net} <span className="figure text-sm text-faint">{net}</span>
      {first?.assumed && <span className="text-sm text-faint"> (assumed place)</span>}
      {all && rest.length > 0 && (
        <span className="block pl-30 text-base text-faint">or {rest.map((p) => p.words).join('; ')}</span>
      )}
    </p>
  );
}
