import { ARCHETYPES, archetypeBoard } from '../archetype';
import type { NameplateOutput } from '../circuit';
import { operateUnit } from './operate';
import type { Operation } from './operate';
import type { OperatingCondition } from './workBoard';
import { workPlan } from './workPlan';

const of = (name: string): (typeof ARCHETYPES)[number] => ARCHETYPES.find((a) => a.name === name)!;

/** Volts of the outputs beside what is printed on the unit. */
function outputs(name: string, condition: OperatingCondition): readonly (readonly [number, number])[] {
  const operation = operateUnit(workPlan(archetypeBoard(name)!), condition, []);
  expect(operation.unitState).toBe('run');
  return of(name).nameplate.outputs!.map((o) => {
    const volts =
      o.kind === 'ac' ? operation.alternating!.volts(o.rail!.toLowerCase(), o.return!.toLowerCase()) : dc(operation, o);
    return [volts, o.volts];
  });
}

const dc = ({ unit, volts }: Operation, o: NameplateOutput): number =>
  volts[unit.node(o.rail!)]! - volts[unit.node(o.return!)]!;

/** Circuits whose output is regulated: what is printed on them is what they make. */
const REGULATED = [
  'flyback-opto',
  'forward',
  'two-switch-forward',
  'full-bridge',
  'push-pull',
  'boost-pfc',
  'buck-module',
  'synchronous-buck',
  'boost',
  'buck-boost',
  'linear',
  'line-frequency-inverter',
  'flyback-primary-sensed',
];

test.each(REGULATED)('%s makes what is printed on it, least source and full load, most source and none', (name) => {
  const { inputMin, inputMax } = of(name).nameplate as { inputMin: number; inputMax: number };
  for (const condition of [
    { source: inputMin, load: 'full' },
    { source: inputMax, load: 'none' },
  ] as const)
    for (const [volts, printed] of outputs(name, condition)) expect(Math.abs(volts / printed - 1)).toBeLessThan(0.05);
});

test.each(['half-bridge', 'three-phase-inverter', 'traction-stage'])('%s at its usual source and half load', (name) => {
  const source = of(name).nameplate.inputNominal!;
  for (const [volts, printed] of outputs(name, { source, load: 'half' }))
    expect(Math.abs(volts / printed - 1)).toBeLessThan(0.05);
});

test('a three-phase drive holds its volts as far as its battery allows: its peak is the bus', () => {
  const [[at48, printed], [at40]] = [48, 40].map(
    (source) => outputs('three-phase-inverter', { source, load: 'half' })[0]!,
  ) as [readonly [number, number], readonly [number, number]];
  expect(at48).toBeCloseTo(printed, 0);
  expect(at40).toBeCloseTo(40 / Math.SQRT2, 0);
});

test('a stage whose aim nothing tells passes its input on and burns nothing', () => {
  // The step-up leg of the traction stage: a processor turns it, and no fact says to what.
  const operation = operateUnit(workPlan(archetypeBoard('traction-stage')!), { source: 200, load: 'full' }, []);
  expect(operation.destroys).toEqual([]);
  const bus = operation.volts[operation.unit.node('BUS')]!;
  expect(bus).toBeGreaterThan(194);
  expect(bus).toBeLessThan(200);
});

test('a gate that is on while low is let go high by a controller at rest', () => {
  // P-channel switch of the inverting converter, its regulation content without a load.
  const operation = operateUnit(workPlan(archetypeBoard('buck-boost')!), { source: 12, load: 'none' }, []);
  const { unit, volts } = operation;
  expect(operation.destroys).toEqual([]);
  expect(volts[unit.node('GATE')]! / volts[unit.node('VB')]!).toBeGreaterThan(0.8);
});
