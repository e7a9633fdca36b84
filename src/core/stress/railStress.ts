import { netKey, pinNames } from '../circuit';
import { partFigure } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { formatQuantity } from '../quantity';
import { rails as railsOf, recogniseStages } from '../stages';
import { railChains } from './chains';
import type { Chain } from './chains';
import { capacitorKind, workshopDerating } from './derating';
import type { Derating, Verdict } from './derating';
import { clampVolts, farNet, partsByNet } from './netParts';
import { rowMaker } from './stressRow';
import type { RowMaker, StressRow } from './stressRow';
import { windingStress } from './windingStress';

/** What is asked of a rail. loadVolts: the highest input that its load bears, where someone knows it. */
export interface RailAsked {
  readonly rail: string;
  readonly return: string;
  readonly volts: number;
  readonly loadVolts?: number | undefined;
  readonly derating?: Derating;
}

/** A rail above this is a bulk bus. */
const BULK_VOLTS = 200;
const SILENT_ROLES = new Set(['FB', 'EN', 'COMP', 'CS', 'RT', 'NC']);

/**
 * What a rail at these volts does to everything on it: capacitors, zeners and clamps, resistors and light-emitting
 * diodes to the return, transistors, regulators and ICs, rectifiers and the switch behind its winding, the load.
 *
 * Nothing on the rail is passed over: what cannot be judged is `unknown`, with what would have to be known.
 */
export function railStress(board: Board, asked: RailAsked): readonly StressRow[] {
  const derating = asked.derating ?? workshopDerating();
  const row = rowMaker(derating);
  const parts = partsByNet(board);
  const rails = railsOf(board).at(asked.rail);
  const back = netKey(asked.return);
  const chains = railChains(board, parts, rails, back, asked.volts, silentPins(board));
  const netVolts = new Map<string, number>([[back, 0]]);
  for (const rail of rails) netVolts.set(rail, asked.volts);
  for (const chain of chains) for (const [net, volts] of chain.volts) netVolts.set(net, volts);
  const touched = new Set<Part>();
  for (const net of netVolts.keys()) if (net !== back) for (const part of parts.get(net) ?? []) touched.add(part);
  const rows: StressRow[] = [];
  for (const chain of chains) rows.push(...chainRows(chain, row));
  const onChain = new Set(chains.flatMap((c) => c.links.flatMap((l) => l.parts)));
  for (const part of touched) {
    if (part.kind === 'capacitor') rows.push(capacitorRow(part, netVolts, row));
    else if (!onChain.has(part)) rows.push(...otherRows(board, part, rails, back, asked, row));
  }
  rows.push(...windingStress(board, parts, rails, asked.volts, row));
  const worst: readonly Verdict[] = ['over', 'tight', 'unknown', 'ok'];
  const once = new Map(rows.map((r) => [`${r.ref} ${r.quantity} ${r.why}`, r]));
  return [...once.values()].sort(
    (a, b) => worst.indexOf(a.verdict) - worst.indexOf(b.verdict) || (b.ratio ?? 0) - (a.ratio ?? 0),
  );
}

/** Pins that neither take nor give a current worth counting: what senses. */
function silentPins(board: Board): ReadonlySet<string> {
  const silent = new Set<string>();
  for (const [ref, pins] of Object.entries(recogniseStages(board).pins))
    for (const pin of pins) if (SILENT_ROLES.has(pin.role)) silent.add(`${ref.toLowerCase()}.${pin.pin}`);
  for (const part of board.parts) if (part.kind === 'shunt-reference') silent.add(`${part.ref.toLowerCase()}.1`);
  return silent;
}

function capacitorRow(part: Part, netVolts: ReadonlyMap<string, number>, row: RowMaker): StressRow {
  const [a, b] = part.nets.map((n) => netVolts.get(netKey(n)));
  const kind = capacitorKind(part, Math.max(...netVolts.values()) > BULK_VOLTS);
  const known = a !== undefined && b !== undefined;
  const strange = part.nets.find((n) => !netVolts.has(netKey(n)));
  return row(
    part.ref,
    'voltage',
    kind,
    known ? Math.abs(a - b) : null,
    partFigure(part, 'ratedVolts'),
    known
      ? partFigure(part, 'ratedVolts') === undefined
        ? `${formatQuantity(Math.abs(a - b), 'V')} across it, and its rated volts are not noted`
        : `${formatQuantity(Math.abs(a - b), 'V')} across it`
      : `what stands on ${strange} is not known`,
  );
}

