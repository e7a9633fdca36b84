'use client';
import { ScrollText, X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useJob } from '@/features/job/JobContext';
import { ActorChoice } from './ActorChoice';
import { LedgerLines } from './LedgerPanel';

/** The log where it has no place of its own, and who is working: one touch away on a tablet and a phone. */
export function LogDrawer() {
  const { actor, setActor } = useJob();
  return (
    <Dialog.Root>
      <Dialog.Trigger
        aria-label="Job log, and who works here"
        className="grid size-8 place-items-center rounded-sm border border-line text-faint hover:text-ink lg:hidden pointer-coarse:size-[44px]"
      >
        <ScrollText aria-hidden className="size-4.5" />
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/60" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-y-0 right-0 z-50 flex w-80 max-w-[92vw] flex-col border-l border-line bg-ground"
        >
          <div className="flex items-center justify-between gap-3 px-3 pt-3">
            <Dialog.Title className="text-sm text-faint">Job log</Dialog.Title>
            <ActorChoice actor={actor} onChoose={setActor} />
            <Dialog.Close
              aria-label="Close the log"
              className="grid size-8 place-items-center rounded-sm text-faint hover:text-ink pointer-coarse:size-[44px]"
            >
              <X aria-hidden className="size-5" />
            </Dialog.Close>
          </div>
          <LedgerLines />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
