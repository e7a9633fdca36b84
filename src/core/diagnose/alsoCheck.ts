import { findPart, netKey, pinIndex } from '../circuit';
import type { Board } from '../circuit';
import { formatFault, parseFaults } from '../fault';
import type { Fault } from '../fault';
import { findPowerPath } from '../stages';
import { LINKED_FAULTS, TAKEN_ROLE_WORDS } from './linkedFaults';
import { takenFaults, triggerRole } from './partRoles';
import type { ColdPoint } from './probePoint';

/** Something that often dies with a called fault: what it would be, in words, and the reading that shows it. */
export interface AlsoCheck {
  readonly fault: string;
  readonly ref: string;
  readonly words: string;
  readonly point: ColdPoint;
}

/**
 * What to check before power after a fault was called, from the table of linked faults.
 *
 * called  a label: faults joined by `+`. Parts that it names already are not asked for again.
 */
export function alsoCheck(board: Board, called: string): readonly AlsoCheck[] {
  const faults = parseFaults(board, called);
  const named = new Set(faults.map((f) => f.ref));
  const path = findPowerPath(board);
  const out = new Map<string, AlsoCheck>();
  for (const fault of faults) {
    const trigger = findPart(board, fault.ref);
    if (!trigger || (fault.kind !== 'short' && fault.kind !== 'leak')) continue;
    const role = triggerRole(board, path, trigger);
    for (const rule of LINKED_FAULTS.filter((r) => r.trigger === role)) {
      for (const taken of rule.takes) {
        for (const f of takenFaults(board, path, trigger, taken.role, taken.mode)) {
          if (named.has(f.ref) && f.kind === 'open') continue;
          const point = pointAcross(board, f);
          if (point)
            out.set(formatFault(f), { fault: formatFault(f), ref: f.ref, words: TAKEN_ROLE_WORDS[taken.role], point });
        }
      }
    }
  }
  return [...out.values()];
}

/** The reading across a faulty part or pin pair: ohms across an open one, diode test from ground into a leaking pin. */
function pointAcross(board: Board, fault: Fault): ColdPoint | null {
  const part = findPart(board, fault.ref);
  if (!part) return null;
  if (fault.kind === 'leak' && fault.pins) {
    const [p, q] = fault.pins.map((pin) => part.nets[pinIndex(board, part, pin)]!);
    return p === undefined || q === undefined ? null : { mode: 'ohms', red: p, black: q };
  }
  const [red, black] = part.nets;
  if (red === undefined || black === undefined || netKey(red) === netKey(black)) return null;
  return { mode: 'ohms', red, black };
}
