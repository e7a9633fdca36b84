import { readFileSync } from 'node:fs';
import type { Board, Nameplate } from '@/core/circuit';
import { readNetlist } from '@/core/netlist';
import { ProblemError } from '@/core/problem';
import { parseReadingsCsv } from './readingsCsv';
import type { ReadingsFile } from './readingsCsv';
import { boardFromJson } from './boardCopy';
import { BoardJson, FactsFile } from './boardJson';

/** A file that could not be read or understood: the message holds every line of it. */
function unusable(code: string, sentence: string): ProblemError {
  return new ProblemError({ code, sentence, remedy: 'Correct the file and try again.' });
}

/** Reads a text file or refuses with its name. */
export function fileText(path: string): string {
  try {
    return readFileSync(path, 'utf8');
  } catch {
    throw unusable('no-file', `${path} cannot be read.`);
  }
}

/** Parses JSON or refuses with the file's name. */
export function fileJson(path: string): unknown {
  try {
    return JSON.parse(fileText(path));
  } catch (error) {
    if (error instanceof ProblemError) throw error;
    throw unusable('not-json', `${path} is not JSON.`);
  }
}

/** Opens a board netlist or a board JSON, with an optional facts file. warn: where its warnings go, standard error unless told. */
export function openBoard(path: string, factsPath?: string, warn: (words: string) => void = toStandardError): Board {
  const text = fileText(path);
  const board = text.trimStart().startsWith('{') ? fromJson(path) : fromNetlist(path, text, warn);
  if (factsPath === undefined) return board;
  const facts = FactsFile.safeParse(fileJson(factsPath));
  if (!facts.success)
    throw unusable(
      'bad-facts',
      `${factsPath}: ${facts.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; ')}`,
    );
  const { nameplate, facts: known } = facts.data;
  return {
    ...board,
    ...(nameplate === undefined ? {} : { nameplate: nameplate as Nameplate }),
    ...(known === undefined ? {} : { facts: known }),
  };
}

/** Reads a file of readings on a board, or refuses with every bad line of it. */
export function openReadings(board: Board, path: string): ReadingsFile {
  const readings = parseReadingsCsv(board, fileText(path));
  if (readings.ok) return readings.value;
  const sentence = readings.problem.map((p) => p.sentence).join('\n');
  throw new ProblemError({ code: 'readings-error', sentence, remedy: 'Correct the file; nothing was used.' });
}

function toStandardError(words: string): void {
  process.stderr.write(`${words}\n`);
}

function fromNetlist(path: string, text: string, warn: (words: string) => void): Board {
  const read = readNetlist(text);
  if (!read.ok)
    throw unusable(
      'bad-netlist',
      `${path} was not read:\n${read.problem.map((p) => `  ${p.sentence}. ${p.remedy}`).join('\n')}`,
    );
  for (const warning of read.value.warnings) warn(`${path}: ${warning.sentence}. ${warning.remedy}`);
  return read.value.board;
}

function fromJson(path: string): Board {
  const parsed = BoardJson.safeParse(fileJson(path));
  if (!parsed.success)
    throw unusable(
      'bad-board',
      `${path}: ${parsed.error.issues
        .slice(0, 10)
        .map((i) => `${i.path.join('.')}: ${i.message}`)
        .join('; ')}`,
    );
  return boardFromJson(parsed.data);
}
