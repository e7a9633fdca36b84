import { archetypeBoard } from '../archetype';
import { readNetlist } from '../netlist';
import { PoweredReader, alivePoints } from '.';

const MODELS = '.model DS D(IS=3n N=1.75)\n.model DZ D(IS=1e-14 BV=12)\n.end\n';

/** A mains board of a few parts, fed with 230 V of 50 Hz. */
function fed(text: string, source = 230): PoweredReader {
  const read = readNetlist(`t\nXJ1 L N CONN\n${text}\n${MODELS}`);
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  const nameplate = {
    source: 'mains',
    inputRail: 'L',
    inputReturn: 'N',
    inputNominal: 230,
    hertz: 50,
    outputs: [],
  } as const;
  return PoweredReader.at({ ...read.value.board, nameplate }, { source, load: 'none' }, []);
}

const dcv = (r: PoweredReader, red: string, black: string): number => r.read('dcv', red, black)!.value!;
const near = (value: number, wanted: number, share: number): void =>
  expect(Math.abs(value / wanted - 1)).toBeLessThan(share);

test('one diode and a capacitor to the neutral: the crest, falling for nearly a whole period', () => {
  const r = fed('R9 L LX 10\nD1 LX HV+ DS\nC1 HV+ N 10u vr=400 esr=0.5\nR1 HV+ N 47k');
  // Q = I T: 325 V / 47 kohm for nearly 20 ms out of 10 uF.
  near(r.read('ripple', 'HV+', 'N')!.value!, ((320 / 47e3) * 19e-3) / 10e-6, 0.05);
  near(dcv(r, 'HV+', 'N'), 324 - 6.5, 0.01);
  // Twice as many mains make twice the rail.
  near(dcv(fed('R9 L LX 10\nD1 LX HV+ DS\nC1 HV+ N 10u vr=400 esr=0.5\nR1 HV+ N 47k', 115), 'HV+', 'N'), 158.7, 0.01);
});

test('the diode the other way round makes the rail below the neutral', () => {
  const r = fed('R9 L LX 10\nD1 HV- LX DS\nC1 N HV- 10u vr=400 esr=0.5\nR1 N HV- 47k');
  near(dcv(r, 'N', 'HV-'), 324 - 6.5, 0.01);
});

const DROPPER = 'R9 L LX 47\nC3 LX DR 1u vr=310\nR4 LX DR 470k\n';

test('a capacitor in place of a resistor gives a clamped rail its charge, and no more', () => {
  // 1 uF passes 2 x 325 V x 1 uF x 50 Hz = 32 mA one way round at most: what is left goes through the zener.
  const light = fed(`${DROPPER}DZ1 DR N DZ\nD1 VSS DR DS\nC4 N VSS 470u vr=16\nR1 N VSS 2k`);
  near(dcv(light, 'N', 'VSS'), 12 - 0.8, 0.03);
  const heavy = fed(`${DROPPER}DZ1 DR N DZ\nD1 VSS DR DS\nC4 N VSS 4700u vr=16\nR1 N VSS 100`);
  // Beyond it the rail gives way: I = C f (2 x 325 V less what stands on it).
  const volts = dcv(heavy, 'N', 'VSS');
  near(volts / 100, 1e-6 * 50 * (2 * 325 - volts - 1.4), 0.05);
  // Both ways round behind a bridge: twice the charge.
  const bridge = fed(`${DROPPER}XBD1 DR N V+ V- BRIDGE\nDZ1 V- V+ DZ\nC4 V+ V- 4700u vr=25\nR1 V+ V- 100`);
  near(dcv(bridge, 'V+', 'V-') / 100, 1e-6 * 2 * 50 * (2 * 325 - 2 * (dcv(bridge, 'V+', 'V-') + 1.4)), 0.06);
});

test('the phase control lives from its capacitor: rail, regulator, and both among the points to read', () => {
  const board = archetypeBoard('phase-control')!;
  const r = PoweredReader.at(board, { source: 230, load: 'none' }, []);
  expect(dcv(r, 'VDD', 'GND')).toBeCloseTo(5, 1);
  // Zener 12 V less a diode.
  near(dcv(r, 'VDC', 'GND'), 11.3, 0.03);
  const what = alivePoints(r).map((p) => `${p.what} ${p.red}`);
  expect(what).toContain('rectified VDC');
  expect(what).not.toContain('rectified VDD');
});
