'use client';
import { Dialog } from 'radix-ui';
import { FRAME_KEYS, SCREEN_KEYS } from './keys';
import type { KeyRow } from './keys';

/** The list of keys, under `?`. */
export function KeyHelp({
  open,
  inJob,
  onOpenChange,
}: {
  open: boolean;
  inJob: boolean;
  onOpenChange(open: boolean): void;
}) {
  const rows: readonly KeyRow[] = [...Object.values(FRAME_KEYS), ...SCREEN_KEYS];
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/60" />
        <Dialog.Content className="fixed top-1/2 left-1/2 z-50 max-h-[92vh] w-[32rem] max-w-[92vw] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border border-line bg-raised p-6">
          <Dialog.Title className="mb-3 text-lg font-semibold">Keys</Dialog.Title>
          <Dialog.Description className="sr-only">What each key does</Dialog.Description>
          <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1.5">
            {rows
              .filter((row) => inJob || !row.inJob)
              .map((row) => (
                <div key={row.keys} className="contents">
                  <dt className="figure text-brass">{row.keys}</dt>
                  <dd>{row.words}</dd>
                </div>
              ))}
          </dl>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
