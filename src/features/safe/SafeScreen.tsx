'use client';

import { withIds } from '@/core/job';
import { linesOf } from '@/core/ledger';
import { formatQuantity } from '@/core/quantity';
import { PROOF_MINUTES, REGAIN_MINUTES } from '@/core/safety';
import { useJob, useStanding } from '@/features/job/JobContext';
import { useWorkedVolts } from '@/features/job/useWorkedVolts';
import { Button } from '@/ui/Button';
import { PrimaryLink } from '@/ui/PrimaryLink';
import { Notice } from '@/ui/Notice';
import { StoreRow } from '@/features/frame/StoreRow';

/** Make safe: isolate every source, empty every store, prove it with the meter. */
export function SafeScreen() {
  const { job, sources, lines, active, addLine } = useJob();
  useWorkedVolts(active.board);
  const { progress } = useStanding();
  const { hazard } = progress;
  const listed = new Set(withIds(job.sources).map((s) => s.id));
  const firstLive = sources.findIndex((s) => s.isolatedBy === null);
  const nextSource = firstLive < 0 ? undefined : sources[firstLive];
  const wet = linesOf(lines, 'site').at(-1)?.body.wet ?? null;
  const asked = hazard.stores.filter((s) => s.store.proof || s.state === 'charged' || s.state === 'touch');
  const small = hazard.stores.filter((s) => !asked.includes(s));
  const nextStore = nextSource ? undefined : hazard.stores.find((s) => s.store.proof && s.state !== 'discharged');
  const done = !nextSource && !nextStore;
  const onward = progress.attention === 'safe' ? 'probe' : progress.attention;
  return (
    <div className="max-w-4xl">
      <div className="mb-4 flex items-start justify-between gap-4">
        <div>
          <h1 className="text-2xl font-bold">Make safe</h1>
          <p className="text-lg" aria-live="polite">
            {hazard.reason}
          </p>
        </div>
        {done && <PrimaryLink href={`/jobs/${job.tag}/${onward}`}>{progress.next}</PrimaryLink>}
      </div>
      <section aria-labelledby="sources" className="mb-6">
        <h2 id="sources" className="mb-2 font-semibold">
          Sources
        </h2>
        {job.broughtIn > 0 && (
          <p className="mb-2 text-faint">
            Brought in from a file: what was isolated and proved elsewhere is not known here.
          </p>
        )}
        <ul className="flex flex-col gap-2">
          {sources.map((source, i) => {
            const who = source.isolatedBy;
            const lit = i === firstLive;
            return (
              <li key={source.id} className="flex items-center gap-4">
                <span className="w-56">
                  {source.name}
                  {!listed.has(source.id) && (
                    <span className="block text-sm text-faint">taken off the list: be sure of it all the same</span>
                  )}
                </span>
                {who !== null ? (
                  <span className="text-verdigris">✓ isolated by {who}</span>
                ) : (
                  <Button
                    kind={lit ? 'primary' : 'plain'}
                    autoFocus={lit}
                    onClick={() => void addLine({ kind: 'isolation', body: { source: source.name, id: source.id } })}
                  >
                    {isolationWords(source.kind)}
                  </Button>
                )}
              </li>
            );
          })}
        </ul>
        {sources.some((s) => s.kind === 'battery') && (
          <Notice kind="caution" className="mt-3">
            Batteries: rings off, insulated tools, one pole at a time, ends taped. Swollen, leaking or hot: stop, take
            it outside, do not charge it.
          </Notice>
        )}
      </section>
      <section aria-labelledby="stores">
        <h2 id="stores" className="mb-1 font-semibold">
          What can hold a charge
        </h2>
        <p className="mb-3 text-faint">
          Waiting is not discharge, and a screwdriver is no tool for it: it pits leads and damages the capacitor. Read
          DC volts, highest range first. For ohms or diode test: below 0.2 V. A proof holds {PROOF_MINUTES} minutes;
          read again after {REGAIN_MINUTES} minutes, charge creeps back.
        </p>
        <fieldset className="mb-3 flex flex-wrap items-center gap-3">
          <legend className="sr-only">The place</legend>
          <span>
            To touch: below <strong className="figure">{formatQuantity(hazard.touchVolts, 'V')}</strong> here.{' '}
            {wet === null
              ? 'Is the place dry? Until somebody says, it counts as wet.'
              : wet
                ? 'The place is wet.'
                : 'The place is dry.'}
          </span>
          {wet !== false && (
            <Button kind="plain" onClick={() => void addLine({ kind: 'site', body: { wet: false } })}>
              It is dry
            </Button>
          )}
          {wet !== true && (
            <Button kind="plain" onClick={() => void addLine({ kind: 'site', body: { wet: true } })}>
              It is wet
            </Button>
          )}
        </fieldset>
        <div className="flex flex-col gap-3">
          {asked.map((state) => (
            <StoreRow
              key={`${state.store.boardId} ${state.store.key}`}
              state={state}
              lit={state === nextStore}
              locked={nextSource !== undefined}
            />
          ))}
        </div>
        {small.length > 0 && (
          <p className="mt-3 text-sm text-faint">
            Above 60 V, but too small to hurt, so no proof is asked for:{' '}
            {small.map((s) => `${s.store.refs.join(', ')} (${formatQuantity(s.store.joules, 'J', 2)})`).join('; ')}.
          </p>
        )}
      </section>
      {done && (
        <p className="mt-6">
          Leave a {formatQuantity(10e3, 'ohm')} clip lead across the big electrolytics while you work. Powering it, or a
          battery put back, ends every proof:{' '}
          <Button
            kind="danger"
            onClick={() => void addLine({ kind: 'recharged', body: { why: 'power or battery was connected' } })}
          >
            It was powered again
          </Button>
        </p>
      )}
    </div>
  );
}

function isolationWords(kind: string): string {
  if (kind === 'mains') return 'Unplugged';
  if (kind === 'battery') return 'Taken off, ends taped';
  return 'Disconnected';
}
