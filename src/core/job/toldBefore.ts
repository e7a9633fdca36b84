import type { Hazard } from '../safety';
import type { JobProgress } from './progress';

/** A hazard of which it is not known any more whether it still stands; LIVE stays. reason: one sentence why. */
export function unknownHazard(hazard: Hazard, reason: string): Hazard {
  return hazard.state === 'LIVE' ? hazard : { ...hazard, state: 'UNKNOWN', reason };
}

/**
 * How a job stood when it was judged last, for who cannot judge it anew yet.
 *
 * news  whether anything may have changed since: then nothing is known to be proved, and no meter goes on. LIVE stays.
 */
export function toldBefore(last: JobProgress, news: boolean): JobProgress {
  if (!news) return last;
  const reason = 'What has been written since this page was made is being worked out.';
  return { ...last, hazard: { ...unknownHazard(last.hazard, reason), meterSafe: false } };
}
