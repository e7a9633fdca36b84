'use client';
import { useState } from 'react';
import type { Board } from '@/core/circuit';
import { figureOf, suggestFigures } from '@/core/figures';
import { formatQuantity } from '@/core/quantity';
import { derivation, realPart, resultText, sumText } from '@/core/sums';
import type { SumDone } from '@/core/sums';
import { useWidth } from '@/ui/useWidth';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import { FigurePicker } from './FigurePicker';
import { InputRow } from './InputRow';
import { readSheet, without } from './sheet';
import type { Sheet, SheetState } from './sheet';
import { SumPicture } from './SumPicture';

/** One sum as a sheet: inputs, results at once, a picture, the derivation in numbers, cautions where they bite. */
export function SumSheet({
  state,
  board,
  onChange,
  onKeep,
}: {
  state: SheetState;
  board: Board | null;
  onChange(state: SheetState): void;
  onKeep: ((state: SheetState, words: string) => Promise<boolean>) | null;
}) {
  const [picking, setPicking] = useState<string | null>(null);
  const [left, width] = useWidth<HTMLDivElement>(345);
  const sheet = readSheet(state, board);
  const { sum, fields, done } = sheet;
  const type = (key: string, text: string): void => {
    onChange({ ...state, bound: without(state.bound, key), texts: { ...state.texts, [key]: text } });
  };
  const bind = (key: string, figure: string, value: number): void => {
    onChange({ ...state, texts: without(state.texts, key), bound: { ...state.bound, [key]: { figure, value } } });
  };
  const take = (keys: Readonly<Record<string, string>>): void => {
    const bound: Record<string, { figure: string; value: number }> = { ...state.bound };
    for (const [key, name] of Object.entries(keys)) {
      const figure = board ? figureOf(board, name) : undefined;
      if (figure) bound[key] = { figure: figure.key, value: figure.value };
    }
    onChange({ ...state, bound });
  };
  const picked = picking === null ? undefined : sum.inputs.find((i) => i.key === picking);
  return (
    <section aria-label={sum.title}>
      <h1 className="mb-2 text-xl font-bold">{sum.title}</h1>
      <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-5 max-lg:grid-cols-1">
        <div ref={left} className="min-w-0">
          {board && <FromBoard sheet={sheet} board={board} onTake={take} />}
          {fields.map((field) => (
            <InputRow
              key={field.input.key}
              field={field}
              onType={(text) => type(field.input.key, text)}
              onPick={board ? () => setPicking(field.input.key) : null}
              onFree={() => type(field.input.key, '')}
              onSeen={() => field.figure && bind(field.input.key, field.figure.key, field.figure.value)}
            />
          ))}
          {done && <SumPicture done={done} width={width} />}
        </div>
        <div>
          <Results sheet={sheet} />
          <SheetActions key={JSON.stringify(state)} sheet={sheet} state={state} onKeep={onKeep} />
        </div>
      </div>
      {done && <Derivation sheet={sheet} done={done} />}
      {done && done.cautions.length > 0 && (
        <Notice kind="caution" className="mt-3">
          {done.cautions.map((c) => (
            <p key={c}>{c}</p>
          ))}
        </Notice>
      )}
      {picked && board && (
        <FigurePicker
          board={board}
          input={picked}
          onClose={() => setPicking(null)}
          onPick={(figure) => {
            bind(picked.key, figure.key, figure.value);
            setPicking(null);
          }}
        />
      )}
    </section>
  );
}

function Results({ sheet: { sum, done, examples, missing, fields } }: { sheet: Sheet }) {
  if (!done) {
    const words = missing.map((key) => sum.inputs.find((i) => i.key === key)!.meaning).join(', ');
    const wrong = fields.some((f) => f.error !== null);
    return (
      <p aria-live="polite" className="text-lg text-faint">
        {wrong ? 'Nothing is worked out while a figure is not right.' : `Still wanted: ${words}.`}
      </p>
    );
  }
  const rest = Object.keys(done.results).filter((key) => !sum.lead.includes(key));
  return (
    <div aria-live="polite">
      {sum.lead.map((key) => (
        <p key={key} className="mb-1 leading-tight">
          <span className="text-sm text-faint">{sum.resultWords[key]}</span>
          <span className="figure block text-3xl" data-result={key}>
            {resultText(sum, key, done.results[key])}
          </span>
          <RealPart sum={sum} name={key} value={done.results[key]} />
        </p>
      ))}
      {examples.length > 0 && (
        <p className="mb-1 text-sm text-brass">
          ▸ worked with made-up figures
          {examples.length < 4
            ? ` for ${examples.map((k) => sum.inputs.find((i) => i.key === k)!.meaning).join(', ')}`
            : ': type yours over them'}
        </p>
      )}
      <dl className="grid grid-cols-[1fr_auto] gap-x-3 text-sm">
        {rest.map((key) => (
          <div key={key} className="contents">
            <dt className="text-faint">{sum.resultWords[key]}</dt>
            <dd className="figure text-right" data-result={key}>
              {resultText(sum, key, done.results[key])} <RealPart sum={sum} name={key} value={done.results[key]} />
            </dd>
          </div>
        ))}
      </dl>
    </div>
  );
}

