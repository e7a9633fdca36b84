import { findPart, netKey } from '../circuit';
import type { Board } from '../circuit';
import { partFigure } from '../part';
import type { Part } from '../part';
import { operatingPoint } from '../operate';
import { formatQuantity, withMark } from '../quantity';
import { findPowerPath, recogniseStages } from '../stages';
import type { PartsByNet } from './netParts';
import { capacitorKind } from './derating';
import { farNet, forwardVolts } from './netParts';
import type { RowMaker, StressRow } from './stressRow';

/**
 * Rectifiers that feed a rail from a winding, and the switch behind it: what the new volts mean for them.
 *
 * The diode sees the output and the primary's volts over the turns ratio (flyback). The drain sees the reflected
 * output besides, and the rails of other windings rise with it; the switch’s leakage spike is not known here, so the switch is judged only where even without one it is over.
 */
export function windingStress(
  board: Board,
  parts: PartsByNet,
  rails: ReadonlySet<string>,
  volts: number,
  row: RowMaker,
): readonly StressRow[] {
  const rows: StressRow[] = [];
  for (const rail of rails) {
    for (const diode of parts.get(rail) ?? []) {
      if (diode.kind !== 'diode' || netKey(diode.nets[1]!) !== rail) continue;
      const winding = (parts.get(netKey(diode.nets[0]!)) ?? []).find((p) => p.kind === 'inductor');
      if (!winding) continue;
      const primary = primaryOf(board, winding);
      if (!primary) {
        if (isCoupled(board, winding))
          rows.push(
            row(
              diode.ref,
              'voltage',
              'rectifier',
              null,
              partFigure(diode, 'ratedVolts'),
              'its winding’s turns are not known',
            ),
          );
        continue;
      }
      const peak = operatingPoint(board).busPeak;
      const piv = peak === null ? null : volts + peak / primary.ratio;
      rows.push(
        row(
          diode.ref,
          'voltage',
          'rectifier',
          piv,
          partFigure(diode, 'ratedVolts'),
          piv === null
            ? 'the input’s highest volts are not known'
            : `${formatQuantity(volts, 'V')} + ${formatQuantity(peak!, 'V')} / ${withMark(primary.ratio.toPrecision(3))} in reverse`,
        ),
      );
      const drain = switchOf(parts, primary.winding);
      if (!drain || peak === null) continue;
      rows.push(...otherRails(board, parts, winding, diode, volts, row));
      const reflected = primary.ratio * (volts + forwardVolts(board, diode));
      const known = peak + reflected;
      const rated = partFigure(drain, 'ratedVolts');
      const why = `${formatQuantity(peak, 'V')} + ${formatQuantity(reflected, 'V')} reflected, without the leakage spike`;
      const over = rated !== undefined && known > rated;
      rows.push(row(drain.ref, 'voltage', 'transistor-voltage', over ? known : null, rated, why));
    }
  }
  return rows;
}

/**
 * What hangs on the other windings of a flyback: their rails rise with the one that is set, by turns.
 * Source: in a flyback all windings hold the same volts per turn while they conduct.
 */
function otherRails(
  board: Board,
  parts: PartsByNet,
  winding: Part,
  diode: Part,
  volts: number,
  row: RowMaker,
): readonly StressRow[] {
  if (winding.kind !== 'inductor' || !recogniseStages(board).topology.includes('flyback')) return [];
  const rows: StressRow[] = [];
  for (const other of board.parts) {
    if (other.kind !== 'inductor' || other === winding || !onOneCore(board, winding, other)) continue;
    for (const end of other.nets.map(netKey)) {
      const rectifier = (parts.get(end) ?? []).find((p) => p.kind === 'diode' && netKey(p.nets[0]!) === end);
      if (!rectifier) continue;
      const rail = netKey(rectifier.nets[1]!);
      const turns = Math.sqrt(other.value / winding.value);
      const there = (volts + forwardVolts(board, diode)) * turns - forwardVolts(board, rectifier);
      const why = `${formatQuantity(there, 'V')} on ${rectifier.nets[1]} by turns (${turns.toPrecision(3)} of the output’s)`;
      for (const part of parts.get(rail) ?? []) {
        if (part.kind === 'capacitor' && other.nets.some((n) => netKey(n) === farNet(part, rail)))
          rows.push(row(part.ref, 'voltage', capacitorKind(part, false), there, partFigure(part, 'ratedVolts'), why));
        if (part.kind === 'ic')
          rows.push(row(part.ref, 'limit', 'limit', there, null, `${why}: look its highest supply up`));
      }
    }
  }
  return rows;
}

function onOneCore(board: Board, a: Part, b: Part): boolean {
  const [x, y] = [a.ref.toLowerCase(), b.ref.toLowerCase()];
  return board.couplings.some((k) => {
    const pair = [k.first.toLowerCase(), k.second.toLowerCase()];
    return pair.includes(x) && pair.includes(y);
  });
}

function isCoupled(board: Board, winding: Part): boolean {
  return board.couplings.some((k) => [k.first, k.second].some((w) => w.toLowerCase() === winding.ref.toLowerCase()));
}

/** The primary: of the windings on this core the one with a switch at one end; turns ratio from the inductances. */
function primaryOf(board: Board, winding: Part): { readonly winding: Part; readonly ratio: number } | null {
  const own = winding.ref.toLowerCase();
  for (const k of board.couplings) {
    const other = k.first.toLowerCase() === own ? k.second : k.second.toLowerCase() === own ? k.first : undefined;
    const part = other === undefined ? undefined : findPart(board, other);
    if (part?.kind !== 'inductor' || winding.kind !== 'inductor') continue;
    const path = findPowerPath(board).input.flatMap((nets) => [...nets]);
    if (part.nets.some((n) => path.includes(netKey(n))))
      return { winding: part, ratio: Math.sqrt(part.value / winding.value) };
  }
  return null;
}

function switchOf(parts: PartsByNet, primary: Part): Part | undefined {
  return primary.nets
    .flatMap((n) => parts.get(netKey(n)) ?? [])
    .find(
      (p) => (p.kind === 'mosfet' || p.kind === 'bjt') && primary.nets.some((n) => netKey(n) === netKey(p.nets[0]!)),
    );
}
