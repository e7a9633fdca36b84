'use client';
import { useMemo, useState } from 'react';
import type { FormEvent } from 'react';
import { ARCHETYPES, archetypeBoard } from '@/core/archetype';
import type { Board } from '@/core/circuit';
import { marking } from '@/core/part';
import type { Problem } from '@/core/problem';
import { useJob } from '@/features/job/JobContext';
import type { FirstBoard, Harness } from '@/features/job/JobContext';
import { postJson } from '@/features/job/postJson';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import { Select } from '@/ui/Select';
import type { Option } from '@/ui/Select';
import { Notice } from '@/ui/Notice';
import type { BoardChoice } from '@/wire/jobForm';
import type { StoredLine } from '@/wire/ledger';
import { BoardPicker } from './BoardPicker';

/** The boards of the job and the harnesses between them; another can be added, two can be joined. */
export function BoardsSection() {
  const { boards, harnesses } = useJob();
  const [adding, setAdding] = useState(false);
  const label = (id: string): string => boards.find((b) => b.id === id)?.label ?? id;
  return (
    <section aria-labelledby="boards" className="mt-8 flex max-w-2xl flex-col gap-3">
      <h2 id="boards" className="font-semibold">
        Boards
      </h2>
      <ul className="flex flex-col gap-1">
        {boards.map((b) => (
          <li key={b.id}>
            {b.label}{' '}
            <span className="text-faint">
              {b.board.title}, {b.board.parts.length} parts
            </span>
          </li>
        ))}
        {harnesses.map((h) => (
          <li key={`${h.fromBoard} ${h.fromPin} ${h.toBoard} ${h.toPin}`} className="text-faint">
            harness: {label(h.fromBoard)} {h.fromPin} to {label(h.toBoard)} {h.toPin}
          </li>
        ))}
      </ul>
      {adding ? (
        <AddBoard onDone={() => setAdding(false)} />
      ) : (
        <Button className="self-start" onClick={() => setAdding(true)}>
          Add a board
        </Button>
      )}
      {boards.length > 1 && <JoinBoards />}
    </section>
  );
}

function AddBoard({ onDone }: { onDone(): void }) {
  const { job, actor, takeNewBoard } = useJob();
  const circuits = useMemo(
    () => ARCHETYPES.map((a) => ({ ...a, parts: archetypeBoard(a.name)?.parts.length ?? 0 })),
    [],
  );
  const [label, setLabel] = useState('');
  const [board, setBoard] = useState<BoardChoice>({ from: 'typical', name: circuits[0]!.name });
  const [problem, setProblem] = useState<Problem | null>(null);
  const send = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const body = { kind: 'add', actor, label, board };
    const answer = await postJson<{ board: FirstBoard; line: StoredLine }>(`/api/jobs/${job.tag}/boards`, body);
    if (!answer.ok) return setProblem(answer.problem);
    takeNewBoard(answer.value.board, answer.value.line);
    onDone();
  };
  return (
    <form onSubmit={(e) => void send(e)} className="flex flex-col gap-3 border-l-4 border-line pl-4">
      {problem && (
        <Notice kind="trouble">
          <strong>{problem.sentence}</strong> {problem.remedy}
        </Notice>
      )}
      <TextField
        label="Name of the board"
        value={label}
        autoFocus
        onChange={(e) => setLabel(e.target.value)}
        placeholder="Control board"
      />
      <BoardPicker circuits={circuits} from={null} choice={board} onChoose={setBoard} serverProblem={problem} />
      <div className="flex gap-3">
        <Button type="submit" disabled={label.trim() === ''}>
          Add this board
        </Button>
        <Button kind="quiet" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </form>
  );
}

/** Pins of a board's connectors, as harness ends. */
function connectorPins(board: Board): readonly { readonly pin: string; readonly words: string }[] {
  return board.parts
    .filter((p) => p.kind === 'connector')
    .flatMap((p) =>
      p.nets.map((net, i) => ({
        pin: `${p.ref} pin ${i + 1}`,
        words: `${p.ref} pin ${i + 1}${marking(p) ? ` (${marking(p)})` : ''}, ${net}`,
      })),
    );
}

function JoinBoards() {
  const { job, boards, actor, takeHarness, setTrouble } = useJob();
  const ends = boards.flatMap((b) =>
    connectorPins(b.board).map(({ pin, words }) => ({
      key: `${b.id} ${pin}`,
      board: b.id,
      pin,
      words: `${b.label} ${words}`,
    })),
  );
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const one = ends.find((e) => e.key === from);
  const other = ends.find((e) => e.key === to);
  const send = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (!one || !other) return;
    const body = {
      kind: 'join',
      actor,
      fromBoard: one.board,
      fromPin: one.pin,
      toBoard: other.board,
      toPin: other.pin,
    };
    const answer = await postJson<{ harness: Harness; line: StoredLine }>(`/api/jobs/${job.tag}/boards`, body);
    if (answer.ok) takeHarness(answer.value.harness, answer.value.line);
    else setTrouble(answer.problem);
  };
  const options = (without: string | undefined): readonly Option[] => [
    { value: '', words: 'choose a connector pin' },
    ...ends.filter((e) => e.board !== without).map((e) => ({ value: e.key, words: e.words })),
  ];
  return (
    <form onSubmit={(e) => void send(e)} className="grid grid-cols-[1fr_1fr_auto] items-end gap-3">
      <Select label="Harness from" className="w-44" value={from} options={options(undefined)} onChoose={setFrom} />
      <Select label="to" className="w-44" value={to} options={options(one?.board)} onChoose={setTo} />
      <Button type="submit" disabled={!one || !other}>
        Join
      </Button>
    </form>
  );
}
