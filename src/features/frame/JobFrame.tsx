'use client';
import { ArrowLeft } from 'lucide-react';
import Link from 'next/link';
import { Fragment } from 'react';
import type { ReactNode } from 'react';
import { beginAnew, useWorkers } from '@/features/job/workers';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import { Select } from '@/ui/Select';
import { ActorChoice } from './ActorChoice';
import { HazardWord } from './HazardWord';
import { useJob, useStanding } from '@/features/job/JobContext';
import { FrameKeys } from './FrameKeys';
import { LampPost } from './LampPost';
import { lineWords } from './lineWords';
import { LedgerPanel } from './LedgerPanel';
import { LiveBanner } from './LiveBanner';
import { LogDrawer } from './LogDrawer';
import { ThemeSwitch } from './ThemeSwitch';

/** The frame of every job screen: lamp post, one slim strip, the work, the log. */
export function JobFrame({ children }: { children: ReactNode }) {
  const { job, boards, active, chooseBoard, actor, setActor, setTrouble, dismissRefused } = useJob();
  const { failed } = useWorkers();
  const { progress, live, lostSince, trouble, refused } = useStanding();
  return (
    <div className="print-flat flex h-screen flex-col">
      <header className="no-print flex h-13 shrink-0 items-center gap-4 border-b border-line px-4 max-sm:gap-2 max-sm:px-2">
        <Link
          href="/"
          className="font-semibold text-brass max-sm:grid max-sm:min-h-[44px] max-sm:min-w-8 max-sm:place-items-center"
        >
          <ArrowLeft aria-hidden className="hidden size-5 max-sm:block" />
          <span className="max-sm:sr-only">Bench</span>
        </Link>
        <span className="figure text-lg font-bold">{job.tag}</span>
        <span className="min-w-0 flex-1 truncate max-sm:invisible">
          {job.unit} <span className="text-faint">{String(job.nameplate['input'] ?? '')}</span>
        </span>
        {boards.length > 1 && (
          <Select
            label="Board worked on"
            place="hidden"
            look="slim"
            box="max-w-44"
            value={active.id}
            options={boards.map((b) => ({ value: b.id, words: b.label }))}
            onChoose={chooseBoard}
          />
        )}
        <ActorChoice actor={actor} onChoose={setActor} className="max-lg:hidden" />
        <LogDrawer />
        <FrameKeys tag={job.tag} board={active.board} />
        <span className="max-sm:hidden">
          <ThemeSwitch />
        </span>
        <HazardWord state={progress.hazard.state} since={lostSince} large />
      </header>
      {progress.hazard.state === 'LIVE' && (
        <p role="status" className="no-print shrink-0 bg-oxide px-4 py-1 font-semibold text-ground">
          {progress.hazard.reason} Treat this unit as live.
        </p>
      )}
      {progress.hazard.state === 'UNKNOWN' && (
        <p role="status" className="no-print shrink-0 bg-brass px-4 py-1 font-semibold text-ground">
          {progress.hazard.reason} Prove it again before you touch it.
        </p>
      )}
      <LiveBanner jobs={live.filter((other) => other.tag !== job.tag)} />
      <div className="print-flat flex min-h-0 flex-1 max-sm:flex-col-reverse">
        <LampPost />
        <main className="print-flat min-w-0 flex-1 overflow-y-auto p-5 max-sm:p-3" id="work" tabIndex={-1}>
          {failed && (
            <Notice kind="trouble" className="no-print mb-4">
              <strong>What computes could not be fetched, or has broken down.</strong> Nothing that was written is lost;
              what is shown may be out of date. <Button onClick={beginAnew}>Try again</Button>
            </Notice>
          )}
          {trouble && (
            <Notice kind="trouble" className="no-print mb-4">
              <strong>{trouble.sentence}</strong> {trouble.remedy}{' '}
              <button
                type="button"
                className="text-slate underline"
                onClick={() => {
                  setTrouble(null);
                  if (refused.length < 2) dismissRefused();
                }}
              >
                seen
              </button>
            </Notice>
          )}
          {active.damaged !== null && (
            <Notice kind="trouble" className="no-print mb-4">
              <strong>{active.label} cannot be read:</strong> {active.damaged}. It is kept as it is; an empty board
              stands in for it here.{' '}
              <a className="text-slate underline" href={`/api/jobs/${job.tag}/export?as=raw`}>
                Export it
              </a>
            </Notice>
          )}
          {(refused.length > 1 || (refused.length === 1 && !trouble)) && (
            <Notice kind="trouble" className="no-print mb-4">
              <strong>
                {refused.length === 1 ? 'A line was' : `${refused.length} lines were`} set aside, the others went on:
              </strong>
              <ul className="list-inside list-disc">
                {refused.map(({ line, problem }) => (
                  <li key={line.clientKey}>
                    {lineWords(line.entry).head}: {problem.sentence}
                  </li>
                ))}
              </ul>
              <button type="button" className="text-slate underline" onClick={dismissRefused}>
                seen
              </button>
            </Notice>
          )}
          {/* What is picked and typed belongs to one board. */}
          <Fragment key={active.id}>{children}</Fragment>
        </main>
        <LedgerPanel />
      </div>
    </div>
  );
}
