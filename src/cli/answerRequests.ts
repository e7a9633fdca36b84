import { fileText } from '@/wire/openBoard';

/** Answers a file of requests, one JSON document a line, in order; blank lines are passed over. */
export function answerRequests(path: string, answer: (line: string) => unknown): number {
  const lines = fileText(path)
    .split('\n')
    .filter((line) => line.trim() !== '');
  console.log(lines.map((line) => JSON.stringify(answer(line))).join('\n'));
  return 0;
}
