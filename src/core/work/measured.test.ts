import { archetypeBoard } from '../archetype';
import { energyStores } from '../safety';
import { fillOperatingPoint, operatingPoint } from '../operate';
import { boardFigures, figureOf, isPending } from '../figures';
import { withFigure } from '../part';
import { readNetlist } from '../netlist';
import { PoweredReader, withReadings, workPlan, workedVolts } from '.';
import type { MeasuredUnit, TakenReading } from '.';

const sound = new Map<string, PoweredReader>();
function unit(name: string): PoweredReader {
  const board = archetypeBoard(name)!;
  const made = sound.get(name) ?? PoweredReader.at(board, { source: workPlan(board).inputs.nominal, load: 'full' }, []);
  sound.set(name, made);
  return made;
}

const dcv = (red: string, black: string, value: number): TakenReading => ({ mode: 'dcv', red, black, value });
const measured = (name: string, ...readings: TakenReading[]): MeasuredUnit => withReadings(unit(name), readings);
const volts = ({ reader }: { readonly reader: PoweredReader }, red: string, black: string): number =>
  reader.read('dcv', red, black)!.value!;
const [fly, buck] = ['flyback-opto', 'buck-module'];

test('nothing read: the unit stays as it was computed', () => {
  const { reader, contradictions } = measured(fly);
  expect(reader).toBe(unit(fly));
  expect(contradictions).toEqual([]);
});

test('an output that reads higher than its loop is made for lifts the other windings with it, and is said', () => {
  const before = { reader: unit(fly) };
  const own = Float64Array.from(unit(fly).operation.volts);
  const now = measured(fly, dcv('OUT+', 'OUT-', 26.4));
  expect(volts(now, 'OUT+', 'OUT-')).toBeCloseTo(26.4, 1);
  // The windings of a flyback hold the same volts a turn: VCC and its diode rise as OUT+ and its diode do, coupling aside.
  const rise = (volts(now, 'VCC', 'HV-') + 0.8) / (volts(before, 'VCC', 'HV-') + 0.8);
  expect(rise).toBeGreaterThan(1.06);
  expect(rise).toBeLessThan(1.13);
  expect(now.contradictions.map((c) => [c.red, c.value])).toEqual([['OUT+', 26.4]]);
  expect(now.contradictions[0]!.words).toMatch(/^OUT\+ against OUT- read 26.4\sV; 22.8/u);
  // The sound unit itself is left as it was.
  expect([...unit(fly).operation.volts]).toEqual([...own]);
});

test('a reading inside its band is no contradiction and narrows its band', () => {
  const value = unit(fly).read('dcv', 'VCC', 'HV-')!;
  const now = measured(fly, dcv('VCC', 'HV-', value.value! * 0.97));
  expect(now.contradictions).toEqual([]);
  const read = now.reader.read('dcv', 'VCC', 'HV-')!;
  expect(read.value).toBeCloseTo(value.value! * 0.97, 2);
  expect(read.high! - read.low!).toBeLessThan(0.3 * (value.high! - value.low!));
  expect(now.reader.derive('VCC', 'HV-').steps.at(-1)!.words).toContain('were read at VCC');
});

test('the rectified rail turns the mains; what a loop holds does not move with it', () => {
  const line = workPlan(archetypeBoard(fly)!).inputs;
  const was = volts({ reader: unit(fly) }, 'HV+', 'HV-');
  const now = measured(fly, dcv('HV+', 'HV-', 0.8 * was));
  const mains = now.reader.read('acv', line.rail!, line.return!)!.value!;
  expect(mains / line.nominal).toBeCloseTo(0.8, 2);
  // Less mains, more current, a little more ripple: within 2 % of the reading.
  expect(Math.abs(volts(now, 'HV+', 'HV-') / (0.8 * was) - 1)).toBeLessThan(0.02);
  expect(volts(now, 'OUT+', 'OUT-')).toBeCloseTo(volts({ reader: unit(fly) }, 'OUT+', 'OUT-'), 1);
});

test('no rectified rail, or a supply pin below where its controller stops: nothing behind it is expected to live', () => {
  for (const reading of [dcv('HV+', 'HV-', 0), dcv('VCC', 'HV-', 4)]) {
    const now = measured(fly, reading);
    expect(now.reader.operation.unitState).toBe('off');
    expect(Math.abs(volts(now, 'OUT+', 'OUT-'))).toBeLessThan(0.5);
    expect(now.contradictions.map((c) => c.adopted)).toEqual([true]);
  }
});

