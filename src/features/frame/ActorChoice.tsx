'use client';
import { useSettings } from '@/features/job/SettingsContext';
import { Select } from '@/ui/Select';

/** Says who works here. */
export function ActorChoice({ actor, onChoose }: { actor: string; onChoose(actor: string): void }) {
  const { benches } = useSettings();
  return (
    <Select
      label="by"
      place="beside"
      look="slim"
      className="max-md:hidden"
      value={actor}
      options={benches.map(({ name, who }) => ({ value: name, words: who === '' ? name : `${name}, ${who}` }))}
      onChoose={onChoose}
    />
  );
}
