'use client';
import { useId } from 'react';
import { UNIT_SIGNS, formatQuantity } from '@/core/quantity';
import { Hint } from '@/ui/Hint';
import { Select } from '@/ui/Select';
import type { SheetField } from './sheet';

/** One input of a sum: typed with its reading beside it, or bound to a figure of the board with its basis. */
export function InputRow({
  field,
  onType,
  onPick,
  onFree,
  onSeen,
}: {
  field: SheetField;
  onType(text: string): void;
  /** Opens the picker; null where there is no board to pick from. */
  onPick: (() => void) | null;
  onFree(): void;
  onSeen(): void;
}) {
  const id = useId();
  const { input, figure, error } = field;
  const choices = input.words ?? input.numbers?.map(String);
  const about = `${id}-about`;
  const unitSign = input.unit === '1' || choices ? '' : UNIT_SIGNS[input.unit];
  const box = 'h-8 w-full min-w-0 rounded-sm border bg-ground px-2 figure';
  const told = error !== null ? '' : figure ? '' : field.text === '' ? unitSign : field.shown;
  return (
    <div className="border-b border-line/50 py-1">
      <div
        className={`grid items-center gap-2 ${input.list ? 'grid-cols-[7rem_1fr_4.5rem]' : 'grid-cols-[1fr_9rem_4.5rem]'}`}
      >
        <label htmlFor={id} className="min-w-0 text-sm leading-tight">
          {input.meaning}
          {input.optional && <span className="text-faint"> (optional)</span>}
        </label>
        <span className="flex">
          {figure ? (
            <output id={id} className={`${box} flex items-center border-slate`}>
              {formatQuantity(figure.value, input.unit, 4)}
            </output>
          ) : choices ? (
            <Select
              id={id}
              label={input.meaning}
              place="hidden"
              describedBy={about}
              className="w-full"
              look="slim"
              box="figure h-8 w-full"
              value={field.text || field.shown || choices[0]!}
              options={choices}
              onChoose={onType}
            />
          ) : (
            <input
              id={id}
              aria-describedby={about}
              aria-invalid={error ? true : undefined}
              autoComplete="off"
              className={`${box} placeholder:italic placeholder:text-faint ${error ? 'border-oxide' : 'border-line'}`}
              placeholder={field.example ? field.shown : input.preset === undefined ? '' : String(input.preset)}
              value={field.text}
              onChange={(e) => {
                if (onPick && e.target.value.endsWith('@')) onPick();
                else onType(e.target.value);
              }}
            />
          )}
          {!figure && onPick && !choices && !input.list && (
            <Hint text="from the board" acts>
              <button
                type="button"
                className="figure w-8 shrink-0 rounded-sm border border-l-0 border-line text-slate hover:border-ink"
                onClick={onPick}
                aria-label={`Pick ${input.meaning} from the board`}
              >
                @
              </button>
            </Hint>
          )}
        </span>
        {figure ? (
          <button
            type="button"
            className="text-left text-sm text-slate underline underline-offset-4"
            onClick={onFree}
            aria-label={`Type ${input.meaning} instead`}
          >
            type
          </button>
        ) : (
          <span className="figure text-sm text-faint">{told}</span>
        )}
      </div>
      <p
        id={about}
        className={`text-right text-sm empty:hidden ${error ? 'text-oxide' : 'text-faint'}`}
        role={error ? 'alert' : undefined}
      >
        {error ?? (figure ? `follows ${figure.words} (${figure.basis})` : '')}
      </p>
      {field.lost !== null && (
        <p role="status" className="text-right text-sm text-oxide">
          ▲ {field.lost} is no more on this board; its last figure is kept as typed.
        </p>
      )}
      {figure && field.moved !== null && (
        <p role="status" className="text-right text-sm text-brass">
          ▸ was {formatQuantity(field.moved, input.unit, 4)} when it was bound: worked out anew.{' '}
          <button type="button" className="text-slate underline underline-offset-4" onClick={onSeen}>
            seen
          </button>
        </p>
      )}
    </div>
  );
}
