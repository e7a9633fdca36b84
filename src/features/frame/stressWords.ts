import type { StressRow, Verdict } from '@/core/stress';

/** The verdicts in a line: what is over or tight by name, the others counted. */
export function stressWords(rows: readonly StressRow[]): string {
  const named = (verdict: Verdict): readonly string[] => [
    ...new Set(rows.filter((r) => r.verdict === verdict).map((r) => r.ref)),
  ];
  const said = (['over', 'tight'] as const).flatMap((v) =>
    named(v).length > 0 ? [`${named(v).join(', ')} ${v}`] : [],
  );
  const unknown = named('unknown').length;
  if (unknown > 0) said.push(`${unknown} unknown`);
  return said.length === 0 ? 'every part within its derated limit' : said.join('; ');
}
