import { BENCHES } from '@/features/job/useActor';

/** Says who works here. */
export function ActorChoice({ actor, onChoose }: { actor: string; onChoose(actor: string): void }) {
  return (
    <label className="flex items-center gap-2 text-sm text-faint max-md:hidden">
      by
      <select
        value={actor}
        onChange={(e) => onChoose(e.target.value)}
        className="rounded-sm border border-line bg-ground px-1 py-0.5 text-ink"
      >
        {BENCHES.map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
    </label>
  );
}
