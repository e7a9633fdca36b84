import { pointKey } from '@/core/diagnose';
import type { ProbePoint } from '@/core/diagnose';

/** So many points of the plan are shown. */
export const SHOWN_POINTS = 4;

/** What of a plan comes after a point, whether that is of this plan or of one before it: the entries at other points. */
export function following<P extends ProbePoint>(plan: readonly P[], point: ProbePoint): readonly P[] {
  const here = pointKey(point);
  return plan.filter((p) => pointKey(p) !== here);
}
