'use client';
import { useEffect } from 'react';
import type { Board } from '@/core/circuit';
import { parseQuantity } from '@/core/quantity';
import type { AlivePoint } from '@/core/work';
import { POWERED_UNITS } from '@/core/work';
import { POWERED_NAMES, poweredWords } from '@/features/frame/lineWords';
import { PointHead } from '@/features/frame/PointHead';
import { POINT_CAUTIONS, bandWords } from '@/features/frame/pointWords';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import { useTouchPhone } from '@/ui/useTouchPhone';
import { KeyPad, POWERED_ACTS } from './KeyPad';
import { useAnywhere } from './useAnywhere';
import { useTyping } from './useTyping';

/** A figure that was typed, or what is wrong with it. */
type Typed = { readonly value: number; readonly unsteady: boolean } | { readonly wrong: string } | null;

function readFigure(text: string, unit: 'V' | 'Hz'): Typed {
  const body = text.trim();
  if (body === '') return null;
  const unsteady = body.startsWith('~');
  const read = parseQuantity(unsteady ? body.slice(1) : body);
  if (!read.ok) return { wrong: read.problem.sentence };
  if (read.value.unit !== null && read.value.unit !== unit) return { wrong: `That is not in ${unit}.` };
  return { value: read.value.value, unsteady };
}

/** The point under power that is read now: leads, what should show and why, the field. */
export function PoweredPoint({
  board,
  point,
  asked,
  onKeep,
  onStep,
}: {
  board: Board;
  point: AlivePoint;
  /** Counts how often a point was asked for: each time the field takes the typing. */
  asked: number;
  onKeep(value: number, unsteady: boolean): void;
  onStep(by: 1 | -1): void;
}) {
  const { field, text, said, put } = useTyping();
  const phone = useTouchPhone();
  useEffect(() => field.current?.focus(), [point, asked, field]);
  const acts = { n: () => onStep(1), b: () => onStep(-1) };
  useAnywhere(field, acts);
  const unit = POWERED_UNITS[point.mode];
  const typed = readFigure(text, unit);
  const wrong = typed && 'wrong' in typed ? typed.wrong : null;
  const keep = (): void => {
    const standing = readFigure(said(), unit);
    if (!standing || 'wrong' in standing) return;
    put('');
    onKeep(standing.value, standing.unsteady);
  };
  const caution = point.hazard && POINT_CAUTIONS[point.hazard];
  return (
    <section
      aria-label="Point under power"
      data-point={`${point.mode} ${point.red} ${point.black}`}
      className="border border-line bg-raised px-4 py-3"
    >
      {caution && (
        <Notice kind="caution" className="mb-2">
          {caution}
        </Notice>
      )}
      <PointHead
        board={board}
        red={point.red}
        black={point.black}
        mode={POWERED_NAMES[point.mode]}
        shows={bandWords(point)}
      />
      {point.steps.length > 0 && (
        <ol aria-label="How it comes about" className="mt-1 list-inside list-decimal text-sm text-faint">
          {point.steps.map((s) => (
            <li key={s.words}>{s.words}</li>
          ))}
        </ol>
      )}
      <form
        className="mt-2 flex items-stretch gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          keep();
        }}
      >
        <input
          ref={field}
          aria-label="Reading under power"
          onChange={(e) => put(e.target.value)}
          onKeyDown={(e) => {
            const act = said() === '' && !e.ctrlKey && !e.metaKey && !e.altKey ? acts[e.key as 'n' | 'b'] : undefined;
            if (!act) return;
            e.preventDefault();
            act();
          }}
          autoComplete="off"
          // On a phone the keys below take its keyboard's place.
          inputMode={phone ? 'none' : 'decimal'}
          placeholder="—"
          className="figure h-20 min-w-0 flex-1 rounded-sm border-2 border-line bg-ground px-4 text-[56px] leading-none placeholder:text-line focus:border-slate"
        />
        <div className="flex w-44 flex-col justify-between">
          <p className={`figure text-xl ${wrong ? 'text-sm text-oxide' : 'text-slate'}`} aria-live="polite">
            {wrong ?? (typed && 'value' in typed ? poweredWords(point.mode, typed.value) : '')}
          </p>
          <Button kind="primary" type="submit" disabled={typed === null || wrong !== null}>
            Keep the reading
          </Button>
        </div>
      </form>
      <KeyPad
        figures="powered"
        acts={POWERED_ACTS}
        empty={text === ''}
        onAct={(key) => acts[key as 'n' | 'b']()}
        onType={(key) => put(said() + key)}
        onRub={() => put(said().slice(0, -1))}
      />
      <p className="mt-1 text-sm text-faint">
        <span className="max-sm:hidden">
          <kbd>Enter</kbd> keeps · <kbd>~</kbd> before a figure that wanders.{' '}
        </span>
        Keeping one says the unit is connected: it is LIVE until it is isolated and proved again.
      </p>
    </section>
  );
}
