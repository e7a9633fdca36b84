import type { StageKind, StageMap } from '../stages';
import { STAGE_KINDS } from '../stages';

/** Control above, the power path in the middle (from the inlet to the storage, then on), feedback below. */
export type RoomRow = 'control' | 'input' | 'power' | 'feedback';

export const ROOM_ROWS: Readonly<Record<StageKind | 'unplaced', RoomRow>> = {
  'mains-input': 'input',
  surge: 'input',
  'emi-filter': 'input',
  inrush: 'input',
  rectifier: 'input',
  pfc: 'power',
  bulk: 'input',
  startup: 'control',
  controller: 'control',
  'gate-drive': 'control',
  switch: 'power',
  'current-sense': 'power',
  clamp: 'power',
  transformer: 'power',
  tank: 'power',
  'aux-supply': 'control',
  'output-rectifier': 'power',
  multiplier: 'power',
  'output-filter': 'power',
  regulator: 'power',
  'inverter-bridge': 'power',
  discharge: 'feedback',
  feedback: 'feedback',
  sensing: 'feedback',
  'charge-control': 'control',
  protection: 'feedback',
  indicator: 'feedback',
  barrier: 'feedback',
  connector: 'power',
  unplaced: 'feedback',
};

/** A stage with fewer parts shares the room of its kind. */
const OWN_ROOM_PARTS = 4;

/** The rooms of a board in the order of the power's way; every part is in exactly one. */
export function roomsOf(
  map: StageMap,
): readonly { readonly id: string; readonly kind: StageKind | 'unplaced'; readonly parts: readonly string[] }[] {
  const rooms: { id: string; kind: StageKind | 'unplaced'; parts: string[] }[] = [];
  for (const kind of STAGE_KINDS) {
    const stages = map.stages.filter((s) => s.kind === kind);
    const large = stages.filter((s) => s.parts.length >= OWN_ROOM_PARTS);
    const small = stages.filter((s) => s.parts.length < OWN_ROOM_PARTS).flatMap((s) => s.parts);
    large.forEach((s, i) => rooms.push({ id: `${kind} ${i + 1}`, kind, parts: [...s.parts] }));
    if (small.length > 0) rooms.push({ id: kind, kind, parts: small });
  }
  if (map.unplaced.length > 0) rooms.push({ id: 'unplaced', kind: 'unplaced', parts: map.unplaced.map((u) => u.ref) });
  return rooms;
}
