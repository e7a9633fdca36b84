import { netKey } from '../circuit';
import { RESISTOR, flatten } from '../device';
import type { Circuit, Device, DeviceModel } from '../device';
import type { Fault } from '../fault';
import { partFigure } from '../part';
import type { PowerConverter } from '../stages';
import type { Cell } from './cell';
import type { PeriodResult } from './cell';
import { icDevices } from './icWork';
import { LineSide } from './lineSide';
import { MeanNetwork } from './meanNetwork';
import { boardAtWork, LOAD_SHARE } from './workBoard';
import type { OperatingCondition } from './workBoard';
import { held, meanDevice, optoTransistor, passRegulator, resistance, shuntReference, steady } from './workDevice';
import type { WorkDevice } from './workDevice';
import { makeCell, senseOhms } from './makeCell';
import { halfOf, simpleConverter, simpleDevices } from './simpleConverter';
import type { WorkIc, WorkPlan } from './workPlan';

/** What is switched on in a unit: which integrated circuits have their supply, which converters run, which relays are closed. */
export interface WorkState {
  readonly powered: Set<string>;
  readonly running: Set<number>;
  readonly closed: Set<string>;
}

/** A converter at work. */
export interface RunningCell {
  readonly converter: PowerConverter;
  readonly cell: Cell;
  /** Peak current of its switches, A, and how often they switch; one of the two closes its loop. */
  top: number;
  hertz: number;
  readonly by: 'top' | 'hertz';
  result: PeriodResult | null;
  readonly senseOhms: number;
}

/** See `UnitUnderPower.bootstraps`. */
export interface Bootstrap {
  readonly diode: Device;
  readonly from: number;
  readonly to: number;
  readonly rides: number;
}

/** Finds the bootstrap diodes: from a net that stands to one that rides on the node of a leg or feeds a BST pin. */
function findBootstraps(unit: UnitUnderPower): readonly Bootstrap[] {
  const { circuit, plan } = unit;
  const legs = new Set(plan.converters.flatMap((c) => (c.switches.some((s) => s.side === 'bottom') ? c.nodes : [])));
  const fed = new Set(
    [...plan.ics.values()].flatMap((ic) => (ic.roles['BST'] ?? []).map((at) => circuit.pins[ic.index]![at]!)),
  );
  return circuit.devices.flatMap((diode) => {
    const [from, to] = [diode.nodes[0]!, diode.nodes[1]!];
    if (diode.model.kind !== 'junction' || diode.name.includes('/') || unit.isSteady(to)) return [];
    const [, base] = [...plan.riding].find(([net]) => unit.node(net) === to) ?? [];
    if (base === undefined || (!legs.has(base) && !fed.has(to))) return [];
    return [{ diode, from, to, rides: unit.node(base) }];
  });
}

/** Ampere that a bootstrap diode carries in the mean. */
const BOOTSTRAP_AMPS = 3e-3;

/** The supply of an upper drive: as high above its node as its diode's anode above ground, less the drop. */
function bootstrapSupply({ diode, from, to, rides }: Bootstrap, parameters: Float64Array): WorkDevice {
  const drop = parameters[diode.at + 1]! * Math.log1p(BOOTSTRAP_AMPS / parameters[diode.at]!);
  const g = 0.05;
  return {
    name: diode.name,
    nodes: [to, rides, from],
    joins: [[to, rides]],
    evaluate(x, flow, slope) {
      const high = x[2]! > drop;
      flow.fill(0);
      slope.fill(0);
      flow[0] = g * (x[0]! - x[1]! - (high ? x[2]! - drop : 0));
      flow[1] = -flow[0];
      slope[0] = slope[4] = g;
      slope[1] = slope[3] = -g;
      slope[2] = high ? -g : 0;
      slope[5] = high ? g : 0;
    },
  };
}

