'use client';
import { ToggleGroup } from 'radix-ui';
import { useState } from 'react';
import { netKey } from '@/core/circuit';
import { recogniseStages } from '@/core/stages';
import type { WavePlace, Waveform } from '@/core/work';
import { POINT_CAUTIONS } from '@/features/frame/pointWords';
import { useJob } from '@/features/job/JobContext';
import { useSettings } from '@/features/job/SettingsContext';
import { Notice } from '@/ui/Notice';
import { WaveView } from './WaveView';
import { useWave } from './useWave';

/** Where a scope shows something: one place picked, its waveform with figures. */
export function WavePanel({
  places,
  wave,
  of,
}: {
  places: readonly WavePlace[];
  wave(red: string, black: string): Promise<Waveform | null>;
  of: object;
}) {
  const { instruments } = useSettings();
  const [picked, setPicked] = useState<string | null>(null);
  const keyOf = (p: WavePlace): string => `${p.red} ${p.black}`;
  const place = places.find((p) => keyOf(p) === picked);
  if (places.length === 0) return null;
  return (
    <section aria-label="Waveforms" className="flex flex-col gap-2">
      <h2 className="text-sm text-faint">
        {instruments.includes('oscilloscope') ? 'What the scope shows' : 'What a scope would show'}
      </h2>
      <ToggleGroup.Root
        type="single"
        value={picked ?? ''}
        aria-label="Where the tip goes"
        onValueChange={(v) => setPicked(v === '' ? null : v)}
        className="flex flex-wrap gap-1"
      >
        {places.map((p) => (
          <ToggleGroup.Item
            key={keyOf(p)}
            value={keyOf(p)}
            className="border border-line px-2 py-1 data-[state=on]:bg-slate data-[state=on]:text-ground"
          >
            {p.what}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      {place && <Picked place={place} wave={wave} of={of} />}
    </section>
  );
}

function Picked({ place, wave, of }: { place: WavePlace; wave: Parameters<typeof useWave>[0]; of: object }) {
  const seen = useWave(wave, place.red, place.black, of);
  const { active } = useJob();
  const island = recogniseStages(active.board).islands.find((i) =>
    i.nets.some((n) => netKey(n) === netKey(place.black)),
  );
  const caution = island && POINT_CAUTIONS[island.hazard];
  if (!seen) return <p className="text-faint">Nothing periodic there now.</p>;
  return (
    <>
      {caution && <Notice kind="caution">{caution}</Notice>}
      <p className="text-sm">
        Tip at <span className="figure">{place.red}</span>, ground at <span className="figure">{place.black}</span>
      </p>
      <WaveView wave={seen} name={place.what} />
    </>
  );
}
