'use client';
import { useState } from 'react';
import type { SweepSetup } from '@/core/sweep';
import { SWEEP_COLUMNS } from '@/core/sweep';
import { useJob } from '@/features/job/JobContext';
import { useSweeps } from '@/features/job/useSweeps';
import { Select } from '@/ui/Select';
import { OneSweep } from './OneSweep';
import { SetupForm } from './SetupForm';

/** Sweeps: what is set step by step and what is read at each; drawn, judged against what is claimed. */
export function SweepScreen() {
  const { active, addLine } = useJob();
  const sweeps = useSweeps();
  const [chosen, setChosen] = useState<string | null>(null);
  const sweep = chosen === 'new' ? undefined : (sweeps.find((s) => s.id === chosen) ?? sweeps.at(-1));
  const begin = async (setup: SweepSetup): Promise<void> => {
    const claimed = setup.claimed ? { ...setup.claimed } : null;
    const stored = await addLine({ kind: 'sweep', body: { ...setup, claimed, modification: null } }, active.id);
    if (stored) setChosen(stored.id);
  };
  return (
    <div className="flex flex-col gap-4">
      <div className="flex items-baseline justify-between gap-4">
        <h1 className="text-xl font-bold">Sweep</h1>
        {sweeps.length > 0 && (
          <Select
            label="Sweep shown"
            place="hidden"
            look="slim"
            box="max-w-72"
            value={sweep?.id ?? 'new'}
            options={[
              ...sweeps.map((s) => ({ value: s.id, words: s.setup.title })),
              { value: 'new', words: 'a new one …' },
            ]}
            onChoose={setChosen}
          />
        )}
      </div>
      {sweep ? (
        <OneSweep key={sweep.id} sweep={sweep} />
      ) : (
        <>
          <p className="text-faint">
            Set one thing step by step ({SWEEP_COLUMNS.vin.words}, {SWEEP_COLUMNS.iout.words} …) and note what is read:
            the powers, efficiency, sag and source resistance follow.
          </p>
          <SetupForm onBegin={(setup) => void begin(setup)} />
        </>
      )}
    </div>
  );
}
