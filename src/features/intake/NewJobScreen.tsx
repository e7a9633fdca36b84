'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { useController } from 'react-hook-form';
import { likeliestFirst } from '@/core/archetype';
import type { Problem } from '@/core/problem';
import { formatQuantity } from '@/core/quantity';
import { FrameKeys } from '@/features/frame/FrameKeys';
import { ActorChoice } from '@/features/frame/ActorChoice';
import { postJson } from '@/features/job/postJson';
import { useActor } from '@/features/job/useActor';
import { Button } from '@/ui/Button';
import { TextArea, TextField } from '@/ui/Field';
import { Select } from '@/ui/Select';
import { Tick } from '@/ui/Tick';
import { Notice } from '@/ui/Notice';
import type { BoardChoice } from '@/wire/jobForm';
import { BoardPicker } from './BoardPicker';
import { BringIn } from './BringIn';
import { Symptoms } from './Symptoms';
import type { CircuitChoice } from './TypicalCircuits';
import { FED_BY, useIntakeForm } from './useIntakeForm';
import type { IntakeForm } from './useIntakeForm';

/** Intake: nameplate with its sanity, sources, complaint, and the board to start from. */
export function NewJobScreen({
  circuits,
  from,
  first,
}: {
  circuits: readonly CircuitChoice[];
  from: string | null;
  first: Partial<IntakeForm>;
}) {
  const router = useRouter();
  const { form, register, control, handleSubmit, errors, plate, sanity, toJob } = useIntakeForm(first);
  const kind = useController({ control, name: 'sourceKind' });
  const disconnected = useController({ control, name: 'disconnected' });
  const symptoms = useController({ control, name: 'symptoms' });
  const likely = useMemo(() => likeliestFirst(circuits, plate), [circuits, plate]);
  const [board, setBoard] = useState<BoardChoice>(
    from === null ? { from: 'typical', name: circuits[0]!.name } : { from: 'job', tag: from },
  );
  const [actor, setActor] = useActor();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [sending, setSending] = useState(false);
  const issues = (problem?.details as { issues?: readonly { path: string; message: string }[] } | undefined)?.issues;
  const issue = (path: string): string | undefined => issues?.find((i) => i.path.startsWith(path))?.message;

  const send = handleSubmit(async () => {
    setSending(true);
    const answer = await postJson<{ tag: string }>('/api/jobs', toJob(board, actor));
    setSending(false);
    if (answer.ok) router.push(`/jobs/${answer.value.tag}/safe`);
    else setProblem(answer.problem);
  });

  return (
    <form onSubmit={(e) => void send(e)} className="mx-auto max-w-[1180px] px-6 py-5 max-sm:px-3" noValidate>
      <header className="mb-5 flex flex-wrap items-center gap-4 max-sm:gap-2">
        <Link href="/" className="font-semibold text-brass">
          Bench
        </Link>
        <h1 className="text-2xl font-bold">Take in a unit</h1>
        {from !== null && <p className="text-faint">starting from the board of {from}</p>}
        <span className="ml-auto" />
        <FrameKeys />
        <ActorChoice actor={actor} onChoose={setActor} />
        <Button kind="primary" type="submit" disabled={sending}>
          {sending ? 'Opening …' : 'Open the job'}
        </Button>
      </header>
      {problem && (
        <Notice kind="trouble" className="mb-4">
          <strong>{problem.sentence}</strong> {problem.remedy}
        </Notice>
      )}
      <BringIn />
      <div className="grid gap-8 md:grid-cols-2">
        <div className="flex flex-col gap-4">
          <div className="grid grid-cols-[9rem_1fr_9rem] gap-3 max-sm:grid-cols-2">
            <TextField label="Tag" autoFocus required placeholder="SP-121" {...register('tag')} error={issue('tag')} />
            <TextField
              label="Unit"
              required
              placeholder="maker and model"
              {...register('unit')}
              error={issue('unit')}
            />
            <TextField label="Serial" {...register('serial')} />
          </div>
          <fieldset className="grid grid-cols-4 gap-3 max-sm:grid-cols-2">
            <legend className="mb-1 text-sm font-semibold">Nameplate</legend>
            <Select label="Fed by" value={kind.field.value} options={FED_BY} onChoose={kind.field.onChange} />
            <TextField
              label="Input as printed"
              className="col-span-3 max-sm:col-span-1"
              {...register('input')}
              placeholder="100-240 Vac"
            />
            <TextField
              label="Lowest input, V"
              inputMode="decimal"
              {...register('inputMin')}
              error={errors.inputMin?.message}
              placeholder="90"
            />
            <TextField
              label="Highest, V"
              inputMode="decimal"
              {...register('inputMax')}
              error={errors.inputMax?.message}
              placeholder="264"
            />
            <TextField
              label="Output, V"
              inputMode="decimal"
              {...register('outputVolts')}
              error={errors.outputVolts?.message}
              placeholder="24"
            />
            <TextField
              label="Output, A"
              inputMode="decimal"
              {...register('outputAmps')}
              error={errors.outputAmps?.message}
              placeholder="3"
            />
            <TextField label="Fuse, A" inputMode="decimal" {...register('fuseAmps')} error={errors.fuseAmps?.message} />
            <div className="col-span-3 self-end max-sm:col-span-2" aria-live="polite">
              {sanity.outputWatts !== null ? (
                <p>
                  <span className="figure text-lg">{formatQuantity(sanity.outputWatts, 'W')}</span> out
                  {sanity.inputAmps !== null && sanity.fuseFrom !== null && sanity.fuseTo !== null && (
                    <>
                      , draws up to <span className="figure text-lg">{formatQuantity(sanity.inputAmps, 'A')}</span>,
                      fuse plausible from <span className="figure">{formatQuantity(sanity.fuseFrom, 'A')}</span> to{' '}
                      <span className="figure">{formatQuantity(sanity.fuseTo, 'A')}</span>
                      <span className="block text-sm text-faint">{sanity.why}</span>
                    </>
                  )}
                </p>
              ) : (
                <p className="text-sm text-faint">
                  Power, worst input current and a plausible fuse appear as you type.
                </p>
              )}
            </div>
          </fieldset>
          {sanity.remarks.map((remark) => (
            <Notice key={remark} kind="caution">
              {remark}
            </Notice>
          ))}
          <TextField
            label="Other sources of energy, with commas"
            {...register('otherSources')}
            placeholder="battery on the output, solar panel, second inlet"
            hint="Each must be isolated before anything is touched."
          />
          <Tick
            label="It came in with nothing connected: no lead, no battery, nothing on its outputs"
            checked={disconnected.field.value}
            onTick={disconnected.field.onChange}
          />
          <BoardPicker circuits={likely} from={from} choice={board} onChoose={setBoard} serverProblem={problem} />
        </div>
        <div className="flex flex-col gap-4">
          <TextArea label="Complaint, in their words" rows={3} {...register('complaint')} />
          <Symptoms chosen={form.symptoms} onChoose={symptoms.field.onChange} />
          <TextArea label="History" {...register('history')} placeholder="surge, water, dropped, worked on before" />
          <TextField label="Came with" {...register('accessories')} />
        </div>
      </div>
    </form>
  );
}
