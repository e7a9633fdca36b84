import type { JobProgress } from './progress';

/**
 * How a job stood when it was judged last, for who cannot judge it anew yet.
 *
 * news  whether anything may have changed since: then nothing is known to be proved, and no meter goes on. LIVE stays.
 */
export function toldBefore(last: JobProgress, news: boolean): JobProgress {
  const { hazard } = last;
  if (!news || hazard.state === 'LIVE') return last;
  const reason = 'What has been written since this page was made is being worked out.';
  return { ...last, hazard: { ...hazard, state: 'UNKNOWN', meterSafe: false, reason } };
}