const IDEAL_SWITCH: DeviceModel = { kind: 'channel', terminals: 3, states: 0, drawn: [], evaluate: () => undefined };
const IDEAL_BODY: DeviceModel = { kind: 'junction', terminals: 2, states: 0, drawn: [], evaluate: () => undefined };
/** A switch inside an integrated circuit of which nothing is known: threshold, transconductance, ohm; its body diode. */
const USUAL_SWITCH = [1, 3, 20, 0.3];
const USUAL_BODY = [1e-9, 0.04, 0.1];

/** The circuit with a switch for each converter whose switch sits in an integrated circuit with an unknown inside. */
function withSwitches(plan: WorkPlan, circuit: Circuit): Circuit {
  const devices = [...circuit.devices];
  const parameters = [...circuit.parameters];
  const index = new Map(plan.board.parts.map((p, i) => [p.ref, i]));
  for (const c of plan.converters) {
    for (const ref of c.ics) {
      const ic = plan.ics.get(ref);
      if (!ic || devices.some((d) => d.model.kind === 'channel' && d.name.startsWith(`${ref}/`))) continue;
      const pins = circuit.pins[index.get(ref)!]!;
      const at = (...roles: string[]): number | undefined =>
        roles.map((r) => ic.roles[r]?.[0]).find((i) => i !== undefined);
      const lowSide = c.topology === 'boost' || c.topology === 'flyback' || c.topology === 'forward';
      const high = lowSide ? at('DRAIN', 'SW') : at('VIN', 'DRAIN');
      const low = lowSide ? at('CS', 'SOURCE', 'GND') : at('SW', 'SOURCE');
      if (high === undefined || low === undefined) continue;
      const owners = [index.get(ref)!, index.get(ref)!, index.get(ref)!];
      const name = `${ref}/switch`;
      const [h, l] = [pins[high]!, pins[low]!];
      const base = { owners, sigmas: [], draws: [], name };
      devices.push({ ...base, model: IDEAL_SWITCH, nodes: [h, l, l], at: parameters.length });
      parameters.push(...USUAL_SWITCH.slice(0, 3), ic.facts['switchRon'] ?? USUAL_SWITCH[3]!);
      devices.push({ ...base, model: IDEAL_BODY, nodes: [l, h], at: parameters.length });
      parameters.push(...USUAL_BODY);
    }
  }
  return { ...circuit, devices, parameters: Float64Array.from(parameters) };
}

function blocksLine(d: Device, parameters: Float64Array, lineNodes: ReadonlySet<number>): boolean {
  const across = d.nodes.some((n) => lineNodes.has(n)) && d.nodes.some((n) => !lineNodes.has(n));
  return across && (d.model.kind === 'junction' || (d.model.kind === 'resistor' && parameters[d.at]! >= 1e8));
}

/** Windings and links without resistance have this, ohm. */
const WIRE_OHMS = 1e-3;

/**
 * A board under power: its circuit with faults, and the mean volts of every node in a given state of its controllers.
 */
export class UnitUnderPower {
  readonly circuit: Circuit;
  /** The devices of the circuit with the windings that only sense a current as the wires they are. */
  readonly powerDevices: readonly Device[];
  readonly cells: (RunningCell | null)[];
  /** What hangs on the mains; made anew with `arrange` when contacts or converters change. */
  line: LineSide | null = null;
  /** What an inverter of the unit gives: volts rms between its legs, ampere that it takes from its bus; set while solving. */
  alternating: { volts: number; amps: number } | null = null;
  /** Diodes that charge the supply of an upper gate drive, with the nodes they charge from, to, and the one it rides on. */
  readonly bootstraps: readonly Bootstrap[];
  private readonly steadyNodes: ReadonlySet<number>;
  private readonly partIndex: ReadonlyMap<string, number>;

