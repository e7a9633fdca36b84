'use client';
import { acceptCompletion, autocompletion, closeCompletion, moveCompletionSelection } from '@codemirror/autocomplete';
import type { CompletionContext, CompletionResult } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { forceLinting, linter, lintKeymap } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import { EditorView, drawSelection, keymap, lineNumbers, placeholder as placeholderOf } from '@codemirror/view';
import { useEffect, useEffectEvent, useRef } from 'react';

/** What is wrong in a line: from which character, how many, and what to say. */
export interface LineTrouble {
  readonly at: number;
  readonly length: number;
  readonly message: string;
}

/** Words to offer at the cursor, and where the word that they complete begins. */
export interface LineWords {
  readonly from: number;
  readonly words: readonly { readonly word: string; readonly note: string }[];
}

/**
 * A plain-text editor for one fact a line. Enter at the end of a line that is right hands it over and takes it out;
 * Ctrl-Enter does so with all right lines. Wrong lines stay, marked at the character.
 */
export function LineEditor({
  label,
  value,
  placeholder,
  diagnose,
  complete,
  onChange,
  onTake,
}: {
  label: string;
  value: string;
  placeholder: string;
  diagnose(line: string, number: number, all: readonly string[]): LineTrouble | null;
  complete(line: string, column: number): LineWords | null;
  onChange(value: string): void;
  /** Lines handed over, in order. */
  onTake(lines: readonly string[]): void;
}) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const trouble = useEffectEvent(diagnose);
  const words = useEffectEvent(complete);
  const changed = useEffectEvent(onChange);
  const take = useEffectEvent(onTake);
  const first = useRef(value);

  useEffect(() => {
    const linesOf = (state: EditorState): string[] => state.doc.toString().split('\n');
    const takeLines = (target: EditorView, wanted: (number: number) => boolean): boolean => {
      const all = linesOf(target.state);
      const right = all.map((line, i) => line.trim() !== '' && wanted(i) && trouble(line, i, all) === null);
      if (!right.includes(true)) return false;
      const kept = all.filter((_, i) => !right[i]);
      take(all.filter((_, i) => right[i]));
      target.dispatch({
        changes: { from: 0, to: target.state.doc.length, insert: kept.join('\n').replace(/^\n+/u, '') },
      });
      target.dispatch({ selection: { anchor: target.state.doc.length } });
      return true;
    };
    const offer = (context: CompletionContext): CompletionResult | null => {
      const line = context.state.doc.lineAt(context.pos);
      const offered = words(line.text, context.pos - line.from);
      if (!offered || (!context.explicit && offered.from === context.pos - line.from)) return null;
      return { from: line.from + offered.from, options: offered.words.map((w) => ({ label: w.word, detail: w.note })) };
    };
    const made = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: first.current,
        extensions: [
          history(),
          drawSelection(),
          lineNumbers(),
          placeholderOf(() => asWritten(placeholder)),
          EditorView.contentAttributes.of({
            'aria-label': label,
            'data-typing': 'yes',
            autocapitalize: 'off',
            spellcheck: 'false',
          }),
          linter(
            (target) => {
              const all = linesOf(target.state);
              return all.flatMap((line, i) => {
                const wrong = line.trim() === '' ? null : trouble(line, i, all);
                if (!wrong) return [];
                const from = target.state.doc.line(i + 1).from;
                const start = Math.min(from + wrong.at, from + Math.max(0, line.length - 1));
                return [
                  {
                    from: start,
                    to: Math.min(start + wrong.length, from + line.length),
                    severity: 'error' as const,
                    message: wrong.message,
                  },
                ];
              });
            },
            { delay: 120 },
          ),
          autocompletion({ override: [offer], activateOnTyping: true, defaultKeymap: false }),
          keymap.of([
            { key: 'Mod-Enter', run: (target) => takeLines(target, () => true) || true },
            {
              key: 'Enter',
              run: (target) => {
                const { head, empty } = target.state.selection.main;
                const line = target.state.doc.lineAt(head);
                if (!empty || head !== line.to || line.text.trim() === '') return false;
                return takeLines(target, (i) => i === line.number - 1);
              },
            },
            // Enter keeps the line; Tab takes the offered word.
            { key: 'Tab', run: acceptCompletion },
            { key: 'ArrowDown', run: moveCompletionSelection(true) },
            { key: 'ArrowUp', run: moveCompletionSelection(false) },
            { key: 'Escape', run: closeCompletion },
            ...lintKeymap,
            ...historyKeymap,
            ...defaultKeymap,
          ]),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) changed(update.state.doc.toString());
          }),
          LOOK,
        ],
      }),
    });
    view.current = made;
    return () => made.destroy();
  }, [label, placeholder]);

  // What is known has changed: what was wrong may be right now.
  useEffect(() => {
    if (view.current) forceLinting(view.current);
  }, [diagnose]);

  return <div ref={host} className="border border-line bg-ground focus-within:border-slate" />;
}

/** A placeholder with its line breaks. */
function asWritten(text: string): HTMLElement {
  const shown = document.createElement('span');
  shown.style.whiteSpace = 'pre-wrap';
  shown.textContent = text;
  return shown;
}

const LOOK = EditorView.theme({
  '&': { height: '168px', fontSize: '15px', color: 'var(--ink)', backgroundColor: 'var(--ground)' },
  '.cm-content': { fontFamily: 'var(--font-mono)', caretColor: 'var(--ink)' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)', borderLeftWidth: '2px' },
  '.cm-gutters': { backgroundColor: 'var(--raised)', color: 'var(--faint)', border: 'none' },
  '&.cm-focused': { outline: 'none' },
  '.cm-placeholder': { color: 'var(--faint)' },
  '.cm-tooltip': { backgroundColor: 'var(--raised)', color: 'var(--ink)', border: '1px solid var(--line)' },
  '.cm-tooltip-autocomplete > ul > li[aria-selected]': { backgroundColor: 'var(--slate)', color: 'var(--ground)' },
  '.cm-completionDetail': { color: 'var(--faint)', fontStyle: 'normal' },
  '.cm-diagnostic-error': { borderLeftColor: 'var(--oxide)' },
  '.cm-selectionBackground': { backgroundColor: 'var(--line) !important' },
});
