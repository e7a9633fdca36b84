'use client';
import type { ComponentProps } from 'react';
import { useBothRefs, useLitFocus } from './useLitFocus';

type Kind = 'primary' | 'plain' | 'quiet' | 'danger';

const LOOKS: Readonly<Record<Kind, string>> = {
  primary: 'bg-brass text-on-brass font-semibold px-4 py-2 hover:brightness-110',
  plain: 'border border-line bg-raised text-ink px-3 py-1.5 hover:border-ink',
  quiet: 'text-slate underline underline-offset-4 px-1 py-0.5 hover:text-ink',
  danger: 'border-2 border-oxide text-oxide px-3 py-1.5 hover:bg-oxide-ground',
};

/** A button. One `primary` is lit on each screen: the next thing to do. */
export function Button({
  kind = 'plain',
  className = '',
  autoFocus,
  ref: held,
  ...rest
}: ComponentProps<'button'> & { kind?: Kind }) {
  const ref = useBothRefs(useLitFocus<HTMLButtonElement>(autoFocus), held);
  return (
    <button
      type="button"
      ref={ref}
      data-primary={kind === 'primary' ? 'yes' : undefined}
      className={`rounded-sm disabled:opacity-50 ${LOOKS[kind]} ${className}`}
      {...rest}
    />
  );
}

/** The look of a primary action, for links and submit inputs. */
export const PRIMARY_LOOK = `rounded-sm ${LOOKS.primary}`;

/** The look of a button that is a sign alone; its words are for a screen reader. */
export const ICON_LOOK =
  'grid size-8 place-items-center rounded-sm border border-line text-faint hover:text-ink pointer-coarse:size-[44px]';
