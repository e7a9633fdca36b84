'use client';
import { AlertDialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from './Button';

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
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/60" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[30rem] max-w-[92vw] -translate-x-1/2 -translate-y-1/2 border-2 border-oxide bg-raised p-6">
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
