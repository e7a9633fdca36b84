import { judgeSweep } from '@/core/sweep';
import { useJob } from '@/features/job/JobContext';
import type { TracedJobBoard } from '@/core/job';
import { stressWords } from '@/features/frame/stressWords';
import { SweepPlot } from '@/features/frame/SweepPlot';
import { useModifications } from '@/features/job/useModifications';
import { useAllSweeps } from '@/features/job/useSweeps';

const PLOT_WIDTH = 620;

/** What was changed on purpose on a board: parts, reason, what it touches now, and whether its sweep proved it. */
export function Modified({ home }: { home: TracedJobBoard }) {
  const { boards } = useJob();
  const changes = [...useModifications(home)].reverse();
  if (changes.length === 0) return null;
  return (
    <section className="mb-4">
      <h2 className="font-semibold">Modified{boards.length > 1 && `, ${home.label}`}</h2>
      <ul className="list-inside list-disc">
        {changes.map((m) => (
          <li key={m.id}>
            {m.body.title}: {m.body.parts.map((p) => `${p.ref} ${p.words}`).join('; ')}. {m.body.why}.{' '}
            <strong>
              {m.verdict === null
                ? 'Not proved.'
                : m.verdict.verified
                  ? `Verified by ${m.verdict.actor}.`
                  : 'Not verified.'}
            </strong>{' '}
            <span className="text-faint">{stressWords(m.stress)}.</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Sweeps with rows: what they show, in words and drawn. */
export function Sweeps() {
  const sweeps = useAllSweeps().filter((s) => s.rows.length > 0);
  if (sweeps.length === 0) return null;
  return (
    <section className="mb-4">
      <h2 className="font-semibold">Sweeps</h2>
      {sweeps.map((s) => (
        <div key={s.id} className="break-inside-avoid text-sm">
          <p>
            {s.setup.title}, {s.rows.length} {s.rows.length === 1 ? 'row' : 'rows'}.{' '}
            {judgeSweep(s.setup, s.rows)
              .filter((v) => v.verdict !== 'open')
              .map((v) => `${v.verdict === 'ok' ? 'Within' : 'Not within'}: ${v.words}.`)
              .join(' ')}
          </p>
          <SweepPlot setup={s.setup} rows={s.rows} width={PLOT_WIDTH} height={88} />
        </div>
      ))}
    </section>
  );
}
