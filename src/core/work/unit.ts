import { netKey } from '../circuit';
import { isCapacitor } from '../device';
import type { Device } from '../device';
import type { Fault } from '../fault';
import { partFigure, sheetFact } from '../part';
import type { SheetFact } from '../part';
import type { PowerConverter } from '../stages';
import { bootstrapSupply } from './bootstrap';
import { icDevices } from './icWork';
import { LineSide } from './lineSide';
import { controllerOf, hasAim, makeCell, senseOhms } from './makeCell';
import { MeanNetwork } from './meanNetwork';
import { halfOf, simpleConverter, simpleDevices } from './simpleConverter';
import { UnitCircuit } from './unitCircuit';
import type { RunningCell, WorkState } from './unitCircuit';
import { loadShare } from './workBoard';
import type { OperatingCondition } from './workBoard';
import { held, meanDevice, optoTransistor, passRegulator, resistance, shuntReference, steady } from './workDevice';
import type { WorkDevice } from './workDevice';
import type { WorkPlan } from './workPlan';

function blocksLine(d: Device, parameters: Float64Array, lineNodes: ReadonlySet<number>): boolean {
  const across = d.nodes.some((n) => lineNodes.has(n)) && d.nodes.some((n) => !lineNodes.has(n));
  return across && (d.model.kind === 'junction' || (d.model.kind === 'resistor' && parameters[d.at]! >= 1e8));
}

/** The windings of a device by name. */
export const windingNames = (d: Device): readonly string[] => (d.model.states === 1 ? [d.name] : d.name.split('+'));

/** Windings and links without resistance have this, ohm. */
export const WIRE_OHMS = 1e-3;

/**
 * A board under power: its circuit with faults, and the mean volts of every node in a given state of its controllers.
 */
export class UnitUnderPower extends UnitCircuit {
  /** What hangs on the mains; made anew with `arrange` when contacts or converters change. */
  line: LineSide | null = null;

  constructor(plan: WorkPlan, condition: OperatingCondition, faults: readonly Fault[]) {
    super(plan, condition, faults);
    this.cells = plan.converters.map((c): RunningCell | null => {
      const cell = hasAim(this, c) ? makeCell(this, c) : null;
      if (!cell) return null;
      const by = controllerOf(this, c)?.facts['ccDuty'] !== undefined ? 'hertz' : 'top';
      const ohms = senseOhms(this, c);
      return { converter: c, cell, top: 0, hertz: cell.plan.hertz, by, result: null, slopes: null, senseOhms: ohms };
    });
    this.floating = new Map(plan.converters.map((c) => [c, this.floatingSwitches(c)]));
    this.arrange({ powered: new Set(), running: new Set(), closed: new Set() });
  }

  private floatingSwitches(c: PowerConverter): readonly Device[] {
    const { devices } = this.circuit;
    return c.switches.flatMap((s) => {
      const gate = this.node(s.control);
      const hangs = devices.some((d) => d.nodes.includes(gate) && d.model.kind !== 'channel' && !this.isInsideIc(d));
      return gate < 0 || hangs ? [] : devices.filter((d) => d.model.kind === 'channel' && s.refs.includes(d.name));
    });
  }

  /** Switches whose gate hangs on nothing but its driver: until that works, it sits at its source. */
  private readonly floating: ReadonlyMap<PowerConverter, readonly Device[]>;

  /** Switches that are held off, whatever their gates do in the mean. */
  heldOff: ReadonlySet<Device> = new Set();

  private arranged: string | null = null;

  /** Fits the line side to a state. */
  arrange(state: WorkState): void {
    const { plan } = this;
    if (!plan.mains) return;
    const closed = [...state.closed].map((ref) => {
      const pins = this.pinsOf(ref);
      return [pins[2]!, pins[3]!] as const;
    });
    const cut = new Set([...state.running].flatMap((i) => simpleDevices(this, plan.converters[i]!)));
    // The same contacts and the same diodes: as it was, with its charge.
    const key = [...state.closed, ...[...cut].map((d) => d.at)].join();
    if (key === this.arranged) return;
    this.arranged = key;
    this.line = LineSide.of(this, closed, cut);
    this.rectified = this.line?.reservoirs ?? [];
  }

