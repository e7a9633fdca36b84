'use client';
import { useId } from 'react';
import type { ComponentProps, ReactNode } from 'react';
import { useBothRefs, useLitFocus } from './useLitFocus';

const BOX = 'w-full rounded-sm border border-line bg-ground px-2 py-1.5 text-ink placeholder:text-faint';

interface FieldText {
  readonly label: string;
  readonly hint?: ReactNode;
  readonly error?: string | undefined;
}

/** A labelled text input with an optional hint and error. */
export function TextField({
  label,
  hint,
  error,
  className = '',
  autoFocus,
  ref: held,
  ...rest
}: FieldText & ComponentProps<'input'>) {
  const id = useId();
  const ref = useBothRefs(useLitFocus<HTMLInputElement>(autoFocus), held);
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-sm text-faint">
        {label}
      </label>
      <input id={id} ref={ref} className={BOX} aria-invalid={error ? true : undefined} autoComplete="off" {...rest} />
      <Below hint={hint} error={error} />
    </div>
  );
}

/** A labelled box for several lines. */
export function TextArea({ label, hint, error, className = '', ...rest }: FieldText & ComponentProps<'textarea'>) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-sm text-faint">
        {label}
      </label>
      <textarea id={id} rows={2} className={BOX} {...rest} />
      <Below hint={hint} error={error} />
    </div>
  );
}

function Below({ hint, error }: { hint?: ReactNode; error?: string | undefined }) {
  if (error) {
    return (
      <p role="alert" className="mt-1 text-sm text-oxide">
        {error}
      </p>
    );
  }
  return hint ? <p className="mt-1 text-sm text-faint">{hint}</p> : null;
}