/** The real part to fit for a result, where it is one. */
function RealPart({ sum, name, value }: { sum: Sheet['sum']; name: string; value: unknown }) {
  const part = realPart(sum, name, value, 'E24');
  return part === null ? null : <span className="text-sm text-slate">fit {formatQuantity(part, 'ohm')} (E24)</span>;
}

/** Offers what the board knows for inputs that nobody touched, all in one touch. */
function FromBoard({
  sheet,
  board,
  onTake,
}: {
  sheet: Sheet;
  board: Board;
  onTake(keys: Readonly<Record<string, string>>): void;
}) {
  const offered = suggestFigures(board, sheet.sum.name);
  const open = sheet.fields.filter((f) => f.example && offered[f.input.key] !== undefined).map((f) => f.input);
  if (open.length === 0) return null;
  return (
    <Button
      className="mb-1 w-full text-left"
      onClick={() => onTake(Object.fromEntries(open.map(({ key }) => [key, offered[key]!])))}
    >
      <span className="text-brass">@</span> Take from the board: {open.map((i) => i.meaning).join(', ')}
    </Button>
  );
}

function Derivation({ sheet: { sum }, done }: { sheet: Sheet; done: SumDone }) {
  const lines = derivation(sum, done);
  return (
    <section aria-label="How it comes about" className="mt-3 text-sm">
      <h2 className="text-faint">How it comes about ({sum.source})</h2>
      {lines.length === 0 && <p className="figure">{sum.formula}</p>}
      <ul>
        {lines.map((line) => (
          <li key={line.key} className="figure break-words">
            <span className="text-faint">{sum.resultWords[line.key]}</span> = {line.numbers} ={' '}
            <strong>{line.value}</strong>
          </li>
        ))}
      </ul>
    </section>
  );
}

function SheetActions({
  sheet: { sum, done, examples },
  state,
  onKeep,
}: {
  sheet: Sheet;
  state: SheetState;
  onKeep: ((state: SheetState, words: string) => Promise<boolean>) | null;
}) {
  const [said, setSaid] = useState('');
  const [words, setWords] = useState('');
  const copy = async (text: string, what: string): Promise<void> => {
    try {
      await navigator.clipboard.writeText(text);
      setSaid(`${what} copied.`);
    } catch {
      setSaid(`This browser does not let it be copied: mark the ${what.toLowerCase()} by hand.`);
    }
  };
  const keep = async (): Promise<void> => {
    if (onKeep && (await onKeep(state, words))) setSaid('Kept in the job log.');
  };
  return (
    <form
      className="mt-3 flex flex-wrap items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
    >
      {onKeep && (
        <>
          <input
            aria-label="What it is for"
            value={words}
            onChange={(e) => setWords(e.target.value)}
            placeholder="what it is for"
            className="h-9 w-full rounded-sm border border-line bg-ground px-2 placeholder:text-faint"
          />
          <Button kind="primary" type="submit" disabled={!done || examples.length > 0}>
            Keep in the job log
          </Button>
        </>
      )}
      <Button
        kind={onKeep ? 'plain' : 'primary'}
        disabled={!done}
        onClick={() => done && void copy(sumText(sum, done), 'Text')}
      >
        Copy as text
      </Button>
      <Button onClick={() => void copy(window.location.href, 'Link')}>Copy the link</Button>
      <span role="status" className="text-sm text-faint">
        {said || (onKeep && examples.length > 0 ? 'Made-up figures are not kept: give your own first.' : '')}
      </span>
    </form>
  );
}
