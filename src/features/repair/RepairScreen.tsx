'use client';
import { useSearchParams } from 'next/navigation';
import { Suspense, useState } from 'react';
import type { FormEvent } from 'react';
import { faultWords } from '@/core/fault';
import { useCommands, useJob } from '@/features/job/JobContext';
import { useSuspects } from '@/features/job/SuspectsContext';
import { Button } from '@/ui/Button';
import { PrimaryLink } from '@/ui/PrimaryLink';
import { TextField } from '@/ui/Field';
import { Select } from '@/ui/Select';
import { Notice } from '@/ui/Notice';
import { CheckRow } from './CheckRow';
import { FitRow } from './FitRow';
import { useRepair } from './useRepair';

/** Repair: call the fault, check what dies with it, fit the parts, read that they work, close. */
export function RepairScreen() {
  return (
    <Suspense>
      <Repair />
    </Suspense>
  );
}

function Repair() {
  const { job } = useJob();
  const { home, called, closed, checks, fits } = useRepair();
  if (!called) return <CallFault />;
  const openCheck = checks.find((c) => c.read === null && c.skipped === null);
  const openFit = openCheck ? undefined : fits.find((f) => f.fitted === null || (f.after === null && f.told?.expected));
  const ready = !openCheck && !openFit;
  return (
    <div className="flex max-w-4xl flex-col gap-6">
      <div className="flex items-start justify-between gap-4">
        <div>
          <h1 className="text-2xl font-bold">Repair</h1>
          <p className="text-lg">
            Called: <strong>{faultWords(home.board, called.fault)}</strong>
            {called.words && <span className="block text-faint">{called.words}</span>}
          </p>
        </div>
        {closed ? <ToReport tag={job.tag} /> : ready && <CloseRepair />}
      </div>
      <section aria-labelledby="checks">
        <h2 id="checks" className="mb-2 font-semibold">
          Also check before power
        </h2>
        {checks.length === 0 && <p className="text-faint">Nothing is known to die with this fault.</p>}
        <div className="flex flex-col gap-3">
          {checks.map((state) => (
            <CheckRow key={state.check.fault} home={home} state={state} lit={state === openCheck} />
          ))}
        </div>
      </section>
      <section aria-labelledby="fits">
        <h2 id="fits" className="mb-2 font-semibold">
          Parts fitted
        </h2>
        {fits.length === 0 && <p className="text-faint">The called fault names no part of this board.</p>}
        <div className="flex flex-col gap-3">
          {fits.map((state) => (
            <FitRow key={state.part.ref} home={home} state={state} lit={state === openFit} />
          ))}
        </div>
      </section>
      <Notice kind="caution">
        A blown fuse is not the fault: it is fitted last, after the supply path read free of shorts. First power through
        a filament lamp or a current limit, never straight on.
      </Notice>
    </div>
  );
}

function ToReport({ tag }: { tag: string }) {
  return <PrimaryLink href={`/jobs/${tag}/report`}>To the report</PrimaryLink>;
}

function CloseRepair() {
  const { addLine } = useCommands();
  return (
    <Button
      kind="primary"
      autoFocus
      className="shrink-0"
      onClick={() => void addLine({ kind: 'step-closed', body: { step: 'repair' } })}
    >
      Close the repair
    </Button>
  );
}

/** Calls the leading suspect, or another. */
function CallFault() {
  const { active, addLine } = useJob();
  const { board, id } = active;
  const { weighed } = useSuspects();
  const wanted = useSearchParams().get('fault');
  const [choice, setChoice] = useState('');
  const [other, setOther] = useState('');
  const [words, setWords] = useState('');
  const offered = (weighed?.suspects ?? []).flatMap((s) => (s.invisible ? [] : s.group.slice(0, 4))).slice(0, 24);
  const list = wanted !== null && !offered.includes(wanted) ? [wanted, ...offered] : offered;
  // Until there are suspects nothing is chosen: what is chosen meanwhile stays when they come.
  const fault = choice || (wanted ?? list[0] ?? (weighed ? 'other' : ''));
  const named = fault === 'other' ? other.trim() : fault;
  const send = (event: FormEvent): void => {
    event.preventDefault();
    if (named !== '') void addLine({ kind: 'fault', body: { fault: named, words } }, id);
  };
  return (
    <form onSubmit={send} className="flex max-w-2xl flex-col gap-4">
      <h1 className="text-2xl font-bold">Call the fault</h1>
      <p className="text-faint">
        {weighed && weighed.verdict !== 'named' && wanted === null
          ? 'The readings have not named one yet. You may call it all the same; it is your call that counts.'
          : 'Calling it opens the list of what to check before power.'}
      </p>
      <Select
        label="Fault"
        value={fault}
        options={[
          ...(fault === '' ? [{ value: '', words: 'the suspects are being worked out …' }] : []),
          ...list.map((f) => ({ value: f, words: faultWords(board, f) })),
          { value: 'other', words: 'another, in words or as M1:short(d,s)' },
        ]}
        onChoose={setChoice}
      />
      {fault === 'other' && (
        <TextField
          label="Another fault"
          value={other}
          onChange={(e) => setOther(e.target.value)}
          placeholder="cracked joint at J1"
        />
      )}
      <TextField
        label="What happened, in words"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        placeholder="shorted after a surge"
      />
      <Button kind="primary" type="submit" autoFocus className="self-start" disabled={named === ''}>
        Call it: {named === '' ? '…' : faultWords(board, named)}
      </Button>
    </form>
  );
}
