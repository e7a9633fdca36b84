'use client';
import { useState } from 'react';
import type { Hazard } from '@/core/safety';
import { useCommands, useJob } from '@/features/job/JobContext';
import { StoreRow } from '@/features/frame/StoreRow';
import { Button } from '@/ui/Button';
import { PrimaryLink } from '@/ui/PrimaryLink';
import { TextField } from '@/ui/Field';
import { MODAL_MIDDLE, Modal } from '@/ui/Modal';
import { Notice } from '@/ui/Notice';

/** Until every store is proved, the first points of the plan are those proofs. One key goes on without, with a reason kept. */
export function ProofFirst({ hazard }: { hazard: Hazard }) {
  const { job } = useJob();
  const live = hazard.state === 'LIVE';
  const todo = hazard.stores.filter((s) => s.store.proof && s.state !== 'discharged');
  return (
    <div className="max-w-4xl">
      <h1 className="mb-2 text-2xl font-bold">First: is it empty?</h1>
      <Notice kind="caution" className="mb-4 text-lg">
        {hazard.reason} Volts on a capacitor kill a meter in diode test.
      </Notice>
      {live ? (
        <PrimaryLink href={`/jobs/${job.tag}/safe`}>Isolate every source</PrimaryLink>
      ) : (
        <div className="flex flex-col gap-3">
          {todo.map((state, i) => (
            <StoreRow key={`${state.store.boardId} ${state.store.key}`} state={state} lit={i === 0} locked={false} />
          ))}
        </div>
      )}
      {!live && <GoOnWithout />}
    </div>
  );
}

function GoOnWithout() {
  const { addLine } = useCommands();
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  return (
    <Modal
      open={open}
      onOpenChange={setOpen}
      title="Go on without proof"
      heading="text-lg font-semibold"
      note="Holds 15 minutes. The reason is kept in the job log."
      look={`${MODAL_MIDDLE} w-[30rem] border-2 border-oxide`}
      trigger={
        <button type="button" className="mt-6 text-slate underline underline-offset-4">
          Go on without these proofs
        </button>
      }
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (reason.trim().length >= 3)
            void addLine({ kind: 'override', body: { what: 'proof', reason } }).then(() => setOpen(false));
        }}
      >
        <TextField
          label="Why the stores are known to be empty"
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          autoFocus
        />
        <Button type="submit" kind="danger">
          Go on, keep the reason
        </Button>
      </form>
    </Modal>
  );
}