  constructor(
    readonly plan: WorkPlan,
    readonly condition: OperatingCondition,
    faults: readonly Fault[],
  ) {
    this.circuit = withSwitches(plan, flatten(boardAtWork(plan.board, condition), faults));
    this.powerDevices = this.circuit.devices.flatMap((d) =>
      d.model.kind === 'windings' && d.name.split('+').some((n) => plan.sensingWindings.has(n))
        ? Array.from({ length: d.model.states }, (_, k): Device => {
            const nodes = d.nodes.slice(2 * k, 2 * k + 2);
            return { ...d, model: RESISTOR, nodes, owners: d.owners.slice(2 * k, 2 * k + 2), at: d.at + k };
          })
        : [d],
    );
    this.partIndex = new Map(plan.board.parts.map((p, i) => [p.ref, i]));
    this.steadyNodes = new Set([...plan.steady].flatMap((n) => this.circuit.nodeOfNet.get(n) ?? []));
    this.bootstraps = findBootstraps(this);
    this.cells = plan.converters.map((c) => {
      const cell = makeCell(this, c);
      if (!cell) return null;
      const ic = c.controller === null ? undefined : plan.ics.get(c.controller);
      const by = ic?.facts['ccDuty'] !== undefined ? 'hertz' : 'top';
      const ohms = senseOhms(this, c);
      return { converter: c, cell, top: 0, hertz: cell.plan.hertz, by, result: null, senseOhms: ohms };
    });
    this.arrange({ powered: new Set(), running: new Set(), closed: new Set() });
  }

  /** Fits the line side to a state. */
  arrange(state: WorkState): void {
    const { plan } = this;
    if (!plan.mains) return;
    const closed = [...state.closed].map((ref) => {
      const pins = this.pinsOf(ref);
      return [pins[2]!, pins[3]!] as const;
    });
    const cut = new Set([...state.running].flatMap((i) => simpleDevices(this, plan.converters[i]!)));
    this.line = LineSide.of(this, closed, cut);
  }

  isSteady(node: number): boolean {
    return this.steadyNodes.has(node);
  }

  node(net: string): number {
    return this.circuit.nodeOfNet.get(netKey(net)) ?? -1;
  }

  /** Nodes of a part's pins, inside what a fault has opened. */
  pinsOf(ref: string): readonly number[] {
    return this.circuit.pins[this.partIndex.get(ref)!]!;
  }

  pin(ic: WorkIc, role: string): number {
    const at = ic.roles[role]?.[0];
    return at === undefined ? -1 : this.circuit.pins[ic.index]![at]!;
  }

  ground(ic: WorkIc): number {
    return ic.ground === null ? -1 : this.circuit.pins[ic.index]![ic.ground]!;
  }

  /** Everything that conducts in a state, cells aside. */
  devices(state: WorkState): readonly WorkDevice[] {
    const { circuit, plan } = this;
    const { parameters } = circuit;
    const gone = new Set<Device>();
    for (const i of state.running) {
      const running = this.cells[i];
      if (running) for (const d of [...running.cell.diodeDevices, ...running.cell.switchDevices]) gone.add(d);
      for (const d of simpleDevices(this, plan.converters[i]!)) gone.add(d);
    }
    for (const d of this.line?.diodes ?? []) gone.add(d);
    // Charged only while the leg works: at rest its diode is a diode.
    const charged = this.bootstraps.filter((b) => state.running.size > 0 && !gone.has(b.diode));
    for (const { diode } of charged) gone.add(diode);
    const list: WorkDevice[] = [];
    for (const d of circuit.devices) {
      const slash = d.name.indexOf('/');
      const inside = slash > 0 && plan.ics.has(d.name.slice(0, slash));
      if (gone.has(d) || inside) continue;
      // What is broken off the mains, or blocks from it, holds no mean volts against it.
      if (this.line && blocksLine(d, parameters, this.line.lineNodes)) continue;
      switch (d.model.kind) {
        case 'resistor':
          list.push(resistance(d.name, d.nodes[0]!, d.nodes[1]!, Math.max(parameters[d.at]!, WIRE_OHMS)));
          break;
        case 'windings':
          for (let k = 0; k < d.model.states; k++)
            list.push(
              resistance(d.name, d.nodes[2 * k]!, d.nodes[2 * k + 1]!, Math.max(parameters[d.at + k]!, WIRE_OHMS)),
            );
          break;
        case 'junction':
        case 'transistor':
        case 'channel':
          list.push(meanDevice(d, parameters));
          break;
        case 'voltage-source':
          list.push(held(d.name, d.nodes[0]!, d.nodes[1]!, parameters[d.at]!, WIRE_OHMS));
          break;
        case 'current-source':
          list.push(steady(d.name, d.nodes[0]!, d.nodes[1]!, parameters[d.at]!));
          break;
        case 'capacitor':
        case 'lossy-capacitor':
          break;
      }
    }
    list.push(...this.blocks(state), ...this.loads());
    for (const ic of plan.ics.values()) list.push(...icDevices(this, ic, state));
    if (this.line) list.push(...this.line.devices());
    for (const i of state.running) {
      const c = plan.converters[i]!;
      list.push(...simpleConverter(this, c), ...this.symmetry(c));
    }
    list.push(...this.supplies(), ...charged.map((b) => bootstrapSupply(b, parameters)));
    return list;
  }

