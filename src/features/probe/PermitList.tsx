'use client';
import { useMemo } from 'react';
import { easiestPlace } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { pointKey } from '@/core/diagnose';
import type { ProbePoint } from '@/core/diagnose';
import type { PermitReading, PowerPermit } from '@/core/permit';
import { useEngine } from '@/features/job/useEngine';
import { MODE_NAMES } from '@/features/frame/lineWords';
import type { PlanEntry } from '@/workers/messages';
import { Reveal } from '@/ui/Reveal';

/** Why a board is not to be powered. */
export function PermitShut({ reasons }: { reasons: readonly string[] }) {
  return (
    <p className="border-l-4 border-oxide bg-raised px-3 py-1.5">
      <span aria-hidden className="text-oxide">
        ▲
      </span>{' '}
      <strong>Do not power this.</strong> {reasons.slice(0, 3).join(' ')}
      {reasons.length > 3 && ` And ${reasons.length - 3} more.`}
    </p>
  );
}

/**
 * The permit to power: what it rests on, or what is still to be read for it. A reading of the list becomes the next
 * point when it is picked.
 */
export function PermitList({
  permit,
  board,
  current,
  onChoose,
}: {
  permit: PowerPermit | null;
  board: Board;
  current: ProbePoint | null;
  onChoose(point: PlanEntry): void;
}) {
  const assumed = useAssumedPlaces(board, permit);
  if (permit === null) return <p className="text-sm text-faint">Working out what has to be read before power …</p>;
  const { allowed, earnable, reasons, restsOn, clearing, unseen } = permit;
  return (
    <div data-permit={allowed ? 'open' : 'shut'}>
      {allowed ? (
        <p className="text-verdigris">
          <strong>✓ May be powered</strong>, by these readings and as long as they hold. Not a word on whether it is
          safe to touch.
        </p>
      ) : (
        <PermitShut reasons={reasons} />
      )}
      {clearing.length > 0 && (
        <>
          <p className="mt-2 text-sm text-faint">
            {clearing.length === 1 ? 'One reading' : `${clearing.length} readings`}
            {earnable ? ' still missing; healthy, they earn it' : ' still missing besides'}
            {assumed.size > 0 && ' once Trace says what is at the assumed places'}:
          </p>
          <ol className="grid gap-x-4 lg:grid-cols-2">
            {clearing.map((r) => (
              <li key={pointKey(r)}>
                <button
                  type="button"
                  aria-current={current && pointKey(current) === pointKey(r) ? 'true' : undefined}
                  onClick={() => onChoose(asPlanned(r))}
                  className="flex w-full items-baseline gap-2 px-2 py-0.5 text-left hover:bg-raised aria-[current]:bg-raised"
                >
                  <span aria-hidden className="text-brass">
                    ○
                  </span>
                  <Words reading={r} board={board} assumed={assumed.has(r)} />
                </button>
              </li>
            ))}
          </ol>
        </>
      )}
      {restsOn.length > 0 && (
        <Reveal
          key={String(allowed)}
          className="mt-2"
          look="text-sm text-faint"
          open={allowed}
          words={`${restsOn.length === 1 ? 'One reading' : `${restsOn.length} readings`} it ${allowed ? 'rests' : 'would rest'} on`}
        >
          <ol className="grid gap-x-4 lg:grid-cols-2">
            {restsOn.map((r) => (
              <li key={pointKey(r)} className="flex items-baseline gap-2 px-2 py-0.5">
                <span aria-hidden className="text-verdigris">
                  ✓
                </span>
                <Words reading={r} board={board} assumed={assumed.has(r)} />
              </li>
            ))}
          </ol>
        </Reveal>
      )}
      {unseen.length > 0 && (
        <p className="mt-1 text-sm text-faint">
          No cold reading tells a short from {unseen.slice(0, 3).join(', ')}
          {unseen.length > 3 && ' …'} from the winding there: power it through the lamp first.
        </p>
      )}
    </div>
  );
}

/** Of readings that a permit asks for those at places that are only assumed: there they earn nothing. */
export function useAssumedPlaces(board: Board, permit: PowerPermit | null): ReadonlySet<PermitReading> {
  const engine = useEngine();
  return useMemo(
    () =>
      new Set(
        // Each is solved: not where nothing is assumed.
        engine && board.parts.some((p) => p.basis === 'assumed')
          ? permit?.clearing.filter((r) => !engine.isPlaceConfirmed(board, r.mode, r.red, r.black))
          : [],
      ),
    [engine, board, permit],
  );
}

function Words({ reading, board, assumed }: { reading: PermitReading; board: Board; assumed: boolean }) {
  const place = (net: string): string => easiestPlace(board, net);
  return (
    <span className="min-w-0 flex-1">
      <span className="block">
        {MODE_NAMES[reading.mode]}: {place(reading.red)} <span className="text-faint">from</span> {place(reading.black)}
      </span>
      <span className="block text-xs text-faint">
        rules out {reading.rulesOut}
        {assumed && ' (assumed place)'}
      </span>
    </span>
  );
}

/** A reading of the list as a point that is read next. */
export function asPlanned({ mode, red, black }: ProbePoint): PlanEntry {
  return { mode, red, black, gainBits: 0, seconds: 10, settle: 0, split: [], again: false, creep: null };
}
