import type { Outcome } from '@/core/expect';

const MARKS = {
  agree: { sign: '✓', word: 'agrees', look: 'text-verdigris' },
  disagree: { sign: '✕', word: 'disagrees', look: 'text-oxide' },
  noted: { sign: '●', word: 'noted', look: 'text-slate' },
} as const satisfies Record<Outcome, unknown>;

const GONE = { sign: '●', word: 'its place is not on this board any more', look: 'text-faint' } as const;

/** A judged reading in a row. */
export function OutcomeMark({ outcome, figure }: { outcome: Outcome | null; figure: string }) {
  const { sign, word, look } = outcome === null ? GONE : MARKS[outcome];
  return (
    <span className={look}>
      <span aria-hidden>{sign}</span> read <span className="figure">{figure}</span>, {word}
    </span>
  );
}
