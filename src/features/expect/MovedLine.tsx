import { poweredWords } from '@/features/frame/lineWords';
import type { RatedBoard, WorkingUnit } from '@/workers/workingMessages';

const MOST = 6;

/** What a supposition moves: points with both figures, parts that are judged otherwise. */
export function MovedLine({
  unit,
  rated,
  rating,
}: {
  unit: WorkingUnit;
  rated: RatedBoard | null;
  rating: number | null;
}) {
  const moved = unit.moved ?? [];
  return (
    <section aria-label="What moves" role="status" className="border-l-2 border-slate bg-raised px-3 py-2">
      {moved.length === 0 ? (
        <p>No point moves by more than a meter shows.</p>
      ) : (
        <ul className="flex flex-wrap gap-x-5">
          {moved.slice(0, MOST).map(({ point, from, to }) => (
            <li key={`${point.mode} ${point.red} ${point.black}`}>
              {point.red}
              {point.mode === 'ripple' && ' ripple'}{' '}
              <span className="figure">
                {poweredWords(point.mode, from)} to <strong>{poweredWords(point.mode, to)}</strong>
              </span>
            </li>
          ))}
          {moved.length > MOST && <li className="text-faint">and {moved.length - MOST} more</li>}
        </ul>
      )}
      {rating !== null ? (
        <p className="text-sm text-faint">Ratings are being worked out …</p>
      ) : (
        rated && rated.moved.length > 0 && <p className="text-oxide">{rated.moved.join('; ')}</p>
      )}
      <p className="text-sm text-faint">Supposed only: nothing is written to the job.</p>
    </section>
  );
}
