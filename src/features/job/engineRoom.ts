/** What the pages of a job work out for themselves as soon as something is written. `useEngine` fetches it. */
export { figureOf } from '@/core/figures';
export {
  TracedBoards,
  expectAt,
  isPlaceConfirmed,
  jobProgress,
  judgeReading,
  presentReadings,
  readAtNets,
} from '@/core/job';
