import { testBoards } from '@/testing/boards';
import { permitted } from '@/testing/shortCampaign';

const SEED = 4100;

/** Part 3 of three: every short of the fed path, with the clearing list answered as a meter would. */
test.each(testBoards(2, 3).map(({ name, board }) => [name, board] as const))(
  'no short or leak of the fed path of %s ends in a permit (seed 4100)',
  (_name, board) => {
    const { tried, wrong } = permitted(board, SEED);
    expect(tried).toBeGreaterThan(1);
    expect(wrong).toEqual([]);
  },
  120_000,
);
