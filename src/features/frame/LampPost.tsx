'use client';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { Fragment } from 'react';
import { STEPS, STEP_NAMES, TOOLS } from '@/core/job';
import type { Lamp, Tool } from '@/core/job';
import { useJob, useStanding } from '@/features/job/JobContext';
import { useMovedSums } from '@/features/job/useMovedSums';

const LAMP_WORDS: Readonly<Record<Lamp, string>> = { unlit: 'not begun', part: 'begun', lit: 'done' };

/** The job's steps as a vertical row of lamps; the one that needs attention is marked. */
export function LampPost() {
  const { job } = useJob();
  const { progress } = useStanding();
  const path = usePathname();
  const moved = useMovedSums();
  return (
    <nav
      aria-label="Steps of the job"
      className="no-print flex w-40 shrink-0 flex-col border-r border-line py-4 max-lg:w-14 max-sm:relative max-sm:w-full max-sm:flex-row max-sm:overflow-x-auto max-sm:border-t max-sm:border-r-0 max-sm:py-0"
    >
      <ol className="flex flex-col max-sm:flex-row">
        {STEPS.map((step, i) => {
          const beside = step === 'probe' ? <ToolLink tool="expect" tag={job.tag} path={path} moved={0} /> : null;
          const here = path.endsWith(`/${step}`);
          const attention = progress.attention === step;
          return (
            <Fragment key={step}>
              {beside}
              <li className="relative">
                {i > 0 && <span aria-hidden className="absolute -top-2 left-[26px] h-4 w-px bg-line max-sm:hidden" />}
                <Link
                  href={`/jobs/${job.tag}/${step}`}
                  aria-current={here ? 'page' : undefined}
                  className={`flex items-center gap-3 py-2 pr-2 pl-4 max-sm:min-h-[44px] max-sm:min-w-[44px] max-sm:justify-center max-sm:px-2 ${here ? 'bg-raised font-semibold' : ''}`}
                >
                  <LampSign lamp={progress.lamps[step]} />
                  <span className="max-lg:sr-only">
                    {STEP_NAMES[step]}
                    <span className="sr-only">, {LAMP_WORDS[progress.lamps[step]]}</span>
                    {attention && (
                      <span className="block text-xs font-normal text-brass" aria-label="needs attention">
                        ▸ here next
                      </span>
                    )}
                  </span>
                </Link>
              </li>
            </Fragment>
          );
        })}
      </ol>
      <ul
        aria-label="At hand"
        className="mt-4 flex flex-col border-t border-line pt-3 max-sm:mt-0 max-sm:flex-row max-sm:border-t-0 max-sm:border-l max-sm:pt-0"
      >
        {(Object.keys(TOOLS) as Tool[])
          .filter((tool) => tool !== 'expect')
          .map((tool) => (
            <ToolLink key={tool} tool={tool} tag={job.tag} path={path} moved={moved} />
          ))}
      </ul>
      <p className="mt-auto px-4 text-sm text-faint max-lg:hidden">
        <kbd>g</kbd> then <kbd>1</kbd>–<kbd>6</kbd> goes to a step, <kbd>g</kbd> then a letter to what is at hand.{' '}
        <kbd>?</kbd> lists keys.
      </p>
    </nav>
  );
}

/** A way to what is at hand, by its letter. */
function ToolLink({ tool, tag, path, moved }: { tool: Tool; tag: string; path: string; moved: number }) {
  const { key, name } = TOOLS[tool];
  const here = path.endsWith(`/${tool}`);
  return (
    <li>
      <Link
        href={`/jobs/${tag}/${tool}`}
        aria-current={here ? 'page' : undefined}
        className={`flex items-center gap-3 py-1.5 pr-2 pl-4 max-sm:min-h-[44px] max-sm:min-w-[44px] max-sm:justify-center max-sm:px-2 ${here ? 'bg-raised font-semibold' : ''}`}
      >
        <span aria-hidden className="figure w-[22px] text-center text-sm text-faint">
          {key}
        </span>
        <span className="max-lg:sr-only">
          {name}
          {tool === 'sums' && moved > 0 && (
            <span className="block text-xs font-normal text-brass">
              ▸ {moved === 1 ? 'one has moved' : `${moved} have moved`}
            </span>
          )}
        </span>
      </Link>
    </li>
  );
}

function LampSign({ lamp }: { lamp: Lamp }) {
  return (
    <svg aria-hidden width="22" height="26" viewBox="0 0 22 26" className="shrink-0">
      <path d="M8 3h6v3H8z" fill="var(--faint)" />
      <path d="M5 6h12l-2 15H7z" fill="none" stroke="var(--faint)" strokeWidth="1.5" />
      {lamp !== 'unlit' && (
        <path d={lamp === 'lit' ? 'M5.8 7h10.4l-1.9 13H7.7z' : 'M6.9 14h8.2l-.9 6H7.7z'} fill="var(--brass)" />
      )}
      <path d="M7 21h8v2H7z" fill="var(--faint)" />
    </svg>
  );
}
