import { netKey, pinNames, pinsOnNet } from '../circuit';
import { isElectrolytic, isFuse } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import type { Fault } from '../fault';
import type { TakenRole, TriggerRole } from './linkedFaults';
import { inputPole } from '../stages';
import type { PowerPath } from '../stages';
import { referencePin } from './probePairs';

/** Above this a resistor in the source lead is no current sense. */
const SENSE_OHMS = 5;
const GATE_OHMS = 1000;
const SENSE_FILTER_OHMS = 10e3;

/** The role in which a part can start a chain of failures, or null. */
export function triggerRole(board: Board, path: PowerPath, part: Part): TriggerRole | null {
  const poles = part.nets.map((net) => inputPole(path, net));
  const crosses =
    poles[0] !== undefined && poles[0] >= 0 && poles[1] !== undefined && poles[1] >= 0 && poles[0] !== poles[1];
  if (part.kind === 'mov') return 'mov';
  if (part.kind === 'bridge') return 'bridge';
  if (part.kind === 'capacitor' && crosses) return isElectrolytic(part) ? 'bulk' : 'line-capacitor';
  if (isSwitch(path, part)) return 'switch';
  if (part.kind !== 'diode') return null;
  const drains = board.parts.filter((p) => isSwitch(path, p)).map((p) => netKey(p.nets[0]!));
  if (drains.includes(netKey(part.nets[0]!))) return 'clamp-diode';
  return crosses ? 'bridge' : null;
}

function isSwitch(path: PowerPath, part: Part): boolean {
  if (part.kind !== 'mosfet' && part.kind !== 'bjt') return false;
  return inputPole(path, part.nets[0]!) >= 0 || (part.kind === 'mosfet' && inputPole(path, part.nets[2]!) >= 0);
}

/**
 * The faults that a role takes part in when a given trigger part has failed; empty when the role is not there.
 * All sense resistors in parallel go together.
 */
export function takenFaults(
  board: Board,
  path: PowerPath,
  trigger: Part,
  role: TakenRole,
  mode: string,
): readonly Fault[] {
  switch (role) {
    case 'fuse': {
      const fuse = board.parts.find((p) => p.fitted && isFuse(p) && p.nets.some((n) => inputPole(path, n) >= 0));
      return fuse ? [{ kind: 'open', ref: fuse.ref }] : [];
    }
    case 'bridge-leg':
    case 'bridge-rail':
      return bridgePartner(board, path, trigger, role).map((d) => ({ kind: 'short', ref: d.ref }));
    case 'sense-resistor':
      return senseResistors(board, trigger).map((r) => ({ kind: 'open', ref: r.ref }));
    case 'gate-resistor':
      return gateResistors(board, trigger).map((r) => ({ kind: 'open', ref: r.ref }));
    case 'gate-pin':
      return pinLeaks(board, gateNets(board, trigger), mode);
    case 'sense-pin':
      // Without a resistor in the source lead nothing senses the switch's current.
      return senseResistors(board, trigger).length > 0 ? pinLeaks(board, senseNets(board, trigger), mode) : [];
  }
}

/** Of a bridge of single diodes the one that shares a pole with the other end of the leg (`bridge-leg`) or the rail. */
function bridgePartner(
  board: Board,
  path: PowerPath,
  trigger: Part,
  role: 'bridge-leg' | 'bridge-rail',
): readonly Part[] {
  if (trigger.kind !== 'diode') return [];
  const end = (part: Part, pin: number): string => netKey(part.nets[pin] ?? '');
  const others = board.parts.filter(
    (p) => p !== trigger && p.fitted && p.kind === 'diode' && triggerRole(board, path, p) === 'bridge',
  );
  // In one leg the anode of one meets the cathode of the other; on one rail the like ends meet.
  const found = others.filter((p) =>
    role === 'bridge-leg'
      ? end(p, 0) === end(trigger, 1) || end(p, 1) === end(trigger, 0)
      : end(p, 0) === end(trigger, 0) || end(p, 1) === end(trigger, 1),
  );
  // Of two diodes in parallel neither is the other's partner.
  return found.filter((p) => !(end(p, 0) === end(trigger, 0) && end(p, 1) === end(trigger, 1))).slice(0, 1);
}

function senseResistors(board: Board, trigger: Part): readonly Part[] {
  const source = netKey(trigger.nets[2] ?? '');
  return board.parts.filter(
    (p) =>
      p.fitted &&
      p.kind === 'resistor' &&
      p.value > 0 &&
      p.value <= SENSE_OHMS &&
      p.nets.some((n) => netKey(n) === source),
  );
}

function gateResistors(board: Board, trigger: Part): readonly Part[] {
  const gate = netKey(trigger.nets[1] ?? '');
  return board.parts.filter(
    (p) =>
      p.fitted &&
      p.kind === 'resistor' &&
      p.value <= GATE_OHMS &&
      p.nets.some((n) => netKey(n) === gate) &&
      p.nets.some((n) => netKey(n) !== gate && pinsOnNet(board, n).some(({ part }) => part.kind === 'ic')),
  );
}

function gateNets(board: Board, trigger: Part): readonly string[] {
  const gate = trigger.nets[1] ?? '';
  return [gate, ...gateResistors(board, trigger).flatMap((r) => r.nets)];
}

function senseNets(board: Board, trigger: Part): readonly string[] {
  const source = trigger.nets[2] ?? '';
  const filters = board.parts.filter(
    (p) =>
      p.kind === 'resistor' &&
      p.value > SENSE_OHMS &&
      p.value <= SENSE_FILTER_OHMS &&
      p.nets.some((n) => netKey(n) === netKey(source)),
  );
  const driven = new Set(gateNets(board, trigger).map(netKey));
  return [source, ...filters.flatMap((r) => r.nets)].filter((net) => !driven.has(netKey(net)));
}

/** A leak from the first IC pin found on one of the nets to that IC's reference pin. */
function pinLeaks(board: Board, nets: readonly string[], mode: string): readonly Fault[] {
  const ohms = Number(/^leak=(\d+)$/u.exec(mode)?.[1] ?? 150);
  const wanted = new Set(nets.map(netKey));
  for (const part of board.parts) {
    if (part.kind !== 'ic') continue;
    const reference = referencePin(board, part);
    const pin = part.nets.findIndex(
      (n, i) => i !== reference && wanted.has(netKey(n)) && netKey(n) !== netKey(part.nets[reference]!),
    );
    const names = pinNames(part);
    if (pin >= 0) return [{ kind: 'leak', ref: part.ref, ohms, pins: inPinOrder(names, pin, reference) }];
  }
  return [];
}

/** Two pin names in pin order, as every fault of ours names them. */
export function inPinOrder(names: readonly string[], p: number, q: number): [string, string] {
  return [names[Math.min(p, q)]!, names[Math.max(p, q)]!];
}