  /** The leg of a half bridge at half its bus: its two halves are driven alike, whatever the capacitors would drift to. */
  private symmetry(c: PowerConverter): readonly WorkDevice[] {
    const low = c.switches.find((s) => s.side === 'bottom')?.low;
    if (!c.topology.endsWith('bridge') || c.coils.length === 0 || low === undefined) return [];
    return c.nodes.map((n) => halfOf('symmetry', this.node(n), this.node(c.supply), this.node(low)));
  }

  /** Optos, references, regulators, contacts. */
  private blocks(state: WorkState): readonly WorkDevice[] {
    const { plan, circuit } = this;
    const list: WorkDevice[] = [];
    plan.board.parts.forEach((part, index) => {
      if (!part.fitted) return;
      const pins = circuit.pins[index]!;
      const facts = plan.board.facts?.[part.ref] ?? {};
      switch (part.kind) {
        case 'opto':
          if (facts['iTrigger'] === undefined)
            list.push(optoTransistor(part.ref, pins, facts['ctr'] ?? partFigure(part, 'transferRatio') ?? 1));
          break;
        case 'shunt-reference':
          list.push(shuntReference(part.ref, pins, facts['vRef'] ?? partFigure(part, 'referenceVolts') ?? 2.495));
          break;
        case 'regulator': {
          const volts = facts['vOut'] ?? plan.outputs.find((o) => o.rail === netKey(part.nets[2]!))?.volts ?? 5;
          list.push(passRegulator(part.ref, pins, volts, 1.2, facts['iRun'] ?? 0.003));
          break;
        }
        case 'relay':
          if (state.closed.has(part.ref)) list.push(resistance(part.ref, pins[2]!, pins[3]!, 0.02));
          break;
        default:
          break;
      }
    });
    return list;
  }

  /** Every direct output of the nameplate with its resistor. */
  private loads(): readonly WorkDevice[] {
    const share = LOAD_SHARE[this.condition.load];
    return this.plan.outputs.flatMap((o) => {
      const [a, b] = [this.node(o.rail), this.node(o.return)];
      // An alternating load joins its two nets for the mean as well; a pulsed one is fed by its pulses alone.
      if (o.kind === 'pulse' || o.series || a < 0 || b < 0 || !(o.amps * share > 0)) return [];
      return [resistance(`load ${o.rail}`, a, b, o.volts / (o.amps * share))];
    });
  }

  /** Direct sources: the input and what else comes from outside. */
  private supplies(): readonly WorkDevice[] {
    const { plan } = this;
    const list: WorkDevice[] = [];
    const { rail, return: back } = plan.inputs;
    if (!plan.mains && rail !== null && back !== null)
      list.push(held('source', this.node(rail), this.node(back), this.condition.source, 1e-5));
    for (const x of plan.board.nameplate?.auxInputs ?? [])
      if (this.node(x.rail) >= 0 && this.node(x.return) >= 0)
        list.push(held(`source ${x.rail}`, this.node(x.rail), this.node(x.return), x.volts, 1e-3));
    return list;
  }

