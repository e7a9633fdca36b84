'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { LiveBanner } from '@/features/frame/LiveBanner';
import { useSettings } from '@/features/job/SettingsContext';
import { useContact } from '@/features/job/useContact';
import { FrameKeys } from '@/features/frame/FrameKeys';
import { ThemeSwitch } from '@/features/frame/ThemeSwitch';
import { Tick } from '@/ui/Tick';
import { PrimaryLink } from '@/ui/PrimaryLink';
import { JobsTable } from './JobsTable';
import type { BenchRow } from './benchRow';

/** Keeps the list fresh: anew when something was written anywhere, and when a proof runs out. Gives since when there is no contact. */
function useFreshBench(rows: readonly BenchRow[]): number | null {
  const router = useRouter();
  const mark = useRef<string | null>(null);
  const lostSince = useContact<{ mark: string }>(
    'bench',
    () => '/api/pulse',
    (news) => {
      if (mark.current !== null && mark.current !== news.mark) router.refresh();
      mark.current = news.mark;
    },
  );
  useEffect(() => {
    const minutes = Math.min(...rows.flatMap((r) => r.minutesLeft ?? []));
    if (!Number.isFinite(minutes)) return;
    const timer = window.setTimeout(() => router.refresh(), minutes * 60_000 + 500);
    return () => window.clearTimeout(timer);
  }, [rows, router]);
  return lostSince;
}

/** The bench: every job, the ones to go on with first. */
export function BenchScreen({ rows }: { rows: readonly BenchRow[] }) {
  const [wanted, setWanted] = useState('');
  const [away, setAway] = useState(false);
  const search = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const lostSince = useFreshBench(rows);
  const { workshop } = useSettings();
  const shown = useMemo(() => {
    const words = wanted.toLowerCase().split(/\s+/u).filter(Boolean);
    // What was put away is found by words alone.
    return rows.filter(
      (r) =>
        (words.length > 0 || away || !r.archived) &&
        words.every((w) => `${r.tag} ${r.unit} ${r.step} ${r.hazard} ${r.waitingFor}`.toLowerCase().includes(w)),
    );
  }, [rows, wanted, away]);
  const putAway = rows.filter((r) => r.archived).length;
  return (
    <div className="mx-auto flex min-h-screen max-w-[1280px] flex-col px-6 py-5 max-sm:px-3">
      <header className="mb-6 flex flex-wrap items-center gap-5 max-sm:gap-3">
        <h1 className="text-2xl font-bold text-brass">Rough Lantern</h1>
        <p className="text-faint">Bench{workshop.name === '' ? '' : `, ${workshop.name}`}</p>
        <input
          ref={search}
          type="search"
          value={wanted}
          onChange={(e) => setWanted(e.target.value)}
          onKeyDown={(e) => {
            const [first] = shown;
            if (e.key === 'Enter' && first) router.push(`/jobs/${first.tag}/${first.stepPath}`);
          }}
          placeholder="tag, unit, what it waits for"
          aria-label="Search jobs"
          className="ml-auto w-80 min-w-0 rounded-sm max-sm:order-last max-sm:w-full border border-line bg-raised px-3 py-1.5 placeholder:text-faint"
        />
        <Link href="/sums" className="text-slate underline underline-offset-4">
          Sums
        </Link>
        <Link href="/settings" className="text-slate underline underline-offset-4">
          Settings
        </Link>
        <FrameKeys />
        <ThemeSwitch />
        <PrimaryLink href="/jobs/new">New job</PrimaryLink>
      </header>
      <div className="mb-4">
        <LiveBanner jobs={rows.filter((r) => r.hazard === 'LIVE')} />
      </div>
      {rows.length === 0 ? (
        <p className="text-lg">
          No job on the bench yet. Take one in: it needs a tag, the nameplate and what is wrong with it.
        </p>
      ) : (
        <JobsTable rows={shown} wanted={wanted} lostSince={lostSince} />
      )}
      {putAway > 0 && (
        <div className="mt-4">
          <Tick label={`Show ${putAway} put away`} checked={away} onTick={setAway} />
        </div>
      )}
    </div>
  );
}
