/** Complaints on screen: the contract's symptoms first, then what only people say. */
export const COMPLAINTS = [
  { code: 'dead', words: 'dead' },
  { code: 'fuse-blows', words: 'blows the fuse' },
  { code: 'trips', words: 'trips the breaker' },
  { code: 'hiccup', words: 'starts then stops' },
  { code: 'ticks', words: 'ticks' },
  { code: 'low-output', words: 'output low' },
  { code: 'high-output', words: 'output high' },
  { code: 'unstable', words: 'unstable under load' },
  { code: 'sags', words: 'sags when a load starts' },
  { code: 'ok-unloaded', words: 'right until loaded' },
  { code: 'noisy', words: 'noisy' },
  { code: 'hot', words: 'hot' },
  { code: 'smells', words: 'smells' },
  { code: 'status-light', words: 'status light pattern' },
  { code: 'intermittent', words: 'intermittent' },
  { code: 'no-charge', words: 'will not charge' },
  { code: 'no-backup', words: 'no backup' },
  { code: 'battery-only', words: 'runs on battery only' },
  { code: 'after-surge', words: 'after a surge' },
  { code: 'after-water', words: 'after water' },
] as const;
export const COMPLAINT_CODES = COMPLAINTS.map((c) => c.code);