  network(devices: readonly WorkDevice[]): MeanNetwork {
    const prefer = [this.plan.inputs.return, ...this.plan.references].flatMap((n) =>
      n === null || this.node(n) < 0 ? [] : [this.node(n)],
    );
    return new MeanNetwork(this.circuit.nodeNames.length, devices, new Map(), prefer);
  }

  /** The devices of the solution found last. */
  lastDevices: readonly WorkDevice[] = [];

  /** Mean volts in a state in which nothing switches, or of a network made otherwise; null where none was found. */
  solve(state: WorkState, start: Float64Array | null, more: readonly WorkDevice[] = []): Float64Array | null {
    this.lastDevices = [...this.devices(state), ...more];
    return this.network(this.lastDevices).solve(start ?? undefined);
  }

  /** A guess of the mean volts: outputs at their nameplate's, supplies at what the source gives. */
  firstGuess(state: WorkState): Float64Array {
    const relays = this.plan.board.parts.flatMap((p) => (p.kind === 'relay' ? [p.ref] : []));
    const idle: WorkState = { ...state, running: new Set(), closed: new Set(relays) };
    const more = this.plan.outputs.flatMap((o) => {
      const [a, b] = [this.node(o.rail), this.node(o.return)];
      return o.kind === 'dc' && a >= 0 && b >= 0 ? [held('guess', a, b, o.volts, 0.1)] : [];
    });
    for (const c of this.plan.converters) more.push(...this.regulatedGuess(c));
    for (const c of this.plan.converters) {
      const low = c.switches.find((s) => s.side === 'bottom')?.low;
      if (!c.topology.endsWith('bridge') || low === undefined) continue;
      for (const n of c.nodes) more.push(halfOf('guess', this.node(n), this.node(c.supply), this.node(low)));
    }
    const solved = (held: readonly WorkDevice[]): Float64Array | null =>
      this.network([...this.devices(idle), ...held]).solve();
    const first = solved(more) ?? solved([]);
    const supplies: WorkDevice[] = [];
    for (const ic of this.plan.ics.values()) {
      const [vcc, ground] = [this.pin(ic, 'VCC'), this.ground(ic)];
      const { vccStart, vccStop } = ic.facts;
      if (vcc < 0 || ground < 0 || vccStart === undefined || !this.isSteady(vcc)) continue;
      if (first && first[vcc]! - first[ground]! > (vccStop ?? vccStart)) continue;
      supplies.push(held('guess', vcc, ground, (vccStart + (vccStop ?? vccStart)) / 2, 1));
    }
    const x =
      (supplies.length > 0 ? (solved([...more, ...supplies]) ?? first) : first) ??
      new Float64Array(this.circuit.nodeNames.length);
    // What rides on a swinging node is charged through its diode while that node is low.
    for (const d of this.circuit.devices) {
      const [from, to] = [d.nodes[0]!, d.nodes[1]!];
      if (d.model.kind !== 'junction' || !this.isSteady(from)) continue;
      const under = [...this.plan.riding].find(([net]) => this.node(net) === to)?.[1];
      if (under !== undefined) x[to] = x[this.node(under)]! + Math.max(x[from]! - 0.6, 0);
    }
    // A clamp stands above its rail by about what the winding throws back.
    for (const running of this.cells) {
      if (!running) continue;
      const supply = this.node(running.converter.supply);
      const ground = running.converter.switches[0] ? x[this.node(running.converter.switches[0].low)]! : 0;
      for (const { nodes } of running.cell.diodeDevices) {
        const to = nodes[1]!;
        if (this.isSteady(to) && to !== supply && Math.abs(x[to]! - x[supply]!) < 1)
          x[to] = x[to]! + 0.45 * Math.abs(x[supply]! - ground);
      }
    }
    return x;
  }

