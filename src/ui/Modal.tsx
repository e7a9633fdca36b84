'use client';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

/**
 * A window over the page: it takes focus and gives it back, Escape and what lies beside it close it. look: where it stands and what
 * it looks like; heading: looks of its title, which is for a screen reader alone unless given; trigger: what opens it.
 */
export function Modal({
  title,
  heading = 'sr-only',
  note,
  look,
  trigger,
  open,
  onOpenChange,
  children,
}: {
  title: string;
  heading?: string;
  /** A line below the title. */
  note?: ReactNode;
  look: string;
  trigger?: ReactNode;
  open?: boolean;
  onOpenChange?(open: boolean): void;
  children: ReactNode;
}) {
  return (
    <Dialog.Root {...(open === undefined ? {} : { open })} {...(onOpenChange ? { onOpenChange } : {})}>
      {trigger && <Dialog.Trigger asChild>{trigger}</Dialog.Trigger>}
      <Dialog.Portal>
        <Dialog.Overlay className={MODAL_VEIL} />
        <Dialog.Content
          className={`fixed z-50 ${look}`}
          {...(note === undefined ? { 'aria-describedby': undefined } : {})}
        >
          <Dialog.Title className={heading}>{title}</Dialog.Title>
          {note !== undefined && <Dialog.Description className="mb-3 text-faint">{note}</Dialog.Description>}
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** What lies over the page behind a window. */
export const MODAL_VEIL = 'fixed inset-0 z-40 bg-black/60';
/** A window in the middle. */
export const MODAL_MIDDLE = 'top-1/2 left-1/2 max-w-[92vw] -translate-x-1/2 -translate-y-1/2 bg-raised p-6';
