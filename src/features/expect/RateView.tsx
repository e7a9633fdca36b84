'use client';
import { useState } from 'react';
import { Progress } from '@/ui/Progress';
import { formatQuantity } from '@/core/quantity';
import { quantityWords } from '@/core/rate';
import type { RatedStrain, UsableOutput } from '@/core/rate';
import { VERDICT_LOOKS } from '@/features/frame/verdictLooks';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import type { RatedBoard } from '@/workers/workingMessages';

/** Parts by how close they run to what they are made for, and what the unit can give by them. */
export function RateView({
  rated,
  rating,
  onStop,
}: {
  rated: RatedBoard | null;
  rating: number | null;
  onStop(): void;
}) {
  const progress = rating !== null && (
    <p className="flex items-center gap-3" role="status">
      Working out every corner of source and load …
      <Progress className="w-40" value={rating} label="Ratings worked out" />
      <Button kind="quiet" onClick={onStop}>
        Stop
      </Button>
    </p>
  );
  if (!rated) return <>{progress || <p>What feeds this unit is not known yet: its nameplate tells at intake.</p>}</>;
  const { rows, missing } = rated.rated;
  return (
    <div className="flex flex-col gap-4">
      {progress}
      {rated.usable && <Usable usable={rated.usable} />}
      {missing.length > 0 && (
        <Notice kind="note">
          Not worked out:{' '}
          {missing.map((c) => `${formatQuantity(c.source, 'V')} with ${c.share === 0 ? 'no' : 'full'} load`).join(', ')}
          . The unit as it is known does not run steadily there.
        </Notice>
      )}
      <RateTable rows={rows} />
    </div>
  );
}

const CLAIMS: Readonly<Record<UsableOutput['claim'], readonly [string, string]>> = {
  'over-claimed': ['Over-claimed', 'text-oxide'],
  fair: ['Fairly claimed', 'text-verdigris'],
  unknown: ['Not known yet', 'text-slate'],
};

/** How far the scale of loads goes, as a share of the nameplate's. */
const SCALE = 1.5;

function Usable({ usable }: { usable: UsableOutput }) {
  const [words, ink] = CLAIMS[usable.claim];
  const at = (share: number): string => `${(100 * Math.min(share, SCALE)) / SCALE}%`;
  const known = usable.claim !== 'unknown';
  return (
    <section aria-label="Usable output" className="border-l-4 border-brass bg-raised px-4 py-3">
      <h2 className={`text-lg font-bold ${ink}`}>{words}</h2>
      <p className="max-w-prose text-lg">{usable.sentence}</p>
      {known && (
        <div
          className="relative mt-3 mb-6 h-4 border border-line"
          role="img"
          aria-label={`Usable up to ${Math.round(100 * usable.share)} % of the nameplate's load`}
        >
          <div className="absolute inset-y-0 left-0 bg-verdigris/50" style={{ width: at(usable.share) }} />
          <div className="absolute -inset-y-1 w-0.5 bg-ink" style={{ left: at(1) }} />
          <span className="absolute top-5 -translate-x-1/2 text-sm text-faint" style={{ left: at(1) }}>
            nameplate
          </span>
          <span
            className="figure absolute top-5 -translate-x-full pr-2 text-sm"
            style={{
              left: at(Math.min(usable.share, usable.share > 0.85 && usable.share < 1.15 ? 0.85 : usable.share)),
            }}
          >
            {Math.round(100 * usable.share)} %
          </span>
        </div>
      )}
      {usable.standing.length > 0 && (
        <p className="text-sm">
          Whatever the load:{' '}
          {usable.standing.map((r) => `${r.ref} ${r.verdict} (${quantityWords(r.quantity)})`).join(', ')}.
        </p>
      )}
    </section>
  );
}

