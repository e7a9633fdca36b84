'use client';
import dynamic from 'next/dynamic';
import { useCallback, useMemo } from 'react';
import { boardNets, pinNames } from '@/core/circuit';
import { boardFacts } from '@/core/job';
import { KIND_WORDS, SETTLED, deriveBoard, readShorthand } from '@/core/trace';
import type { TraceEntry } from '@/core/trace';
import { PIN_ROLES } from '@/core/stages';
import { keep, useInBrowser, useKept } from '@/features/job/kept';
import { useJob } from '@/features/job/JobContext';
import { Button } from '@/ui/Button';
import type { LineTrouble, LineWords } from '@/ui/LineEditor';

/** Fetched when lines are typed. */
const LineEditor = dynamic(async () => (await import('@/ui/LineEditor')).LineEditor, {
  ssr: false,
  loading: () => <div className="h-[170px] border border-line" />,
});

const HINT = 'R7 472 VCC FB\nU1 KV51 HV- FB ? VCC GATE\nR7.2 -- U1.5\nR7.2 -/- GND';
const VERBS = ['net', 'split', 'drop', 'empty', 'stage', 'topology', 'core', 'pin'];

/** The bench shorthand: one fact a line, read as it is typed; right lines go into the job log, wrong ones stay. */
export function ShorthandPanel() {
  const { job, active, addLine } = useJob();
  const key = `trace ${job.tag} ${active.id}`;
  const draft = useKept(key) ?? '';
  // The editor takes its first text from this browser: it begins once the page is in one.
  const there = useInBrowser();
  const take = (lines: readonly string[]): void => {
    for (const text of lines) void addLine({ kind: 'trace', body: { text: text.trim() } }, active.id);
  };
  const { start, entries, board } = active;
  const diagnose = useCallback(
    (line: string, number: number, all: readonly string[]): LineTrouble | null => {
      const read = readShorthand(line, true);
      if (!read.ok) return { ...read.problem.details!, message: `${read.problem.sentence} ${read.problem.remedy}` };
      if (read.value === null)
        return { at: 0, length: line.length, message: 'A remark stays here; it is not kept in the log.' };
      // It must fit the board as it will be once the lines above are taken.
      const before = all.slice(0, number).flatMap((text, i): TraceEntry[] => {
        const above = readShorthand(text);
        return above.ok && above.value ? [{ id: `draft ${i}`, fact: above.value }] : [];
      });
      const misfit = deriveBoard(start, [...entries, ...before, { id: 'this', fact: read.value }]).misfits.find(
        (m) => m.id === 'this',
      );
      return misfit ? { at: 0, length: line.length, message: misfit.sentence } : null;
    },
    [start, entries],
  );
  const nets = useMemo(() => boardNets(board).filter((n) => !n.includes('.')), [board]);
  const complete = (line: string, column: number): LineWords | null => {
    const before = line.slice(0, column);
    const word = /[^\s"]*$/u.exec(before)?.[0] ?? '';
    const from = column - word.length;
    const position = before.trim() === word ? 0 : before.trim().split(/\s+/u).length;
    const pinOf = /^(\w+)\.(\w*)$/u.exec(word);
    const part = pinOf && board.parts.find((p) => p.ref.toLowerCase() === pinOf[1]!.toLowerCase());
    if (part)
      return {
        from: from + pinOf[1]!.length + 1,
        words: pinNames(part).map((name, i) => ({ word: name, note: part.nets[i]! })),
      };
    if (word === '') return null;
    const refs = board.parts.map((p) => ({ word: p.ref, note: p.kind }));
    if (position === 0) return { from, words: [...VERBS.map((v) => ({ word: v, note: 'correction' })), ...refs] };
    const verb = /^(stage|topology|core) /u.exec(before)?.[1] as keyof typeof SETTLED | undefined;
    const settled = verb ? SETTLED[verb].map((k) => ({ word: k, note: verb })) : [];
    const roles = before.startsWith('pin ') ? PIN_ROLES.map((r) => ({ word: r, note: 'role' })) : [];
    const kinds = position === 1 ? Object.entries(KIND_WORDS).map(([k]) => ({ word: k, note: 'kind' })) : [];
    return { from, words: [...settled, ...roles, ...kinds, ...nets.map((n) => ({ word: n, note: 'net' })), ...refs] };
  };
  const lines = draft.split('\n');
  const right = lines.filter((line, i) => line.trim() !== '' && diagnose(line, i, lines) === null).length;
  const wrong = lines.filter((line) => line.trim() !== '').length - right;
  return (
    <div className="flex flex-col gap-2">
      {there && (
        <LineEditor
          key={key}
          label="Bench shorthand"
          value={draft}
          placeholder={HINT}
          diagnose={diagnose}
          complete={complete}
          onChange={(text) => keep(key, text)}
          onTake={take}
        />
      )}
      <p className="flex items-center gap-3 text-sm text-faint" role="status">
        <span className="grow">
          Enter keeps a line, Ctrl-Enter all that are right, Tab takes the offered word
          {right + wrong > 0 && `: ${right} right`}
          {wrong > 0 && <strong className="text-oxide">, {wrong} marked and kept here</strong>}
        </span>
        <a href="/shorthand" target="_blank" className="text-slate underline underline-offset-4">
          the page of the shorthand
        </a>
      </p>
      <Disagreements />
    </div>
  );
}

/** Facts that contradict each other with an offer to withdraw one, beeps that need ohms, facts that fit nowhere. */
export function Disagreements() {
  const { active, lines, addLine } = useJob();
  const { contradictions, questions, misfits } = active.trace;
  const textOf = (id: string): string => {
    const line = lines.find((l) => l.id === id);
    return line ? boardFacts(line.entry).join('; ') : 'on its way';
  };
  const withdraw = (id: string): void =>
    void addLine({ kind: 'reversal', body: { reason: 'withdrawn: it contradicts other facts' } }, active.id, id);
  if (contradictions.length + questions.length + misfits.length === 0) return null;
  return (
    <div className="flex flex-col gap-2">
      {contradictions.map((c) => (
        <section
          key={c.facts.join(' ')}
          aria-label="Facts that disagree"
          className="border-l-4 border-oxide bg-oxide-ground px-3 py-2"
        >
          <p>{c.sentence}</p>
          <ul className="mt-1 flex flex-wrap gap-2">
            {c.facts.map((id) => (
              <li key={id}>
                <Button onClick={() => withdraw(id)}>
                  withdraw <span className="figure">{textOf(id)}</span>
                </Button>
              </li>
            ))}
          </ul>
        </section>
      ))}
      {questions.map((q) => (
        <p key={q.fact} className="border-l-4 border-line px-3 py-1">
          {q.sentence}
        </p>
      ))}
      {misfits.map((m) => (
        <p key={m.id} className="border-l-4 border-line px-3 py-1">
          <span className="figure">{textOf(m.id)}</span>: {m.sentence}{' '}
          <Button kind="quiet" onClick={() => withdraw(m.id)}>
            withdraw it
          </Button>
        </p>
      ))}
    </div>
  );
}
