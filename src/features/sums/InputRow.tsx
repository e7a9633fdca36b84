'use client';
import { useId } from 'react';
import { UNIT_SIGNS, formatQuantity } from '@/core/quantity';
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
  const box = 'h-8 w-full rounded-sm border bg-ground px-2 figure';
  return (
    <div className="border-b border-line/50 py-1">
      <div className="grid grid-cols-[1fr_8.5rem_4.5rem] items-center gap-2">
        <label htmlFor={id} className="min-w-0 leading-tight">
          {input.meaning}
          {input.optional && <span className="text-sm text-faint"> (or leave empty)</span>}
        </label>
        {figure ? (
          <span id={id} tabIndex={-1} className={`${box} flex items-center border-slate`}>
            {formatQuantity(figure.value, input.unit, 4)}
          </span>
        ) : choices ? (
          <select
            id={id}
            aria-describedby={about}
            className={`${box} border-line`}
            value={field.text || field.shown || choices[0]}
            onChange={(e) => onType(e.target.value)}
          >
            {choices.map((w) => (
              <option key={w}>{w}</option>
            ))}
          </select>
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
          onPick &&
          !choices &&
          !input.list && (
            <button
              type="button"
              className="text-left text-sm text-slate underline underline-offset-4"
              onClick={onPick}
              aria-label={`Pick ${input.meaning} from the board`}
            >
              board @
            </button>
          )
        )}
      </div>
      <p id={about} className={`text-sm ${error ? 'text-oxide' : 'text-faint'}`} role={error ? 'alert' : undefined}>
        {error ??
          (figure ? (
            <>
              <span aria-hidden>⛓ </span>
              {figure.words}, {figure.basis}
            </>
          ) : field.text !== '' && input.unit !== '1' ? (
            field.shown
          ) : field.example ? (
            'made-up figure to begin with'
          ) : input.unit === '1' || choices ? (
            ''
          ) : (
            UNIT_SIGNS[input.unit]
          ))}
      </p>
      {field.lost !== null && (
        <p role="status" className="text-sm text-oxide">
          ▲ {field.lost} is no more on this board; its last figure is kept as typed.
        </p>
      )}
      {figure && field.moved !== null && (
        <p role="status" className="text-sm text-brass">
          ▸ was {formatQuantity(field.moved, input.unit, 4)} when it was bound: worked out anew.{' '}
          <button type="button" className="text-slate underline underline-offset-4" onClick={onSeen}>
            seen
          </button>
        </p>
      )}
    </div>
  );
}
