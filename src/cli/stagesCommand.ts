import { recogniseStages } from '@/core/stages';
import type { StageMap } from '@/core/stages';
import { UnusableArguments, option, readArguments } from './arguments';
import { openBoard } from '@/wire/openBoard';

/** `lantern stages BOARD [--facts FILE]`: stages, pin roles, topology and islands. Gives the exit status. */
export function stagesCommand(words: readonly string[]): number {
  const args = readArguments(words, ['facts']);
  const [path] = args.plain;
  if (path === undefined) throw new UnusableArguments('stages needs a board file.');
  const map = recogniseStages(openBoard(path, option(args, 'facts')));
  if (option(args, 'json') !== undefined) console.log(JSON.stringify(contractJson(map)));
  else console.log(text(map));
  return 0;
}

/** The document of the contract; reasons come along as further keys. */
function contractJson(map: StageMap): unknown {
  return {
    stages: map.stages.map(({ kind, parts, confidence, reasons }) => ({ kind, parts, confidence, reasons })),
    pins: Object.fromEntries(
      Object.entries(map.pins).map(([ref, pins]) => [ref, Object.fromEntries(pins.map((p) => [p.pin, p.role]))]),
    ),
    topology: map.topology,
    islands: map.islands.map(({ nets, reference, references, hazard }) => ({ nets, reference, references, hazard })),
    topologyConfidence: map.topologyConfidence,
    converters: map.converters,
    missing: map.missing,
    unplaced: map.unplaced,
    crossings: map.crossings,
  };
}

function text(map: StageMap): string {
  const stages = map.stages.map(
    (s) => `  ${s.kind.padEnd(17)} ${String(Math.round(100 * s.confidence)).padStart(3)} %  ${s.parts.join(' ')}`,
  );
  const pins = Object.entries(map.pins).map(
    ([ref, list]) => `  ${ref}  ${list.map((p) => `${p.pin} ${p.role}`).join(', ')}`,
  );
  const islands = map.islands.map((i) => `  ${i.hazard.padEnd(8)} black lead to ${i.reference}: ${i.nets.join(' ')}`);
  const loose = map.unplaced.map((u) => `  ${u.ref}: ${u.why}`);
  const crossings = map.crossings.map((c) => `  ${c.ref}: ${c.why}`);
  return [
    `topology  ${map.topology}  ${Math.round(100 * map.topologyConfidence)} %`,
    ...map.topologyWhy.map((w) => `  ${w}`),
    ...map.converters.flatMap((c) =>
      c.rival
        ? [`  ${c.topology} ${Math.round(100 * c.confidence)} %, or ${c.rival.topology}: ${c.rival.question}`]
        : [],
    ),
    ...(map.missing.length > 0 ? ['not traced yet', ...map.missing.map((m) => `  ${m}`)] : []),
    'stages',
    ...stages,
    ...(loose.length > 0 ? ['without a stage', ...loose] : []),
    ...(pins.length > 0 ? ['pins', ...pins] : []),
    'islands',
    ...islands,
    ...(crossings.length > 0 ? ['across the isolation', ...crossings] : []),
  ].join('\n');
}
