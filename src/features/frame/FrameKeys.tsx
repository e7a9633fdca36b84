'use client';
import { useRouter } from 'next/navigation';
import { Search } from 'lucide-react';
import { Suspense, lazy, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { Board } from '@/core/circuit';
import { STEPS, TOOLS } from '@/core/job';
import { Hydrated } from '@/ui/Hydrated';
import { isTyped } from './keys';

/** Fetched when they are asked for first. */
const KeyHelp = lazy(async () => ({ default: (await import('./KeyHelp')).KeyHelp }));
const Palette = lazy(async () => ({ default: (await import('./Palette')).Palette }));

/** How long `g` waits for what follows, milliseconds. */
const WAIT_MS = 1500;

/** Where each key after `g` leads. */
const PLACES: ReadonlyMap<string, string> = new Map([
  ...STEPS.map((step, i) => [String(i + 1), step] as const),
  ...Object.entries(TOOLS).map(([tool, { key }]) => [key, tool] as const),
]);
const PLACE_KEYS = [...PLACES.keys()];

/** One key as it is printed, wherever it lies on the keyboard. */
const ONE_KEY = {
  useKey: true,
  ignoreModifiers: true,
  enableOnFormTags: true,
  enableOnContentEditable: true,
  ignoreEventWhen: isTyped,
  eventListenerOptions: { capture: true },
} as const;

/**
 * The keys of the frame, on every page: `Ctrl-K` or `/` finds, `?` lists the keys; inside a job `g` then a digit goes to a step,
 * then a letter to what is at hand. Gives the button that finds by touch.
 */
export function FrameKeys({ tag = null, board = null }: { tag?: string | null; board?: Board | null }) {
  const router = useRouter();
  const [help, setHelp] = useState(false);
  const [finding, setFinding] = useState(false);
  const waiting = useRef(0);
  useHotkeys(
    'g',
    (event) => {
      event.preventDefault();
      waiting.current = Date.now();
    },
    { ...ONE_KEY, enabled: tag !== null },
  );
  useHotkeys(
    PLACE_KEYS,
    (event) => {
      const place = PLACES.get(event.key);
      if (Date.now() - waiting.current > WAIT_MS || place === undefined) return;
      waiting.current = 0;
      event.preventDefault();
      event.stopPropagation();
      router.push(`/jobs/${tag}/${place}`);
    },
    { ...ONE_KEY, enabled: tag !== null },
  );
  useHotkeys(
    '?',
    (event) => {
      event.preventDefault();
      setHelp(true);
    },
    ONE_KEY,
  );
  const find = (event: KeyboardEvent): void => {
    event.preventDefault();
    event.stopPropagation();
    setFinding(true);
  };
  useHotkeys('/', find, ONE_KEY);
  useHotkeys('mod+k', find, { enableOnFormTags: true, enableOnContentEditable: true, useKey: true });
  return (
    <>
      <Hydrated />
      <FindButton onFind={() => setFinding(true)} />
      {help && (
        <Suspense>
          <KeyHelp open inJob={tag !== null} onOpenChange={setHelp} />
        </Suspense>
      )}
      {finding && (
        <Suspense>
          <Palette tag={tag} board={board} onClose={() => setFinding(false)} onHelp={() => setHelp(true)} />
        </Suspense>
      )}
    </>
  );
}

/** Opens it by touch, and says by which key. */
function FindButton({ onFind }: { onFind(): void }) {
  return (
    <button
      type="button"
      aria-label="Find"
      aria-keyshortcuts="Control+K /"
      onClick={onFind}
      className="flex h-8 min-w-8 items-center justify-center gap-1.5 rounded-sm border border-line px-1.5 text-faint hover:text-ink pointer-coarse:h-[44px] pointer-coarse:min-w-[44px]"
    >
      <Search aria-hidden className="size-4.5" />
      <kbd aria-hidden className="text-xs max-lg:hidden pointer-coarse:hidden">
        Ctrl-K
      </kbd>
    </button>
  );
}
