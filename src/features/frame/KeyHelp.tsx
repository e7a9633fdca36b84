'use client';
import { Dialog } from 'radix-ui';

const KEYS: readonly (readonly [string, string])[] = [
  ['g 1 … g 6', 'go to a step'],
  ['g s  g m  g w', 'sums, modify, sweep'],
  ['@ in a sum', 'takes the figure from the board'],
  ['0–9', 'in Probe: always the reading'],
  ['Enter', 'keep the reading'],
  ['Space', 'agrees, figure not noted'],
  ['o', 'overload (in the empty reading field)'],
  ['n  b', 'next, back'],
  ['u', 'undo the last reading'],
  ['r', 'repeat the tone'],
  ['a', 'all places of this lead'],
  ['~ before a figure', 'creeping or jumping'],
  ['0.51 o 4k7 Enter', 'fills the next three points'],
  ['?', 'this list'],
];

/** The list of keys, under `?`. */
export function KeyHelp({ open, onOpenChange }: { open: boolean; onOpenChange(open: boolean): void }) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-black/60" />
        <Dialog.Content className="fixed top-1/2 left-1/2 w-[28rem] max-w-[92vw] -translate-x-1/2 -translate-y-1/2 border border-line bg-raised p-6">
          <Dialog.Title className="mb-3 text-lg font-semibold">Keys</Dialog.Title>
          <Dialog.Description className="sr-only">What each key does</Dialog.Description>
          <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1.5">
            {KEYS.map(([key, what]) => (
              <div key={key} className="contents">
                <dt className="figure text-brass">{key}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
