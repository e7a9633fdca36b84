'use client';
import { AlertDialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from './Button';
import { MODAL_MIDDLE, MODAL_VEIL } from './Modal';

/** Asks before something that is not easily taken back. The child opens it; focus is on the way out at first. */
export function Confirm({
  title,
  children,
  yes,
  no = 'Leave it',
  onYes,
  trigger,
  open,
  onOpenChange,
}: {
  title: string;
  children: ReactNode;
  yes: string;
  no?: string;
  onYes(): void;
  trigger?: ReactNode;
  open?: boolean;
  onOpenChange?(open: boolean): void;
}) {
  return (
    <AlertDialog.Root {...(open === undefined ? {} : { open })} {...(onOpenChange ? { onOpenChange } : {})}>
      {trigger && <AlertDialog.Trigger asChild>{trigger}</AlertDialog.Trigger>}
      <AlertDialog.Portal>
        <AlertDialog.Overlay className={MODAL_VEIL} />
        <AlertDialog.Content className={`fixed z-50 ${MODAL_MIDDLE} w-[30rem] border-2 border-oxide`}>
          <AlertDialog.Title className="mb-2 text-lg font-semibold">{title}</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="mb-5">{children}</div>
          </AlertDialog.Description>
          <div className="flex justify-end gap-3">
            <AlertDialog.Cancel asChild>
              <Button>{no}</Button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <Button kind="danger" onClick={onYes}>
                {yes}
              </Button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
