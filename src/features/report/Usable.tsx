'use client';
import { formatQuantity } from '@/core/quantity';
import { quantityWords } from '@/core/rate';
import type { RatedStrain } from '@/core/rate';
import type { TracedJobBoard } from '@/core/job';
import { useRated } from '@/features/job/useRated';

/** What the unit can give by its parts, and what not to trust it with. */
export function Usable({ item }: { item: TracedJobBoard }) {
  const rated = useRated(item.board);
  if (rated === undefined)
    return item.board.parts.length === 0 ? null : (
      <p className="text-faint">What its parts stand is being worked out …</p>
    );
  if (!rated?.usable) return null;
  const doubtful = rated.rated.rows.filter((r) => r.verdict === 'over' || r.verdict === 'tight');
  return (
    <section className="mb-4 print:mb-2" aria-label="Usable output">
      <p>
        <strong className="font-semibold">What it can give: </strong>
        {rated.usable.sentence}
      </p>
      {doubtful.length > 0 && (
        <p>
          <strong className="font-semibold">What not to trust it with: </strong>
          {doubtful.map(trust).join(' ')}
        </p>
      )}
    </section>
  );
}

function trust({ ref, quantity, stress, rating, unit, verdict, remedy, follows }: RatedStrain): string {
  const bears = formatQuantity(stress, unit);
  const figures = rating === null ? bears : `${bears} of ${formatQuantity(rating, unit)}`;
  const when = follows ? 'at full load' : 'whatever the load';
  const how = verdict === 'over' ? 'is beyond its rating' : 'runs close to its rating';
  return `${ref} ${how} ${when} (${quantityWords(quantity)} ${figures}${remedy ? `; ${remedy}` : ''}).`;
}
