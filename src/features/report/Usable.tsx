'use client';
import { formatQuantity } from '@/core/quantity';
import { quantityWords } from '@/core/rate';
import type { RatedStrain } from '@/core/rate';
import type { JobBoard } from '@/features/job/jobBoard';
import { useRated } from '@/features/job/useRated';

/** What the unit can give by its parts, and what not to trust it with. */
export function Usable({ item }: { item: JobBoard }) {
  const rated = useRated(item.board);
  if (rated === undefined)
    return item.board.parts.length === 0 ? null : (
      <p className="text-faint">What its parts stand is being worked out …</p>
    );
  if (!rated?.usable) return null;
  const doubtful = rated.rated.rows.filter((r) => r.verdict === 'over' || r.verdict === 'tight');
  return (
    <section className="mb-4" aria-label="Usable output">
      <h2 className="font-semibold">What it can give</h2>
      <p>{rated.usable.sentence}</p>
      {doubtful.length > 0 && (
        <>
          <h3 className="mt-1 text-sm">What not to trust it with</h3>
          <ul className="list-inside list-disc">
            {doubtful.map((r) => (
              <li key={`${r.ref} ${r.quantity}`}>{trust(r)}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function trust({ ref, quantity, stress, rating, unit, verdict, remedy, follows }: RatedStrain): string {
  const figures =
    rating === null
      ? formatQuantity(stress, unit)
      : `${formatQuantity(stress, unit)} of ${formatQuantity(rating, unit)}`;
  const when = follows ? 'at full load' : 'whatever the load';
  const how = verdict === 'over' ? 'is beyond its rating' : 'runs close to its rating';
  return `${ref} ${how} ${when}: ${quantityWords(quantity)} ${figures}${remedy ? `; ${remedy}` : ''}.`;
}
