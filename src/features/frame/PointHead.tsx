'use client';
import { placesOnNet } from '@/core/circuit';
import type { Board } from '@/core/circuit';

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
    <div className="grid grid-cols-[1fr_auto] gap-x-6 max-sm:grid-cols-1">
      <div>
        <Lead name="Black" net={black} board={board} all={all} sign="●" />
        <Lead name="Red" net={red} board={board} all={all} sign="◆" />
      </div>
      <div className="text-right max-sm:flex max-sm:flex-wrap max-sm:items-baseline max-sm:gap-x-2 max-sm:text-left">
        <p className="text-lg font-semibold">{mode}</p>
        <p className="text-faint">should show</p>
        <p className="figure text-2xl whitespace-nowrap max-sm:text-xl">{shows}</p>
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
    <p className="mb-1 text-2xl leading-snug max-sm:text-xl">
      <span className={`inline-block w-30 font-bold max-sm:w-21 ${name === 'Red' ? 'text-oxide' : ''}`}>
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
