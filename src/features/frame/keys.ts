/** Takes letters and figures for itself: there a key is what it types. */
const TYPED =
  'textarea, [contenteditable=true], input:not([type=checkbox], [type=radio]), [role=combobox], [role=listbox], [role=menu], [role=dialog], [role=alertdialog]';

/** Whether a key press belongs to what has focus. The empty reading field of Probe leaves letters to the frame. */
export function isTyped(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey) return true;
  const target = event.target as HTMLElement;
  if (target.closest?.(TYPED) === null) return false;
  return !(target instanceof HTMLInputElement && target.dataset['reading'] === 'yes' && target.value === '');
}

/** A key or several, and what they do. */
export interface KeyRow {
  readonly keys: string;
  readonly words: string;
  /** Works inside a job alone. */
  readonly inJob?: boolean;
}

/** Keys that the frame listens to, on every page. */
export const FRAME_KEYS = {
  find: { keys: 'Ctrl-K  /', words: 'find a job, part, net, sum, step or setting' },
  help: { keys: '?', words: 'this list' },
  go: { keys: 'g 1 … g 6', words: 'go to a step', inJob: true },
  tools: { keys: 'g e  g s  g m  g w', words: 'expect, sums, modify, sweep', inJob: true },
} as const satisfies Record<string, KeyRow>;

/** Keys that a screen reads itself, in the order of the list. */
export const SCREEN_KEYS: readonly KeyRow[] = [
  { keys: '@ in a sum', words: 'takes the figure from the board' },
  { keys: '0–9', words: 'in Probe: always the reading', inJob: true },
  { keys: 'Enter', words: 'keep the reading', inJob: true },
  { keys: 'Space', words: 'agrees, figure not noted', inJob: true },
  { keys: 'o', words: 'overload (in the empty reading field)', inJob: true },
  { keys: 'n  b', words: 'next, back', inJob: true },
  { keys: 'u', words: 'undo the last reading', inJob: true },
  { keys: 'r', words: 'repeat the tone', inJob: true },
  { keys: 'a', words: 'all places of this lead', inJob: true },
  { keys: '~ before a figure', words: 'creeping or jumping', inJob: true },
  { keys: '0.51 o 4k7 Enter', words: 'fills the next three points', inJob: true },
];
