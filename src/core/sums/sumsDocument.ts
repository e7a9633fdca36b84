import { SUMS } from './runSum';
import { SUM_TASKS } from './sumDefinition';
import type { InputRule, SumDefinition, SumInput, SumTask } from './sumDefinition';

const RULE_WORDS: Readonly<Record<InputRule, string>> = {
  positive: 'above 0',
  'non-negative': '0 or more',
  any: 'any figure',
  'fraction-below-one': '0 to below 1',
  'fraction-above-zero': 'above 0, at most 1',
};

/** The page of all bench sums in Markdown, made from the catalogue: inputs with their rules, results, derivation, source. */
export function sumsDocument(): string {
  const tasks = Object.keys(SUM_TASKS) as SumTask[];
  const parts = tasks.map((task) => {
    const sums = SUMS.filter((s) => s.task === task);
    return [`## ${SUM_TASKS[task]}`, ...sums.map(sumSection)].join('\n\n');
  });
  const head = [
    '# Bench sums',
    'Made from the catalogue in `src/core/sums`. On the command line: `./lantern sum NAME key=value…`; figures in SI units or as on the bench (`4k7`, `220u`). Fractions are 0 to 1.',
  ];
  return `${[...head, ...parts].join('\n\n')}\n`;
}

function sumSection(sum: SumDefinition): string {
  const steps = sum.steps.map((one) => {
    if (typeof one === 'string') return one;
    const when = Object.entries(one.when).map(([key, word]) => `${key} ${word}`);
    return `${one.step} (${when.join(', ')})`;
  });
  const results = Object.entries(sum.resultWords).map(([key, words]) => {
    const unit = sum.resultUnits[key];
    return `\`${key}\` ${words}${unit === undefined || unit === '1' ? '' : ` (${unit})`}`;
  });
  return [
    `### ${sum.title}: \`${sum.name}\``,
    ['| input | unit | what | |', '| --- | --- | --- | --- |', ...sum.inputs.map(inputRow)].join('\n'),
    `Gives ${results.join(', ')}.`,
    ['```', ...(steps.length > 0 ? steps : [sum.formula]), '```'].join('\n'),
    `Source: ${sum.source}.`,
  ].join('\n\n');
}

function inputRow(input: SumInput): string {
  const rule = input.words?.join(' or ') ?? input.numbers?.join(' or ') ?? RULE_WORDS[input.rule];
  const notes = [
    rule,
    ...(input.list ? ['a list'] : []),
    ...(input.preset === undefined ? [] : [`${input.words ? input.words[0] : input.preset} unless told`]),
    ...(input.optional ? ['may be left out'] : []),
  ];
  return `| \`${input.key}\` | ${input.unit === '1' ? '' : input.unit} | ${input.meaning} | ${notes.join('; ')} |`;
}
