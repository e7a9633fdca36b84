'use client';
import { X } from 'lucide-react';
import { useRef, useState } from 'react';
import type { Board } from '@/core/circuit';
import { parseSupposition } from '@/core/expect';
import type { Supposition } from '@/core/expect';
import { Button } from '@/ui/Button';

/** Another value of a part, or a fault, supposed: everything on the page follows, nothing is written. */
export function WhatIf({
  board,
  supposed,
  onChange,
}: {
  board: Board;
  supposed: readonly Supposition[];
  onChange(all: readonly Supposition[]): void;
}) {
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const suppose = (): void => {
    const read = parseSupposition(board, text);
    if (!read.ok) return setWrong(`${read.problem.sentence} ${read.problem.remedy}`);
    const { change } = read.value;
    // Another value of the same part takes the place of the one before.
    const kept = supposed.filter(
      (s) => s.text !== read.value.text && (change === null || s.change?.ref !== change.ref),
    );
    onChange([...kept, read.value]);
    setText('');
    setWrong(null);
  };
  return (
    <form
      aria-label="Suppositions"
      className="flex flex-wrap items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        suppose();
      }}
    >
      <label className="flex items-center gap-2">
        <span className="text-faint">What if</span>
        <input
          ref={field}
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setWrong(null);
          }}
          aria-invalid={wrong === null ? undefined : true}
          aria-describedby={wrong === null ? undefined : 'what-if-wrong'}
          autoComplete="off"
          placeholder="R3 12k, or C5 open"
          className="figure w-52 rounded-sm border border-line bg-ground px-2 py-1 placeholder:text-faint"
        />
      </label>
      <Button type="submit" kind="quiet" disabled={text.trim() === ''}>
        Suppose it
      </Button>
      {supposed.map((s) => (
        <span key={s.text} className="flex items-center gap-1 border border-dashed border-slate px-2 py-0.5 text-slate">
          supposed: {s.words}
          <button
            type="button"
            aria-label={`Take back ${s.words}`}
            onClick={() => {
              onChange(supposed.filter((x) => x !== s));
              field.current?.focus();
            }}
          >
            <X size={16} aria-hidden />
          </button>
        </span>
      ))}
      {wrong !== null && (
        <p id="what-if-wrong" role="alert" className="basis-full text-sm text-oxide">
          {wrong}
        </p>
      )}
    </form>
  );
}
