import { findPart, netKey } from '../circuit';
import type { Board } from '../circuit';
import type { PartKind } from '../part';
import { findLockPins } from '../modify';
import { findDividers, printedOutputs } from '../operate';
import { energyStores } from '../safety';
import { recogniseStages } from '../stages';
import type { StageKind } from '../stages';
import { boardFigures, figureOf } from './boardFigures';

/** What an input of a sum means on a board; how each is found stands in `PLACES`. */
type Meaning = keyof typeof PLACES;

/**
 * What the inputs of sums mean on a board. Inputs that only the technician can know (a lamp, a wanted voltage, a
 * reading) are not in here.
 */
const MEANINGS: Readonly<Record<string, Readonly<Record<string, Meaning>>>> = {
  'stored-energy': { c: 'store farads', v: 'store volts' },
  'discharge-time': { c: 'store farads', vStart: 'store volts' },
  bleeder: { c: 'store farads', v: 'store volts' },
  precharge: { c: 'store farads', vPeak: 'store volts' },
  'pulse-energy': { c: 'store farads', v: 'store volts' },
  'lamp-limiter': { mainsV: 'input', loadW: 'output watts' },
  'mains-peak': { vrms: 'input' },
  'bulk-ripple': { vac: 'input', f: 'hertz', c: 'store farads', p: 'output watts' },
  'doubler-bulk': { vac: 'input', f: 'hertz', c: 'store capacitor', p: 'output watts' },
  'divider-output': { vRef: 'reference', rTop: 'divider top', rBottom: 'divider bottom' },
  'divider-retarget': { vRef: 'reference', rTop: 'divider top', rBottom: 'divider bottom' },
  'uvlo-divider': { vTh: 'lock threshold', rBottom: 'lock bottom' },
  'sense-peak': { vCs: 'sense threshold', rSense: 'sense resistor', vBulk: 'store volts', l: 'primary' },
  'sense-start': { iMax: 'output amps' },
  'flyback-power': { lp: 'primary', f: 'switching' },
  'flyback-stress': { vBulk: 'store volts', n: 'turns', vOut: 'output volts', vf: 'output diode' },
  'buck-loss': { vIn: 'input', vOut: 'output volts', iOut: 'output amps', rds: 'switch ohms', vf: 'free-wheel' },
  'converter-input': { vIn: 'input', vOut: 'output volts', iOut: 'output amps' },
  'startup-time': { c: 'supply capacitor', vBulk: 'store volts', vOn: 'supply start', iStart: 'supply draw' },
  'resistor-heat': { vIn: 'output volts', r: 'indicator', pRated: 'indicator watts', vz: 'indicator drop' },
  creepage: { workingV: 'input' },
  sag: { vNominal: 'output volts' },
};

/** The figure of a board that each input of a sum most likely means, by input key; only inputs with one of their unit. */
export function suggestFigures(board: Board, sum: string): Readonly<Record<string, string>> {
  const found: Record<string, string> = {};
  for (const [input, meaning] of Object.entries(MEANINGS[sum] ?? {})) {
    const key = PLACES[meaning](board);
    const figure = key === null ? undefined : figureOf(board, key);
    if (figure) found[input] = figure.key;
  }
  return found;
}