/** Stress against limit and rating: the bar ends at the rating. */
function Bar({ row: { stress, rating, limit, verdict } }: { row: RatedStrain }) {
  if (rating === null || limit === null) return null;
  const width = 120;
  const x = (v: number): number => Math.min((v / rating) * 100, width);
  return (
    <svg width={width} height="14" aria-hidden className={VERDICT_LOOKS[verdict][1]}>
      <rect x="0" y="3" width="100" height="8" fill="none" stroke="var(--line)" />
      <rect x="0" y="3" width={x(stress)} height="8" fill="currentColor" opacity="0.8" />
      <line x1={x(limit)} x2={x(limit)} y1="0" y2="14" stroke="var(--ink)" strokeWidth="2" />
    </svg>
  );
}

const FEW = 12;

function RateTable({ rows }: { rows: readonly RatedStrain[] }) {
  const [all, setAll] = useState(false);
  const [open, setOpen] = useState<string | null>(null);
  const judged = rows.filter((r) => r.verdict !== 'unknown');
  const unknown = rows.filter((r) => r.verdict === 'unknown');
  const bad = judged.filter((r) => r.verdict !== 'ok');
  const first = judged.slice(0, Math.max(FEW, bad.length));
  const shown = all ? [...judged, ...unknown] : first;
  const left = rows.length - shown.length;
  return (
    <div>
      <table className="w-full" aria-label="Parts by how close they run">
        <thead className="text-left text-sm text-faint">
          <tr>
            <th className="w-24 font-normal">Verdict</th>
            <th className="w-20 font-normal">Part</th>
            <th className="font-normal">What</th>
            <th className="w-24 pr-3 text-right font-normal">Bears</th>
            <th className="w-24 pr-3 text-right font-normal">Used up to</th>
            <th className="w-24 pr-3 text-right font-normal">Rated</th>
            <th className="w-32 font-normal">
              <span className="sr-only">Bar</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map((r) => (
            <RateRow key={`${r.ref} ${r.quantity}`} row={r} open={open === `${r.ref} ${r.quantity}`} onOpen={setOpen} />
          ))}
        </tbody>
      </table>
      {left > 0 && (
        <Button kind="quiet" className="text-sm" aria-expanded={all} onClick={() => setAll(true)}>
          and {left} more: {judged.length - first.length} within their limits, {unknown.length} whose rating nobody
          noted
        </Button>
      )}
      {all && (
        <Button kind="quiet" className="text-sm" aria-expanded onClick={() => setAll(false)}>
          only the closest
        </Button>
      )}
    </div>
  );
}

function RateRow({ row: r, open, onOpen }: { row: RatedStrain; open: boolean; onOpen(key: string | null): void }) {
  const [sign, ink] = VERDICT_LOOKS[r.verdict];
  const key = `${r.ref} ${r.quantity}`;
  const show = (v: number | null): string => (v === null ? '—' : formatQuantity(v, r.unit));
  return (
    <>
      <tr data-verdict={r.verdict} className={`border-t border-line ${open ? 'bg-raised' : ''}`}>
        <td className={ink}>
          <span aria-hidden className="inline-block w-5">
            {sign}
          </span>
          {r.verdict}
        </td>
        <td className="figure">
          <button
            type="button"
            aria-expanded={open}
            onClick={() => onOpen(open ? null : key)}
            className="py-1 underline decoration-dotted"
          >
            {r.ref}
          </button>
        </td>
        <td>{quantityWords(r.quantity)}</td>
        <td className="figure pr-3 text-right">{show(r.stress)}</td>
        <td className="figure pr-3 text-right text-faint">{show(r.limit)}</td>
        <td className="figure pr-3 text-right text-faint">{show(r.rating)}</td>
        <td>
          <Bar row={r} />
        </td>
      </tr>
      {open && (
        <tr className="bg-raised">
          <td colSpan={7} className="border-l-2 border-brass px-4 pb-2">
            <p>{r.why}.</p>
            {r.remedy && (
              <p className="text-sm">
                {r.rating === null ? 'To learn it: ' : 'To bring it back: '}
                {r.remedy}.
              </p>
            )}
            <p className="text-sm text-faint">
              {r.follows ? 'It grows with the load.' : 'The load does not change it.'}
            </p>
          </td>
        </tr>
      )}
    </>
  );
}
