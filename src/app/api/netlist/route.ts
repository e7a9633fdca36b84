import { z } from 'zod';
import { netlistRefused } from '@/usecases/chooseBoard';
import { readAside } from '@/usecases/readAside';
import { handleChange } from '../handle';

const File = z.strictObject({ text: z.string().max(1_000_000) });

/** Reads a dropped board netlist without saving anything: what is in it, or every error with its line. */
export async function POST(request: Request) {
  return handleChange(request, File, 1_100_000, async ({ text }) => {
    const read = await readAside(text);
    if (!read.ok) throw netlistRefused(read.problem);
    const { board, warnings } = read.value;
    return {
      title: board.title,
      parts: board.parts.length,
      warnings: warnings.map((w) => `${w.sentence}. ${w.remedy}`),
    };
  });
}