function chainRows(chain: Chain, row: RowMaker): readonly StressRow[] {
  const atMost = chain.bounded ? 'at most ' : '';
  return chain.links.flatMap((link) =>
    link.parts.flatMap((part): readonly StressRow[] => {
      if (chain.stopped !== null) {
        const why = link.parts.includes(chain.stopped)
          ? 'where its current goes is not known'
          : `its current depends on ${chain.stopped.ref}`;
        return [row(part.ref, part.kind === 'resistor' ? 'power' : 'current', 'resistor-power', null, null, why)];
      }
      if (part.kind !== 'resistor') {
        const why = `${atMost}${formatQuantity(chain.amps, 'A')} through it`;
        return [
          row(
            part.ref,
            'current',
            'semiconductor-current',
            chain.amps,
            partFigure(part, 'ratedAmps'),
            partFigure(part, 'ratedAmps') === undefined ? `${why}, and its rated current is not noted` : why,
          ),
        ];
      }
      const volts = link.ohms * chain.amps;
      const watts = (volts * volts) / part.value;
      const why = `${atMost}${formatQuantity(volts, 'V')} across ${formatQuantity(part.value, 'ohm')}`;
      const rated = partFigure(part, 'ratedWatts');
      const power = row(
        part.ref,
        'power',
        'resistor-power',
        watts,
        rated,
        rated === undefined ? `${why} make ${formatQuantity(watts, 'W')}, and its rated watts are not noted` : why,
      );
      const most = partFigure(part, 'ratedVolts');
      return most === undefined ? [power] : [power, row(part.ref, 'voltage', 'resistor-voltage', volts, most, why)];
    }),
  );
}

/** Everything else that has a pin on the rail. */
function otherRows(
  board: Board,
  part: Part,
  rails: ReadonlySet<string>,
  back: string,
  asked: RailAsked,
  row: RowMaker,
): readonly StressRow[] {
  const volts = asked.volts;
  const across = formatQuantity(volts, 'V');
  const rated = partFigure(part, 'ratedVolts');
  const pins = part.nets.flatMap((n, i) => (rails.has(netKey(n)) ? [pinNames(part)[i]!] : []));
  if (pins.length === 0) return [];
  switch (part.kind) {
    case 'diode': {
      const onRail = rails.has(netKey(part.nets[1]!));
      if (!onRail || farNet(part, netKey(part.nets[1]!)) !== back) return [];
      const clamp = clampVolts(board, part);
      if (clamp !== null) return [row(part.ref, 'voltage', 'clamp', volts, clamp, `${across} across a clamp`)];
      return [row(part.ref, 'voltage', 'rectifier', volts, rated, `${across} in reverse`)];
    }
    case 'mosfet':
    case 'bjt':
      return [row(part.ref, 'voltage', 'transistor-voltage', volts, rated, `up to ${across} across it`)];
    case 'fuse':
    case 'switch':
      return [];
    case 'connector':
      return [loadRow(part, asked, row)];
    case 'regulator':
      return rails.has(netKey(part.nets[0]!))
        ? [
            row(
              part.ref,
              'limit',
              'limit',
              volts,
              rated,
              rated === undefined ? `${across} at its input; its highest input is not noted` : `${across} at its input`,
            ),
          ]
        : [];
    case 'ic': {
      const most = partFigure(part, 'ratedVolts') ?? NaN;
      return [
        row(
          part.ref,
          'limit',
          'limit',
          volts,
          Number.isFinite(most) ? most : null,
          `${across} at pin ${pins.join(', ')}${Number.isFinite(most) ? '' : ': look its highest input up'}`,
        ),
      ];
    }
    case 'relay': {
      const why = pins.some((p) => p.startsWith('coil'))
        ? `${across} at its coil, whose rated volts are not noted`
        : `${across} at its contact, which breaks less DC than the AC printed on it`;
      return [row(part.ref, 'limit', 'limit', volts, null, why)];
    }
    case 'resistor':
    case 'inductor':
    case 'current-source':
    case 'voltage-source':
      return [];
    default:
      return [row(part.ref, 'voltage', 'limit', volts, rated, `${across} at ${pins.join(', ')}`)];
  }
}

function loadRow(part: Part, asked: RailAsked, row: RowMaker): StressRow {
  const across = formatQuantity(asked.volts, 'V');
  return row(
    part.ref,
    'limit',
    'limit',
    asked.volts,
    asked.loadVolts,
    asked.loadVolts === undefined
      ? `${across} reach what is plugged in here: ask what it bears`
      : `${across} at the load`,
  );
}
