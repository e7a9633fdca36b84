'use client';
import { OUTCOMES } from '@/core/ledger';
import type { JobOutcome } from '@/core/ledger';
import { useState } from 'react';
import { nameplateSanity } from '@/core/safety';
import type { Nameplate } from '@/core/circuit';
import type { PlateFigures } from '@/core/safety';
import { useJob, useStanding } from '@/features/job/JobContext';
import { plateWords } from '@/features/frame/plateWords';
import { NextLink } from '@/features/frame/NextLink';
import { Button } from '@/ui/Button';
import { Confirm } from '@/ui/Confirm';
import { TextField } from '@/ui/Field';
import { Select } from '@/ui/Select';
import { COMPLAINTS } from '@/wire/complaints';
import { BoardsSection } from './BoardsSection';
import { CorrectForm } from './CorrectForm';

const OUTCOME_WORDS: Readonly<Record<JobOutcome, string>> = {
  open: 'open',
  repaired: 'repaired',
  'not-worth-repair': 'not worth repair',
  'no-fault-found': 'no fault found',
  returned: 'returned as it came',
};

/** What a nameplate says for its sanity; several outputs count by the power of all. */
function plateFigures(plate: Nameplate): PlateFigures {
  const outputs = plate.outputs ?? [];
  const volts = outputs[0]?.volts;
  const watts = outputs.reduce((sum, o) => sum + o.volts * o.amps, 0);
  return {
    ...plate,
    source: plate.source ?? 'mains',
    outputVolts: volts,
    outputAmps: volts ? watts / volts : undefined,
  };
}

/** What was taken in: unit, nameplate, complaint; what the job waits for and how it ended. */
export function IntakeScreen() {
  const { job, boards, state, addLine } = useJob();
  const live = useStanding().progress.hazard.state === 'LIVE';
  const [waiting, setWaiting] = useState(state.waitingFor);
  const [outcome, setOutcome] = useState<JobOutcome>(state.outcome);
  const [closing, setClosing] = useState(false);
  const [correcting, setCorrecting] = useState(false);
  const say = (body: { outcome: JobOutcome; waitingFor: string; archived: boolean }): void =>
    void addLine({ kind: 'job-state', body });
  const keep = (): void => say({ outcome, waitingFor: waiting, archived: state.archived && outcome !== 'open' });
  const sanity = nameplateSanity(plateFigures(job.nameplate));
  const words = job.symptoms.map((s) => COMPLAINTS.find((c) => c.code === s)?.words ?? s);
  return (
    <div className="max-w-3xl">
      <div className="mb-5 flex items-start justify-between gap-4">
        <div>
          <h1 className="text-2xl font-bold">{job.unit}</h1>
          <p className="text-faint">
            {job.serial && (
              <>
                serial <span className="figure">{job.serial}</span>,{' '}
              </>
            )}
            {boards.map((b) => `${b.label}: ${b.board.parts.length} parts`).join('; ')}
          </p>
        </div>
        <NextLink otherwise="safe" from={['intake']} />
      </div>
      {correcting ? (
        <CorrectForm onDone={() => setCorrecting(false)} />
      ) : (
        <>
          <dl className="grid grid-cols-[9rem_1fr] gap-x-4 gap-y-2.5">
            <dt className="text-faint">Complaint</dt>
            <dd className="text-lg">{job.complaint || 'none given'}</dd>
            <dt className="text-faint">It is</dt>
            <dd>{words.length > 0 ? words.join(', ') : 'not said'}</dd>
            <dt className="text-faint">History</dt>
            <dd>{job.history || 'none known'}</dd>
            <dt className="text-faint">Came with</dt>
            <dd>{job.accessories || 'nothing'}</dd>
            <dt className="text-faint">Nameplate</dt>
            <dd>
              {plateWords(job.nameplate)}
              {sanity.inputAmps !== null && <span className="block text-sm text-faint">{sanity.why}</span>}
            </dd>
            <dt className="text-faint">Sources</dt>
            <dd>{job.sources.map((s) => s.name).join(', ')}</dd>
          </dl>
          <Button className="mt-4" onClick={() => setCorrecting(true)}>
            Correct what was taken in
          </Button>
        </>
      )}
      <form
        className="mt-8 grid max-w-xl grid-cols-[1fr_12rem_auto] items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (outcome !== 'open' && state.outcome === 'open') setClosing(true);
          else keep();
        }}
      >
        <TextField
          label="Waiting for"
          value={waiting}
          onChange={(e) => setWaiting(e.target.value)}
          placeholder="nothing"
        />
        <Select
          label="Outcome"
          value={outcome}
          options={OUTCOMES.map((o) => ({ value: o, words: OUTCOME_WORDS[o] }))}
          onChoose={setOutcome}
        />
        <Button type="submit">Keep</Button>
      </form>
      {state.outcome !== 'open' && (
        <p className="mt-3 flex items-center gap-3">
          <Button
            disabled={live && !state.archived}
            onClick={() => say({ outcome: state.outcome, waitingFor: state.waitingFor, archived: !state.archived })}
          >
            {state.archived ? 'Back on the bench' : 'Put it away'}
          </Button>
          <span className="text-sm text-faint">
            {live
              ? 'It is LIVE: it stays on the bench until every source is isolated.'
              : state.archived
                ? 'Put away: the bench finds it again by its search.'
                : 'Off the list of the bench; found again by its search.'}
          </span>
        </p>
      )}
      <Confirm
        open={closing}
        onOpenChange={setClosing}
        title={`Close ${job.tag} as ${OUTCOME_WORDS[outcome]}?`}
        yes="Close it"
        onYes={keep}
      >
        It leaves the list of open jobs. All that was written stays, and it can be opened again here.
      </Confirm>
      <BoardsSection />
    </div>
  );
}
