'use client';
import { useSettings } from '@/features/job/SettingsContext';
import { Select } from '@/ui/Select';

/** Says who works here. */
export function ActorChoice({
  actor,
  onChoose,
  className = '',
}: {
  actor: string;
  onChoose(actor: string): void;
  className?: string;
}) {
  const { benches } = useSettings();
  return (
    <Select
      label="by"
      place="beside"
      look="slim"
      className={className}
      value={actor}
      options={benches.map(({ name, who }) => ({ value: name, words: who === '' ? name : `${name}, ${who}` }))}
      onChoose={onChoose}
    />
  );
}
