'use client';
import { formatQuantity } from '@/core/quantity';
import type { Supply } from '@/core/operate';
import type { OperatingCondition } from '@/core/work';
import { LOAD_CHOICES } from '@/features/frame/lineWords';
import { PoweredState } from '@/features/frame/PoweredState';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import { Progress } from '@/ui/Progress';
import { Segments } from '@/ui/Segments';
import type { WorkingBoard } from './useWorkingBoard';

/** What the unit is fed with and how it is loaded; what it does then. Everything below follows. */
export function ConditionStrip({
  supply,
  source,
  volts,
  load,
  working: { unit, working, stop },
  onSource,
  onLoad,
}: {
  supply: Supply;
  source: string;
  volts: number | null;
  load: OperatingCondition['load'];
  working: WorkingBoard;
  onSource(text: string): void;
  onLoad(load: OperatingCondition['load']): void;
}) {
  const { lowest, nominal, highest } = supply;
  const told = [lowest, nominal, highest].flatMap((v) => (v === null ? [] : [v]));
  return (
    <section aria-label="Condition" className="flex flex-wrap items-end gap-x-4 gap-y-2">
      <TextField
        label={supply.kind === 'mains' ? 'Fed with, V rms' : 'Fed with, V'}
        value={source}
        onChange={(e) => onSource(e.target.value)}
        inputMode="decimal"
        error={volts === null && source !== '' ? 'Volts, such as 230.' : undefined}
        className="w-28"
      />
      {told.length > 1 && (
        <Segments
          value={source}
          label="Source of the nameplate"
          choices={Object.fromEntries(told.map((v) => [String(v), formatQuantity(v, 'V')]))}
          onChoose={onSource}
          figures
        />
      )}
      <Segments value={load} label="Load on its outputs" choices={LOAD_CHOICES} onChoose={onLoad} />
      <div className="min-w-0 flex-1 basis-60">
        {working && !unit ? (
          <p className="flex items-center gap-3" role="status">
            Working out the unit …
            <Progress value={null} label="Working out the unit" />
            <Button kind="quiet" onClick={stop}>
              Stop
            </Button>
          </p>
        ) : (
          unit && <PoweredState unit={unit} />
        )}
      </div>
    </section>
  );
}
