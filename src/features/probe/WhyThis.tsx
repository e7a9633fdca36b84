'use client';
import { easiestPlace } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { faultWords } from '@/core/fault';
import type { ProbePoint, Witness } from '@/core/diagnose';
import { MODE_WORDS, seenWords } from '@/features/frame/lineWords';
import type { Weighed } from '@/features/job/SuspectsContext';
import { Reveal } from '@/ui/Reveal';

/** Why the first suspect stands where it stands: the readings for and against it, and what would tell it from the next. */
export function WhyThis({ board, weighed }: { board: Board; weighed: Weighed }) {
  const { evidence, ledBy } = weighed;
  if (!evidence) return null;
  const { for: speaksFor, against, apart } = evidence;
  const from = apart && (apart.from === 'none' ? 'a healthy board' : faultWords(board, apart.from));
  const sum = [
    speaksFor.length === 0 ? 'no reading speaks for it' : `${count(speaksFor)} for it`,
    ...(against.length > 0 ? [`${count(against)} against`] : []),
    ...(ledBy === 'prior' ? ['ahead by how common it is'] : []),
  ].join(', ');
  const place = (net: string): string => easiestPlace(board, net);
  const words = ({ mode, red, black }: ProbePoint): string => `${MODE_WORDS[mode]}, ${place(red)} from ${place(black)}`;
  const telling = apart && `${words(apart.point)} tells it from ${from}`;
  return (
    <Reveal className="text-xs text-faint" look="" words={sum}>
      {telling && <p>{telling}</p>}
      {speaksFor.length + against.length > 0 && (
        <ul className="mt-0.5 flex flex-col gap-0.5">
          {[...speaksFor, ...against].map((w) => (
            <li key={`${w.point.mode} ${w.point.red} ${w.point.black}`} className="flex gap-2">
              <span aria-hidden className={w.weight > 0 ? 'text-verdigris' : 'text-oxide'}>
                {w.weight > 0 ? '✓' : '✕'}
              </span>
              <span className="sr-only">{w.weight > 0 ? 'for' : 'against'}</span>
              <span className="min-w-0 flex-1">{words(w.point)}</span>
              <span className="figure">
                {seenWords(w.point.mode, { ...w.seen, unsteady: w.seen.kind === 'at-least' })}
                {w.times > 1 && ` ×${w.times}`}
              </span>
            </li>
          ))}
        </ul>
      )}
    </Reveal>
  );
}

/** So many readings, each point as often as it was read. */
export function count(witnesses: readonly Witness[]): string {
  const times = witnesses.reduce((sum, w) => sum + w.times, 0);
  return times === 1 ? 'one reading' : `${times} readings`;
}
