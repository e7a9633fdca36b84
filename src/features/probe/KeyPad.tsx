'use client';
import { Delete } from 'lucide-react';
import { Toolbar } from 'radix-ui';
import type { ReactNode } from 'react';

/** What the keys of the empty field do, by touch: the key, its words, what they mean in full. */
const ACTS = [
  ['o', 'overload', 'Overload'],
  [' ', 'agrees', 'Agrees, no figure noted'],
  ['n', 'next', 'Next point'],
  ['b', 'back', 'Point before'],
  ['u', 'undo', 'Undo the last reading'],
  ['a', 'places', 'All places of this lead'],
] as const;

const FIGURES = ['7', '8', '9', 'k', '4', '5', '6', 'M', '1', '2', '3', 'm', '~', '0', '.', 'back'] as const;

/**
 * The keys of the reading field as keys to touch: what acts, and on a phone the figures too, large, so that no keyboard covers
 * the leads. empty: nothing is typed.
 */
export function KeyPad({
  empty,
  onAct,
  onType,
  onRub,
}: {
  empty: boolean;
  onAct(key: string): void;
  onType(text: string): void;
  /** Takes the last character off. */
  onRub(): void;
}) {
  return (
    <div className="mt-2 flex flex-col gap-2 max-sm:gap-1.5">
      <div className="hidden grid-cols-4 gap-1.5 max-sm:grid" role="group" aria-label="Figures">
        {FIGURES.map((key) =>
          key === 'back' ? (
            <Key key={key} label="Take the last character off" onPress={onRub}>
              <Delete aria-hidden className="mx-auto size-7" />
            </Key>
          ) : (
            <Key key={key} label={key === '~' ? 'Creeping or jumping' : key} onPress={() => onType(key)}>
              {key}
            </Key>
          ),
        )}
      </div>
      <Toolbar.Root
        aria-label="Keys of the empty field"
        className="flex flex-wrap gap-1 text-sm text-faint max-sm:grid max-sm:grid-cols-3 max-sm:gap-2 pointer-coarse:gap-2"
      >
        {ACTS.map(([key, words, full]) => (
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
