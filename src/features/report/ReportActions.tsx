'use client';
import { useJob } from '@/features/job/JobContext';
import { Button } from '@/ui/Button';
import { Confirm } from '@/ui/Confirm';
import { Progress } from '@/ui/Progress';
import { useWholeJob } from './useWholeJob';

/** What is done with a report: taken out as files, printed, the job closed with it. */
export function ReportActions() {
  const { job, state, addLine } = useJob();
  const [sending, save] = useWholeJob();
  const open = state.outcome === 'open';
  return (
    <div className="no-print mb-4 flex flex-wrap items-center justify-end gap-3">
      <a className="text-slate underline underline-offset-4" href={`/api/jobs/${job.tag}/export?as=csv`}>
        Readings as CSV
      </a>
      <a className="text-slate underline underline-offset-4" href={`/api/jobs/${job.tag}/export?as=json`}>
        Job as JSON
      </a>
      {sending ? (
        <>
          <Progress className="w-32" value={sending.share} label="Putting the job together" />
          <Button onClick={() => sending.stop()}>Stop</Button>
        </>
      ) : (
        <Button kind="quiet" onClick={() => void save()}>
          Whole job (.zip)
        </Button>
      )}
      {open ? (
        <>
          <Button onClick={() => window.print()}>Print</Button>
          <Confirm
            title={`Close ${job.tag} as repaired?`}
            yes="Close it"
            onYes={() =>
              void addLine({
                kind: 'job-state',
                body: { outcome: 'repaired', waitingFor: state.waitingFor, archived: false },
              })
            }
            trigger={
              <Button kind="primary" autoFocus>
                Repaired: close the job
              </Button>
            }
          >
            It leaves the list of open jobs. All that was written stays, and it can be opened again under Intake.
          </Confirm>
        </>
      ) : (
        <Button kind="primary" autoFocus onClick={() => window.print()}>
          Print the report
        </Button>
      )}
    </div>
  );
}