test('a source read lower feeds the unit so; a frequency read turns the ripple', () => {
  const { inputs } = workPlan(archetypeBoard(buck)!);
  const low = measured(buck, dcv(inputs.rail!, inputs.return!, 9));
  expect(volts(low, inputs.rail!, inputs.return!)).toBeCloseTo(9, 2);
  const stage = unit(buck).operation.unit.cells.find((c) => c)!.converter;
  const at = stage.nodes[0]!;
  const hertz = unit(buck).read('freq', at, inputs.return!)!.value!;
  const slow = measured(buck, { mode: 'freq', red: at, black: inputs.return!, value: 0.8 * hertz });
  expect(slow.reader.read('freq', at, inputs.return!)!.value).toBeCloseTo(0.8 * hertz, 0);
  // Ripple current goes as one over the frequency.
  const out = stage.outputs[0]!;
  const ripple = (r: PoweredReader): number => r.read('ripple', out, inputs.return!)!.value!;
  expect(ripple(slow.reader) / ripple(unit(buck))).toBeGreaterThan(1.15);
  expect(ripple(slow.reader) / ripple(unit(buck))).toBeLessThan(1.35);
});

test('an output far below what its loop is made for is said, and the rest stays as a sound unit has it', () => {
  const now = measured(fly, dcv('OUT+', 'OUT-', 3));
  expect(now.contradictions.map((c) => c.adopted)).toEqual([false]);
  expect(volts(now, 'VCC', 'HV-')).toBeCloseTo(volts({ reader: unit(fly) }, 'VCC', 'HV-'), 1);
});

test('rails at work over the corners: what is regulated hardly moves, the rectified rail follows the mains', () => {
  const board = archetypeBoard(fly)!;
  const found = workedVolts(board);
  const of = (red: string) => found.find((v) => v.red === red)!;
  expect(of('OUT+').nominal).toBeCloseTo(24.04, 1);
  expect(of('OUT+').high - of('OUT+').low).toBeLessThan(2.5);
  const { inputMin, inputMax } = board.nameplate!;
  expect(of('HV+').low).toBeLessThan(Math.SQRT2 * inputMin!);
  expect(of('HV+').high).toBeGreaterThan(0.97 * Math.SQRT2 * inputMax!);
  // Turned round, nothing is known of a unit that nobody feeds.
  expect(workedVolts({ ...board, nameplate: { outputs: board.nameplate!.outputs! } })).toEqual([]);
});

test('a unit that is not understood is not taken for dead', () => {
  const read = readNetlist(
    't\nXU1 VIN GND SW IC3\nL1 SW OUT 10u\nC1 OUT GND 10u\nR1 OUT GND 1k\n.subckt IC3 1 2 3\nR1 1 2 10k\n.ends\n.end\n',
  );
  if (!read.ok) throw new Error('no board');
  const nameplate = { source: 'dc', inputNominal: 12, inputRail: 'VIN', inputReturn: 'GND' } as const;
  expect(workedVolts({ ...read.value.board, nameplate })).toEqual([]);
});

describe('an operating point filled by the engine', () => {
  const board = archetypeBoard(fly)!;
  const before = new Map(energyStores(board).map((s) => [s.key, s.volts.nominal]));
  const weak = {
    ...board,
    parts: board.parts.map((p) =>
      p.nets.includes('HV+') && p.kind === 'capacitor' ? withFigure(p, 'ratedVolts', 16) : p,
    ),
    nameplate: { outputs: board.nameplate!.outputs! },
  };

  test('comes first after what was read, with its figures; the worst case is never lowered', () => {
    expect(isPending(board, 'OUT+.work')).toBe(true);
    expect(figureOf(board, 'OUT+.work')).toBeUndefined();
    const named = boardFigures(board).length;
    const found = workedVolts(board);
    fillOperatingPoint(board, found);
    const out = operatingPoint(board).across('OUT+', 'OUT-');
    expect([out.source, out.nominal]).toEqual(['computed', found.find((v) => v.red === 'OUT+')!.nominal]);
    expect(isPending(board, 'OUT+.work')).toBe(false);
    expect(figureOf(board, 'out+.work')!.value).toBe(out.nominal);
    expect(boardFigures(board).length).toBe(named + found.length);
    for (const s of energyStores(board)) expect(s.volts.nominal).toBeGreaterThanOrEqual(before.get(s.key)!);
    const measuredPoint = operatingPoint(board, {
      measured: [{ red: 'OUT+', black: 'OUT-', volts: 11 }],
      computed: found,
    });
    expect(measuredPoint.across('OUT+', 'OUT-').source).toBe('measured');
  });

  test('raises what a wrong marking would have put too low', () => {
    const store = (): number =>
      energyStores(weak).find((s) => s.refs.some((r) => r.startsWith('C')) && s.plus === 'HV+')!.volts.nominal;
    expect(store()).toBeLessThan(300);
    fillOperatingPoint(weak, workedVolts(board));
    expect(store()).toBeGreaterThan(325);
  });
});
