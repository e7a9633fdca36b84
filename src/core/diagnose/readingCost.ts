/** Seconds that a cold reading costs at the bench; every figure may be changed (`engine.md` section 7). */
export const READING_SECONDS = {
  sameBlackSameMode: 5,
  bothMove: 10,
  modeChange: 3,
  /** One with another instrument than the meter, taking it in hand included. */
  instrument: 12,
  /** Beyond this a settling time is charged several times over: the plan should find another way. */
  patience: 5,
  impatience: 4,
} as const;
export type ReadingSeconds = Readonly<Record<keyof typeof READING_SECONDS, number>>;

let costs: ReadingSeconds = READING_SECONDS;

/** What readings cost here; the defaults until others are set. */
export const workshopCosts = (): ReadingSeconds => costs;

/** Sets what readings cost at this workshop's benches, seconds; once, at the begin of a page, server or worker. */
export function setReadingSeconds(seconds: ReadingSeconds): void {
  costs = seconds;
}
