'use client';
import { ScrollText, X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useJob } from '@/features/job/JobContext';
import { ICON_LOOK } from '@/ui/Button';
import { Modal } from '@/ui/Modal';
import { ActorChoice } from './ActorChoice';
import { LedgerLines } from './LedgerPanel';

/** The log where it has no place of its own, and who is working: one touch away on a tablet and a phone. */
export function LogDrawer() {
  const { actor, setActor } = useJob();
  return (
    <Modal
      title="Job log"
      look="inset-y-0 right-0 flex w-80 max-w-[92vw] flex-col border-l border-line bg-ground"
      trigger={
        <button type="button" aria-label="Job log, and who works here" className={`${ICON_LOOK} lg:hidden`}>
          <ScrollText aria-hidden className="size-4.5" />
        </button>
      }
    >
      <div className="flex items-center justify-between gap-3 px-3 pt-3">
        <span aria-hidden className="text-sm text-faint">
          Job log
        </span>
        <ActorChoice actor={actor} onChoose={setActor} />
        <Dialog.Close aria-label="Close the log" className={ICON_LOOK}>
          <X aria-hidden className="size-5" />
        </Dialog.Close>
      </div>
      <LedgerLines />
    </Modal>
  );
}
