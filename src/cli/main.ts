import { ProblemError, ownValue } from '@/core/problem';
import { UnusableArguments } from './arguments';
import { benchCommand } from './benchCommand';
import { decodeCommand } from './decodeCommand';
import { diagnoseCommand } from './diagnoseCommand';
import { drawCommand } from './drawCommand';
import { expectCommand } from './expectCommand';
import { fuzzCommand } from './fuzzCommand';
import { HELP } from './help';
import { exitStatus } from './printProblem';
import { rateCommand } from './rateCommand';
import { readCommand } from './readCommand';
import { stagesCommand } from './stagesCommand';
import { sumCommand } from './sumCommand';

const COMMANDS: Readonly<Record<string, (words: readonly string[]) => number | Promise<number>>> = {
  read: readCommand,
  decode: decodeCommand,
  diagnose: diagnoseCommand,
  draw: drawCommand,
  expect: expectCommand,
  stages: stagesCommand,
  rate: rateCommand,
  sum: sumCommand,
  bench: benchCommand,
  fuzz: fuzzCommand,
};

/** Runs one command of the command line; gives its exit status (0 done, 1 could not be done, 2 unusable arguments). */
export function main(words: readonly string[]): number | Promise<number> {
  const [name = '', ...rest] = words;
  const command = ownValue(COMMANDS, name);
  try {
    if (command) {
      if (rest.includes('--help')) {
        console.log(HELP);
        return 0;
      }
      return command(rest);
    }
    console.error(`There is no command “${name}”.\n\n${HELP}`);
    return 2;
  } catch (error) {
    if (error instanceof UnusableArguments) {
      console.error(error.message);
      return 2;
    }
    if (error instanceof ProblemError) {
      const { code, sentence, remedy } = error.problem;
      if (rest.includes('--json')) console.log(JSON.stringify({ error: { code, message: sentence } }));
      console.error(`${sentence}\n${remedy}`);
      return exitStatus(code);
    }
    throw error;
  }
}
