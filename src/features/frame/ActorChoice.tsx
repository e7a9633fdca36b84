import { BENCHES } from '@/features/job/useActor';
import { Select } from '@/ui/Select';

/** Says who works here. */
export function ActorChoice({ actor, onChoose }: { actor: string; onChoose(actor: string): void }) {
  return (
    <Select
      label="by"
      place="beside"
      box="py-0.5"
      className="max-md:hidden"
      value={actor}
      options={BENCHES}
      onChoose={onChoose}
    />
  );
}
