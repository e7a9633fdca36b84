'use client';
import { TOPOLOGIES } from '@/core/stages';
import type { Explanation, StageMap } from '@/core/stages';
import { Button } from '@/ui/Button';
import { Reveal } from '@/ui/Reveal';
import { Select } from '@/ui/Select';

/** Below this the rival and its question stand open; above, one click away. */
const SURE = 0.95;

export const topologyWords = (topology: string): string => topology.replaceAll('-', ' ').replaceAll('+', ', then ');

/**
 * How the board is read: each converter with how sure that is, what else it may be and the question that settles it, and
 * what must be there and nobody has traced yet. `onSettle` takes a line of the bench shorthand.
 */
export function ConverterReading({ map, onSettle }: { map: StageMap; onSettle(line: string): void }) {
  const { topology, topologyConfidence, topologyWhy, converters, missing } = map;
  return (
    <section aria-label="How this board is read" className="flex flex-col gap-2">
      <p>
        <strong className="text-lg">{topologyWords(topology)}</strong>{' '}
        <span className={`figure ${topologyConfidence < SURE ? 'text-brass' : 'text-faint'}`}>
          {Math.round(100 * topologyConfidence)} %
        </span>{' '}
        {converters.length < 2 && <span className="text-sm text-faint">{topologyWhy.map(withoutName).join('; ')}</span>}
      </p>
      {missing.length > 0 && (
        <ul aria-label="Not traced yet" className="border-l-4 border-brass bg-raised px-3 py-1.5">
          {missing.map((m) => (
            <li key={m}>
              <span aria-hidden className="text-brass">
                ○
              </span>{' '}
              {m}
            </li>
          ))}
        </ul>
      )}
      {converters.map((c) => (
        <Reading key={`${c.topology} ${c.ref}`} reading={c} alone={converters.length === 1} onSettle={onSettle} />
      ))}
    </section>
  );
}

/** The reason without the name that stands before it. */
const withoutName = (why: string): string => why.replace(/^[a-z-]+: /u, '');

function Reading({
  reading: c,
  alone,
  onSettle,
}: {
  reading: Explanation;
  alone: boolean;
  onSettle(line: string): void;
}) {
  const settle = (topology: string): void => onSettle(`topology ${c.ref} ${topology}`);
  const setByHand = c.confidence === 1;
  return (
    <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1 text-sm">
      {!alone && (
        <>
          <span className="w-40 font-semibold">{topologyWords(c.topology)}</span>
          <span className="figure w-12 text-faint">{setByHand ? 'set' : `${Math.round(100 * c.confidence)} %`}</span>
          <span className="min-w-0 flex-1 text-faint">{c.why}</span>
        </>
      )}
      {c.ref !== '' && (
        <Select
          label={
            <>
              <span className="figure">{c.ref}</span> works in a
            </>
          }
          place="beside"
          look="slim"
          value={c.topology}
          options={TOPOLOGIES.map((t) => ({ value: t, words: topologyWords(t) }))}
          onChoose={settle}
        />
      )}
      {c.rival && c.ref !== '' && (
        <Reveal
          key={c.rival.topology}
          className="w-full"
          look="text-faint"
          open={c.confidence < SURE}
          words={`or ${topologyWords(c.rival.topology)}?`}
        >
          <p className="flex flex-wrap items-center gap-3 py-1">
            {c.rival.question}
            <Button onClick={() => settle(c.rival!.topology)}>Yes: {topologyWords(c.rival.topology)}</Button>
            <Button onClick={() => settle(c.topology)}>No: {topologyWords(c.topology)}</Button>
          </p>
        </Reveal>
      )}
    </div>
  );
}