  /** Everything that conducts in a state, cells aside. */
  devices(state: WorkState): readonly WorkDevice[] {
    const { circuit, plan } = this;
    const { parameters } = circuit;
    const gone = new Set<Device>(this.heldOff);
    plan.converters.forEach((c, i) => {
      if (!state.running.has(i)) for (const d of this.floating.get(c) ?? []) gone.add(d);
    });
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
      if (gone.has(d) || this.isInsideIc(d)) continue;
      // What is broken off the mains, or blocks from it, holds no mean volts against it.
      if (this.line && blocksLine(d, parameters, this.line.lineNodes)) continue;
      switch (d.model.kind) {
        case 'resistor':
          list.push(resistance(d.name, d.nodes[0]!, d.nodes[1]!, Math.max(parameters[d.at]!, WIRE_OHMS)));
          break;
        case 'windings': {
          const names = windingNames(d);
          for (let k = 0; k < d.model.states; k++)
            list.push(
              resistance(names[k]!, d.nodes[2 * k]!, d.nodes[2 * k + 1]!, Math.max(parameters[d.at + k]!, WIRE_OHMS)),
            );
          break;
        }
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
    for (const { a, b, volts, held: holds } of this.taken)
      if (holds) list.push(held('reading', a, b, volts, WIRE_OHMS));
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
      const aim = this.aims.get(part.ref) ?? 1;
      const fact = (key: SheetFact): number | undefined => sheetFact(plan.board.facts, part.ref, key);
      switch (part.kind) {
        case 'opto':
          if (fact('iTrigger') === undefined)
            list.push(optoTransistor(part.ref, pins, fact('ctr') ?? partFigure(part, 'transferRatio') ?? 1));
          break;
        case 'shunt-reference':
          list.push(
            shuntReference(part.ref, pins, aim * (fact('vRef') ?? partFigure(part, 'referenceVolts') ?? 2.495)),
          );
          break;
        case 'regulator': {
          const volts = fact('vOut') ?? plan.outputs.find((o) => o.rail === netKey(part.nets[2]!))?.volts ?? 5;
          list.push(passRegulator(part.ref, pins, aim * volts, 1.2, fact('iRun') ?? 0.003));
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
    const share = loadShare(this.condition);
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
    for (const { rail: plus, return: minus, ...volts } of plan.supplies)
      if (this.node(plus) >= 0 && this.node(minus) >= 0)
        list.push(
          held(`source ${plus}`, this.node(plus), this.node(minus), volts[this.condition.further ?? 'usual'], 1e-3),
        );
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
  /** Whether the loops came to rest the last time they were closed. */
  settled = true;
  /** Whether they were left because a controller's supply had run down: how it goes on is the hiccup's to say. */
  ranDown = false;
  /** Known to lift its own supply: it is not left for running down. */
  sustains = false;

  /** Mean volts in a state in which nothing switches, or of a network made otherwise; null where none was found. */
  solve(state: WorkState, start: Float64Array | null, more: readonly WorkDevice[] = []): Float64Array | null {
    this.lastDevices = [...this.devices(state), ...more];
    return this.network(this.lastDevices).solve(start ?? undefined);
  }

  /** Capacitors that hold volts at work, each as what takes it from given volts over a step of time. */
  standingCapacitors(network: MeanNetwork): readonly ((from: Float64Array, seconds: number) => WorkDevice)[] {
    const { circuit } = this;
    const ridden = new Set([...this.plan.riding].flatMap(([a, b]) => [this.node(a), this.node(b)]));
    return circuit.devices.flatMap((d) => {
      if (!isCapacitor(d)) return [];
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
