'use client';

import { linesOf } from '@/core/job';
import { formatQuantity } from '@/core/quantity';
import { PROOF_MINUTES, REGAIN_MINUTES } from '@/core/safety';
import { useJob } from '@/features/frame/JobContext';
import { Button } from '@/ui/Button';
import { PrimaryLink } from '@/ui/PrimaryLink';
import { Notice } from '@/ui/Notice';
import { StoreRow } from '@/features/frame/StoreRow';

/** Make safe: isolate every source, empty every store, prove it with the meter. */
export function SafeScreen() {
  const { job, lines, progress, addLine, now } = useJob();
  const { hazard } = progress;
  const isolated = new Map(
    linesOf<{ source: string }>(lines, 'isolation').map(({ line, body }) => [body.source, line] as const),
  );
  const nextSource = job.sources.find((s) => !isolated.has(s.name));
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
        <ul className="flex flex-col gap-2">
          {job.sources.map((source) => {
            const line = isolated.get(source.name);
            const lit = source.name === nextSource?.name;
            return (
              <li key={source.name} className="flex items-center gap-4">
                <span className="w-56">{source.name}</span>
                {line ? (
                  <span className="text-verdigris">✓ isolated by {line.actor}</span>
                ) : (
                  <Button
                    kind={lit ? 'primary' : 'plain'}
                    autoFocus={lit}
                    onClick={() => void addLine({ kind: 'isolation', body: { source: source.name } })}
                  >
                    {isolationWords(source.kind)}
                  </Button>
                )}
              </li>
            );
          })}
        </ul>
        {job.sources.some((s) => s.kind === 'battery') && (
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
          DC volts, highest range first. To touch: below 60 V, in the wet below 30 V. For ohms or diode test: below 0.2
          V. A proof holds {PROOF_MINUTES} minutes; read again after {REGAIN_MINUTES} minutes, charge creeps back.
        </p>
        <div className="flex flex-col gap-3">
          {hazard.stores.map((state) => (
            <StoreRow
              key={state.store.key}
              state={state}
              lit={state === nextStore}
              locked={nextSource !== undefined}
              now={now}
            />
          ))}
        </div>
        {hazard.stores.length === 0 && <p>No capacitor on this board holds more than 10 mJ or 60 V.</p>}
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