/** How each meaning is found: the key of a figure, or null. */
const PLACES = {
  'store volts': (board) => on(biggestStore(board)?.refs[0], 'store'),
  'store farads': (board) => {
    const store = biggestStore(board);
    return on(store?.refs[0], store && store.refs.length > 1 ? 'bank' : 'value');
  },
  'store capacitor': (board) => on(biggestStore(board)?.refs[0], 'value'),
  input: () => 'input.nominal',
  hertz: () => 'input.hertz',
  'output volts': (board) => on(printedOutputs(board)[0]?.rail, 'volts'),
  'output amps': (board) => on(printedOutputs(board)[0]?.rail, 'amps'),
  'output watts': (board) => on(printedOutputs(board)[0]?.rail, 'watts'),
  reference: (board) => {
    const ref = findDividers(board)[0]?.ref;
    return ref === undefined
      ? null
      : (['fbRef', 'vref', 'vRef'].map((k) => `${ref}.${k}`).find((k) => figureOf(board, k)) ?? null);
  },
  'divider top': (board) => only(findDividers(board)[0]?.top),
  'divider bottom': (board) => only(findDividers(board)[0]?.bottom),
  'lock threshold': (board) => {
    const ref = findLockPins(board)[0]?.ref;
    return on(ref, ref !== undefined && figureOf(board, `${ref}.uvOn`) ? 'uvOn' : 'enableOn');
  },
  'lock bottom': (board) => only(findLockPins(board)[0]?.bottom),
  'sense threshold': (board) => ending(board, '.csMax'),
  'sense resistor': (board) => on(inStage(board, 'current-sense', 'resistor'), 'value'),
  primary: (board) => on(powerTurns(board)?.split('/')[0], 'value'),
  turns: powerTurns,
  switching: (board) => ending(board, '.fSwitch'),
  'switch ohms': (board) => ending(board, '.switchRon'),
  'output diode': (board) => on(inStage(board, 'output-rectifier', 'diode'), 'drop'),
  'free-wheel': (board) => on(inStage(board, 'switch', 'diode') ?? inStage(board, 'output-rectifier', 'diode'), 'drop'),
  'supply capacitor': (board) => on(inStage(board, 'aux-supply', 'capacitor'), 'value'),
  'supply start': (board) => ending(board, '.vccStart'),
  'supply draw': (board) => ending(board, '.iStart'),
  indicator: (board) => on(inStage(board, 'indicator', 'resistor'), 'value'),
  'indicator watts': (board) => on(inStage(board, 'indicator', 'resistor'), 'pr'),
  'indicator drop': (board) => on(inStage(board, 'indicator', 'diode'), 'drop'),
} as const satisfies Readonly<Record<string, (board: Board) => string | null>>;

function biggestStore(board: Board) {
  return energyStores(board)[0];
}

function on(name: string | null | undefined, figure: string): string | null {
  return name === undefined || name === null ? null : `${name}.${figure}`;
}

/** Several parts in one place have no single figure. */
function only(parts: readonly { readonly ref: string }[] | undefined): string | null {
  return parts?.length === 1 ? `${parts[0]!.ref}.value` : null;
}

function ending(board: Board, end: string): string | null {
  return boardFigures(board).find((f) => f.key.endsWith(end))?.key ?? null;
}

/** The turns ratio of the power transformer: the winding at the switch over the one at the output's rectifier. */
function powerTurns(board: Board): string | null {
  const { stages } = recogniseStages(board);
  const netsOf = (kind: StageKind): ReadonlySet<string> =>
    new Set(
      stages
        .filter((s) => s.kind === kind)
        .flatMap((s) => s.parts)
        .flatMap((ref) => findPart(board, ref)?.nets.map(netKey) ?? []),
    );
  const [switching, rectified] = [netsOf('switch'), netsOf('output-rectifier')];
  const touches = (ref: string, nets: ReadonlySet<string>): boolean =>
    findPart(board, ref)?.nets.some((n) => nets.has(netKey(n))) === true;
  const found = boardFigures(board).find((f) => {
    if (!f.key.endsWith('.turns')) return false;
    const [over = '', under = ''] = f.key.replace(/\.turns$/u, '').split('/');
    return touches(over, switching) && touches(under, rectified);
  });
  return found?.key ?? null;
}

/** The first part of a kind in a stage; of capacitors the largest. */
function inStage(board: Board, stage: StageKind, kind: PartKind): string | undefined {
  const parts = recogniseStages(board)
    .stages.filter((s) => s.kind === stage)
    .flatMap((s) => s.parts)
    .map((ref) => findPart(board, ref))
    .filter((p) => p?.kind === kind);
  const size = (p: (typeof parts)[number]): number => (p?.kind === 'capacitor' ? p.value : 0);
  return [...parts].sort((a, b) => size(b) - size(a))[0]?.ref;
}
