import type { Outcome } from '@/core/expect';

/** The last reading as it was judged. */
export interface LastOutcome {
  readonly outcome: Outcome;
  readonly seen: string;
  readonly expected: string;
  readonly where: string;
}

const LOOKS: Readonly<Record<Outcome, { readonly sign: string; readonly word: string; readonly look: string }>> = {
  agree: { sign: '✓', word: 'agrees', look: 'border-verdigris text-verdigris' },
  disagree: {
    sign: '✕',
    word: 'disagrees',
    look: 'border-oxide text-oxide bg-[repeating-linear-gradient(135deg,transparent_0_6px,var(--oxide-ground)_6px_9px)]',
  },
  noted: { sign: '●', word: 'noted', look: 'border-slate text-slate' },
};

/** Agree, disagree or noted, at once: each with its own shape and word. */
export function OutcomeLine({ last }: { last: LastOutcome | null }) {
  if (!last) return <p className="h-9 py-1.5 text-sm text-faint">The verdict on each reading shows here.</p>;
  const { sign, word, look } = LOOKS[last.outcome];
  return (
    <p role="status" data-outcome={last.outcome} className={`h-9 truncate border-l-4 px-3 py-1 ${look}`}>
      <strong>
        <span aria-hidden>{sign}</span> {word}
      </strong>
      <span className="text-ink">
        : <span className="figure">{last.seen}</span> at {last.where}, expected{' '}
        <span className="figure">{last.expected}</span>
      </span>
    </p>
  );
}
