import type { ReactNode } from 'react';

const MARKS = { caution: '▲', trouble: '✕', note: '●', good: '✓' } as const;
const LOOKS = {
  caution: 'border-oxide text-ink',
  trouble: 'border-oxide bg-oxide-ground text-ink',
  note: 'border-slate text-ink',
  good: 'border-verdigris text-ink',
} as const;
const INK = { caution: 'text-oxide', trouble: 'text-oxide', note: 'text-slate', good: 'text-verdigris' } as const;

/** A specific caution, trouble or note, with a shape of its own besides its colour. */
export function Notice({
  kind,
  children,
  className = '',
}: {
  kind: keyof typeof MARKS;
  children: ReactNode;
  className?: string;
}) {
  return (
    <div
      role={kind === 'trouble' ? 'alert' : 'note'}
      className={`flex gap-2 border-l-4 bg-raised px-3 py-2 ${LOOKS[kind]} ${className}`}
    >
      <span aria-hidden className={INK[kind]}>
        {MARKS[kind]}
      </span>
      <div className="min-w-0">{children}</div>
    </div>
  );
}
