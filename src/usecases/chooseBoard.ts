import { archetypeBoard } from '@/core/archetype';
import { EMPTY_BOARD } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { NetlistProblem } from '@/core/netlist';
import { ProblemError } from '@/core/problem';
import { boardsOf } from '@/data/board/boardTable';
import type { BoardOrigin } from '@/data/board/boardTable';
import { jobByTag } from '@/data/job/jobTable';
import type { Tx } from '@/data/pool';
import { boardFromJson } from '@/wire/boardCopy';
import { BoardJson } from '@/wire/boardJson';
import type { BoardChoice } from '@/wire/jobForm';
import { readAside } from './readAside';

/** A board file that was not read: every error with its line. */
export function netlistRefused(problems: readonly NetlistProblem[]): ProblemError {
  return new ProblemError({
    code: 'bad-netlist',
    sentence: `The board file has ${problems.length === 1 ? 'an error' : `${problems.length} errors`}; nothing of it was taken.`,
    remedy: 'Correct the lines below and drop the file again. What you typed here is kept.',
    details: { lines: problems.map((p) => ({ line: p.details?.line ?? 0, sentence: p.sentence, remedy: p.remedy })) },
  });
}

/**
 * The board that a technician chose to start from: a typical circuit, a file, or another job's board.
 *
 * Throws ProblemError `bad-netlist`, `bad-board`, `no-such-job`, `no-such-circuit`.
 */
export async function chooseBoard(
  tx: Tx,
  choice: BoardChoice,
): Promise<{ readonly board: Board; readonly origin: BoardOrigin }> {
  switch (choice.from) {
    case 'typical': {
      const circuit = archetypeBoard(choice.name);
      if (!circuit)
        throw new ProblemError({
          code: 'no-such-circuit',
          sentence: 'There is no such typical circuit.',
          remedy: 'Choose another.',
        });
      return { board: circuit, origin: 'typical' };
    }
    case 'netlist': {
      const read = await readAside(choice.text);
      if (!read.ok) throw netlistRefused(read.problem);
      return { board: read.value.board, origin: 'netlist' };
    }
    case 'json':
      return { board: boardOfJson(choice.text), origin: 'json' };
    case 'empty':
      return { board: EMPTY_BOARD, origin: 'empty' };
    case 'job': {
      const other = await jobByTag(tx, choice.tag);
      const [first] = other ? await boardsOf(tx, other.id) : [];
      if (!first)
        throw new ProblemError({
          code: 'no-such-job',
          sentence: `There is no job ${choice.tag}.`,
          remedy: 'Choose another start.',
        });
      return { board: boardFromJson(first.content), origin: 'copy' };
    }
  }
}

function boardOfJson(text: string): Board {
  const refused = (why: string): ProblemError =>
    new ProblemError({
      code: 'bad-board',
      sentence: `The board JSON was not taken: ${why}`,
      remedy: 'Nothing was saved. Check it against docs/board.schema.json.',
    });
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw refused('it is not JSON.');
  }
  const parsed = BoardJson.safeParse(raw);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw refused(`${issue?.path.join('.') ?? ''}: ${issue?.message ?? 'it does not fit the schema'}.`);
  }
  return boardFromJson(parsed.data);
}
