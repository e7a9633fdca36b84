'use client';
import { Delete } from 'lucide-react';
import { Toolbar } from 'radix-ui';
import type { ReactNode } from 'react';

/** A key of the empty field by touch: the key, its words, what they mean in full. */
export type Act = readonly [key: string, words: string, full: string];

/** What the keys of the empty field do in a cold reading. */
export const COLD_ACTS: readonly Act[] = [
  ['o', 'overload', 'Overload'],
  [' ', 'agrees', 'Agrees, no figure noted'],
  ['n', 'next', 'Next point'],
  ['b', 'back', 'Point before'],
  ['u', 'undo', 'Undo the last reading'],
  ['a', 'places', 'All places of this lead'],
];
/** And on a unit under power. */
export const POWERED_ACTS: readonly Act[] = [
  ['b', 'back', 'Point before'],
  ['n', 'next', 'Next point'],
];

const FIGURES = {
  cold: ['7', '8', '9', 'k', '4', '5', '6', 'M', '1', '2', '3', 'm', '~', '0', '.', 'back'],
  farads: ['7', '8', '9', 'm', '4', '5', '6', 'u', '1', '2', '3', 'n', '~', '0', '.', 'back'],
  powered: ['7', '8', '9', 'k', '4', '5', '6', 'm', '1', '2', '3', '-', '~', '0', '.', 'back'],
} as const;

/**
 * The keys of the reading field as keys to touch: what acts, and on a phone the figures too, large, so that no keyboard covers
 * the leads. empty: nothing is typed.
 */
export function KeyPad({
  figures,
  acts,
  empty,
  onAct,
  onType,
  onRub,
}: {
  figures: keyof typeof FIGURES;
  acts: readonly Act[];
  empty: boolean;
  onAct(key: string): void;
  onType(text: string): void;
  /** Takes the last character off. */
  onRub(): void;
}) {
  return (
    <div className="mt-2 flex flex-col gap-2 max-sm:gap-1.5">
      <div className="hidden grid-cols-4 gap-1.5 max-sm:grid" role="group" aria-label="Figures">
        {FIGURES[figures].map((key) =>
          key === 'back' ? (
            <Key key={key} label="Take the last character off" onPress={onRub}>
              <Delete aria-hidden className="mx-auto size-7" />
            </Key>
          ) : (
            <Key
              key={key}
              label={key === '~' ? 'Creeping or jumping' : key === '-' ? 'minus' : key}
              onPress={() => onType(key)}
            >
              {key}
            </Key>
          ),
        )}
      </div>
      <Toolbar.Root
        aria-label="Keys of the empty field"
        className="flex flex-wrap gap-1 text-sm text-faint max-sm:grid max-sm:grid-cols-3 max-sm:gap-2 pointer-coarse:gap-2"
      >
        {acts.map(([key, words, full]) => (
          <Toolbar.Button
            key={key}
            aria-label={full}
            disabled={!empty && key !== 'a'}
            onClick={() => onAct(key)}
            className="rounded-sm px-1.5 py-0.5 hover:text-ink disabled:opacity-40 max-sm:min-h-12 max-sm:text-base pointer-coarse:min-h-[44px] pointer-coarse:min-w-[44px] pointer-coarse:border pointer-coarse:border-line pointer-coarse:px-3 pointer-coarse:text-ink"
          >
            <kbd className="pointer-coarse:hidden">{key === ' ' ? 'Space' : key}</kbd> {words}
          </Toolbar.Button>
        ))}
      </Toolbar.Root>
    </div>
  );
}

function Key({ label, onPress, children }: { label: string; onPress(): void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-label={label}
      // Focus stays in the field: the next key goes there too.
      onPointerDown={(event) => event.preventDefault()}
      onClick={onPress}
      className="figure h-12 rounded-sm border border-line bg-ground text-2xl active:bg-slate active:text-ground"
    >
      {children}
    </button>
  );
}
