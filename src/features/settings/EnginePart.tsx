'use client';
import { Controller } from 'react-hook-form';
import type { Control } from 'react-hook-form';
import { DERATING } from '@/core/stress';
import type { StressKind } from '@/core/stress';
import { Reveal } from '@/ui/Reveal';
import { Tick } from '@/ui/Tick';
import { INSTRUMENTS } from '@/wire/settings';
import type { Settings } from '@/wire/settings';
import { FigureSetting } from './FigureSetting';

/** Instruments that the workshop has besides its meter. */
export function InstrumentsPart({ control }: { control: Control<Settings> }) {
  return (
    <Controller
      control={control}
      name="instruments"
      render={({ field }) => (
        <div className="grid grid-cols-2 gap-1.5">
          {INSTRUMENTS.map(({ code, words }) => (
            <Tick
              key={code}
              label={words}
              checked={field.value.includes(code)}
              onTick={(on) => field.onChange(on ? [...field.value, code] : field.value.filter((c) => c !== code))}
            />
          ))}
        </div>
      )}
    />
  );
}

/** What a reading costs, by which the next one is chosen. */
export function CostsPart({ control }: { control: Control<Settings> }) {
  return (
    <div className="grid grid-cols-3 items-end gap-3 max-sm:grid-cols-2">
      <FigureSetting control={control} name="costs.sameBlackSameMode" label="Red lead moves" unit="s" />
      <FigureSetting control={control} name="costs.bothMove" label="Both leads move" unit="s" />
      <FigureSetting control={control} name="costs.modeChange" label="The meter is turned" unit="s" />
      <FigureSetting control={control} name="costs.instrument" label="Another instrument" unit="s" />
      <FigureSetting control={control} name="costs.patience" label="A figure may creep for" unit="s" />
      <FigureSetting control={control} name="costs.impatience" label="longer counts times" unit="1" />
    </div>
  );
}

const KINDS = Object.keys(DERATING) as StressKind[];

/** How much of each rating is used. */
export function DeratingPart({ control }: { control: Control<Settings> }) {
  return (
    <Reveal words="Each kind of stress">
      <div className="mt-2 grid grid-cols-2 gap-3">
        {KINDS.map((kind) => (
          <FigureSetting
            key={kind}
            control={control}
            name={`derating.${kind}`}
            label={`${DERATING[kind].words}${kind.includes('-') ? `, ${kind.split('-').at(-1)}` : ''}, %: ${DERATING[kind].why}`}
            unit="1"
            scale={100}
          />
        ))}
      </div>
    </Reveal>
  );
}

/** Limits of the tests before a unit is handed over. */
export function CloseOutPart({ control }: { control: Control<Settings> }) {
  return (
    <div className="grid grid-cols-3 items-end gap-3 max-sm:grid-cols-2">
      <FigureSetting control={control} name="closeOut.earthOhms" label="Earth continuity, most" unit="ohm" />
      <FigureSetting control={control} name="closeOut.insulationOhms" label="Insulation, least" unit="ohm" />
      <FigureSetting control={control} name="closeOut.leakageAmps" label="Touch current, most" unit="A" />
    </div>
  );
}
