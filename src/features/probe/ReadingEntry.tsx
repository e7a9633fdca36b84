'use client';
import { useEffect, useState } from 'react';
import type { KeyboardEvent as ReactKeyboardEvent } from 'react';
import type { ExpectedReading, SeenReading } from '@/core/expect';
import { decadeSlip } from '@/core/expect';
import { easiestPlace } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { Button } from '@/ui/Button';
import { MODE_NAMES, figureWords } from '@/features/frame/lineWords';
import { interpreted, readTyped } from '@/features/frame/readReading';
import type { TypedReading } from '@/features/frame/readReading';
import { useTouchPhone } from '@/ui/useTouchPhone';
import type { PlanEntry } from '@/workers/messages';
import { COLD_ACTS, KeyPad } from './KeyPad';
import { useAnywhere } from './useAnywhere';
import { useTyping } from './useTyping';

/** What the keys of the empty field do. */
export interface EntryKeys {
  next(): void;
  back(): void;
  undo(): void;
  repeatTone(): void;
  places(): void;
}

/**
 * The reading field: digits always come here, wherever focus is. Enter keeps, Space agrees, letters act while it is
 * empty; the letters too from anywhere but another field.
 */
export function ReadingEntry({
  board,
  places,
  expected,
  keys,
  lit,
  begun,
  onBegin,
  onType,
  onKeep,
}: {
  board: Board;
  /** Where one figure goes, and where further ones of the same line do. */
  places: readonly PlanEntry[];
  expected: ExpectedReading;
  keys: EntryKeys;
  lit: boolean;
  /** The first character was typed: the point must stay what it is. */
  onBegin(): void;
  /** What was half typed here before; and each change of it. */
  begun: string;
  onType(text: string): void;
  onKeep(readings: readonly SeenReading[]): void;
}) {
  const { field, text, said, put } = useTyping(begun);
  const [meant, setMeant] = useState<number | null>(null);
  const phone = useTouchPhone();
  const modes = places.map((p) => p.mode);
  const typed = readTyped(text, modes);
  const { mode } = expected;
  const wrong = typed.find((t) => !t.ok);

  useEffect(() => {
    if (lit) field.current?.focus();
  }, [lit, field]);
  const keep = (readings: readonly SeenReading[]): void => {
    put('');
    setMeant(null);
    onKeep(readings);
  };
  const send = (asTyped = false): void => {
    const standing = readTyped(said(), modes);
    const readings = standing.flatMap((t) => (t.ok ? [t.seen] : []));
    if (readings.length === 0 || readings.length < standing.length) return;
    const [first] = readings;
    const slip =
      !asTyped && readings.length === 1 && first?.kind === 'figure' ? decadeSlip(expected, first.value) : null;
    if (slip !== null && meant === null) setMeant(slip);
    else keep(readings);
  };
  const type = (next: string): void => {
    if (text === '') onBegin();
    put(next);
    onType(next);
    setMeant(null);
  };
  const acts: Readonly<Record<string, () => void>> = {
    n: keys.next,
    b: keys.back,
    u: keys.undo,
    r: keys.repeatTone,
    a: keys.places,
    o: () => keep([{ kind: 'overload' }]),
    ' ': () => keep([{ kind: 'agrees' }]),
  };
  const onKeyDown = (event: ReactKeyboardEvent<HTMLInputElement>): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'Enter') {
      event.preventDefault();
      return send(meant !== null);
    }
    if (meant !== null && (event.key === '1' || event.key === '2')) {
      event.preventDefault();
      return event.key === '1' ? send(true) : keep([{ kind: 'figure', value: meant }]);
    }
    const act = said() === '' ? acts[event.key] : undefined;
    if (!act) return;
    event.preventDefault();
    act();
  };
  useAnywhere(field, acts);
  const show = (v: number): string => figureWords(mode, v, 4);
  return (
    <div className="mt-2">
      <div className="flex items-stretch gap-3">
        <input
          ref={field}
          data-reading="yes"
          aria-label="Reading"
          defaultValue={begun}
          onChange={(e) => type(e.target.value)}
          // The large keys below are its keyboard there.
          inputMode={phone ? 'none' : 'text'}
          onKeyDown={onKeyDown}
          autoComplete="off"
          placeholder="—"
          className="figure h-20 max-sm:h-16 min-w-0 flex-1 rounded-sm border-2 border-line bg-ground px-4 text-[56px] leading-none placeholder:text-line focus:border-slate"
        />
        <div className="flex w-44 flex-col justify-between max-sm:w-28">
          <p className={`figure text-xl ${wrong ? 'text-oxide' : 'text-slate'}`} aria-live="polite">
            {typed.length === 1 || wrong ? interpreted(wrong ?? typed[0]!, mode) : ''}
          </p>
          <Button
            kind={lit ? 'primary' : 'plain'}
            onClick={() => send()}
            disabled={typed.length === 0 || wrong !== undefined}
          >
            {typed.length > 1 ? `Keep ${typed.length} readings` : 'Keep the reading'}
          </Button>
        </div>
      </div>
      {typed.length > 1 && !wrong && (
        <ol aria-label="Where the figures go" className="mt-1 flex flex-col text-lg">
          {typed.map((t, i) => (
            <Placed key={i} typed={t} point={places[i]!} board={board} />
          ))}
        </ol>
      )}
      {meant !== null && typed[0]?.ok && typed[0].seen.kind === 'figure' ? (
        <p role="alert" className="mt-1 text-lg text-brass">
          <button type="button" className="pointer-coarse:min-h-[44px]" onClick={() => send(true)}>
            <kbd>1</kbd> {show(typed[0].seen.value)} as typed
          </button>
          , or{' '}
          <button
            type="button"
            className="pointer-coarse:min-h-[44px]"
            onClick={() => keep([{ kind: 'figure', value: meant }])}
          >
            <kbd>2</kbd> {show(meant)}
          </button>
          ?
        </p>
      ) : (
        <KeyPad
          figures={mode === 'cap' ? 'farads' : 'cold'}
          acts={COLD_ACTS}
          empty={text === ''}
          onAct={(key) => acts[key]?.()}
          onType={(key) => type(said() + key)}
          onRub={() => type(said().slice(0, -1))}
        />
      )}
    </div>
  );
}

/** One of several figures, and the point that it is taken for. */
function Placed({ typed, point, board }: { typed: TypedReading; point: PlanEntry; board: Board }) {
  const place = (net: string): string => easiestPlace(board, net);
  return (
    <li className="flex items-baseline gap-x-3 max-sm:flex-wrap">
      <span className="figure w-28 shrink-0 text-slate">{interpreted(typed, point.mode)}</span>
      <span className="w-24 shrink-0 text-base">{MODE_NAMES[point.mode]}</span>
      <span className="min-w-0 truncate max-sm:w-full max-sm:whitespace-normal">
        <span className="text-oxide">{place(point.red)}</span> <span className="text-faint">from</span>{' '}
        {place(point.black)}
      </span>
    </li>
  );
}