  /** The rail that a feedback pin divides down, held where the pin is content. */
  private regulatedGuess(c: PowerConverter): readonly WorkDevice[] {
    const ic = c.controller === null ? undefined : this.plan.ics.get(c.controller);
    const reference = ic?.facts['fbRef'];
    if (!ic || reference === undefined) return [];
    const [fb, ground] = [this.pin(ic, 'FB'), this.ground(ic)];
    if (fb < 0 || ground < 0) return [];
    const { circuit } = this;
    const resistors = circuit.devices.flatMap((d) =>
      d.model.kind === 'resistor'
        ? [resistance(d.name, d.nodes[0]!, d.nodes[1]!, Math.max(circuit.parameters[d.at]!, WIRE_OHMS))]
        : [],
    );
    for (const net of c.outputs) {
      const node = this.node(net);
      if (node < 0 || !this.isSteady(node) || this.plan.outputs.some((o) => o.rail === net)) continue;
      const x = this.network([...resistors, held('one', node, ground, 1, 1e-3)]).solve();
      const share = x ? x[fb]! - x[ground]! : 0;
      if (share > 1e-3 && share < 1) return [held('guess', node, ground, reference / share, 0.1)];
    }
    return [];
  }

  /** The swinging node that a pin is divided down from, and by how much; null for a pin that stands by itself. */
  sampled(pin: number, ground: number, running: RunningCell): { readonly node: number; readonly share: number } | null {
    const { circuit } = this;
    const near = new Map<number, number>();
    for (const d of circuit.devices) {
      if (d.model.kind !== 'resistor') continue;
      const [a, b] = [d.nodes[0]!, d.nodes[1]!];
      if (a !== pin && b !== pin) continue;
      const far = this.beyondOpen(a === pin ? b : a, d);
      near.set(far.node, (near.get(far.node) ?? 0) + 1 / (circuit.parameters[d.at]! + far.ohms));
    }
    const rides = (n: number): boolean => [...this.plan.riding].some(([net]) => this.node(net) === n);
    const own = [...near.keys()].find(
      (n) => n !== ground && running.cell.unknownOf.has(n) && !this.isSteady(n) && !rides(n),
    );
    if (own === undefined) return null;
    const total = [...near.values()].reduce((sum, g) => sum + g, 0);
    return { node: own, share: near.get(own)! / total };
  }

  /** What an opened pin hides: the node beyond its break. */
  private beyondOpen(node: number, from: Device): { readonly node: number; readonly ohms: number } {
    const { circuit } = this;
    if (circuit.nodeNames[node] !== 'NC') return { node, ohms: 0 };
    const next = circuit.devices.find((d) => d !== from && d.model.kind === 'resistor' && d.nodes.includes(node));
    return next
      ? { node: next.nodes[0] === node ? next.nodes[1]! : next.nodes[0]!, ohms: circuit.parameters[next.at]! }
      : { node, ohms: Infinity };
  }

  /** Capacitors that hold volts at work, each as what takes it from given volts over a step of time. */
  standingCapacitors(network: MeanNetwork): readonly ((from: Float64Array, seconds: number) => WorkDevice)[] {
    const { circuit } = this;
    const ridden = new Set([...this.plan.riding].flatMap(([a, b]) => [this.node(a), this.node(b)]));
    return circuit.devices.flatMap((d) => {
      if (d.model.kind !== 'capacitor' && d.model.kind !== 'lossy-capacitor') return [];
      const [a, b] = [d.nodes[0]!, d.nodes[1]!];
      const stands = (this.isSteady(a) && this.isSteady(b)) || (ridden.has(a) && ridden.has(b));
      // A capacitor across the isolation leads no volts anywhere.
      if (!stands || !network.joined(a, b)) return [];
      const farads = circuit.parameters[d.at]!;
      return [
        (from: Float64Array, seconds: number): WorkDevice => held(d.name, a, b, from[a]! - from[b]!, seconds / farads),
      ];
    });
  }
}
