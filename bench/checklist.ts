import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { Part } from '@/core/part';
import { defaultPoints, failureKind } from '@/core/diagnose';
import type { ProbePoint } from '@/core/diagnose';

/** The fixed order that the plan is compared with: kinds of part as a technician's checklist has them. */
export const CHECKLIST_ORDER = [
  'fuse',
  'bridge',
  'switch-transistor',
  'power-rectifier',
  'ic',
  'electrolytic',
  'opto-or-reference',
] as const;

/** Every point of a board in the order of the checklist; within a kind, and after it, by place in the file. */
export function checklistPoints(board: Board): readonly ProbePoint[] {
  const rank = (part: Part): number => {
    const kind = failureKind(board, part);
    const at = CHECKLIST_ORDER.findIndex((k) => k === kind);
    return at < 0 ? CHECKLIST_ORDER.length : at;
  };
  const bridges = (part: Part, p: ProbePoint): boolean => {
    const nets = part.nets.map(netKey);
    return nets.includes(netKey(p.red)) && nets.includes(netKey(p.black));
  };
  const order = (p: ProbePoint): number => Math.min(...board.parts.filter((part) => bridges(part, p)).map(rank), 99);
  return defaultPoints(board)
    .map((point, i) => ({ point, i, rank: order(point) }))
    .sort((a, b) => a.rank - b.rank || a.i - b.i)
    .map((x) => x.point);
}
