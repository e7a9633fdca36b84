'use client';
import { Tick } from '@/ui/Tick';
import { COMPLAINTS } from '@/wire/complaints';

/** What the unit does, by the complaints that the engine knows and those that only people say. */
export function Symptoms({
  chosen,
  onChoose,
}: {
  chosen: readonly string[];
  onChoose(codes: readonly string[]): void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">What it does</legend>
      <div className="grid grid-cols-3 gap-x-3 gap-y-1.5 max-sm:grid-cols-2">
        {COMPLAINTS.map((c) => (
          <Tick
            key={c.code}
            label={c.words}
            checked={chosen.includes(c.code)}
            onTick={(on) => onChoose(on ? [...chosen, c.code] : chosen.filter((s) => s !== c.code))}
          />
        ))}
      </div>
    </fieldset>
  );
}
