import { bulkWave, dischargeCurve, runSum } from '.';
import type { SumDone } from '.';

function done(name: string, inputs: Record<string, number>): SumDone {
  const run = runSum(name, inputs);
  if (!run.ok) throw new Error(run.problem.sentence);
  return run.value;
}

test('a discharge goes through the wanted voltage at its time', () => {
  const sum = done('discharge-time', { c: 100e-6, vStart: 325, vSafe: 60, r: 10e3 });
  const curve = dischargeCurve(sum, 1201);
  expect(curve[0]).toEqual({ x: 0, y: 325 });
  const at = curve.find((p) => p.x >= (sum.results['time'] as number))!;
  expect(at.y).toBeLessThanOrEqual(60);
  expect(at.y).toBeGreaterThan(59);
});

test('the bulk’s wave has the sum’s highest, lowest and mean, and is the source while it feeds', () => {
  const sum = done('bulk-ripple', { vac: 230, f: 50, c: 100e-6, p: 60, vf: 1 });
  const wave = bulkWave(sum, 4001);
  const volts = wave.map((p) => p.y);
  expect(Math.max(...volts)).toBeCloseTo(sum.results['vMax'] as number, 1);
  expect(Math.min(...volts)).toBeCloseTo(sum.results['vMin'] as number, 0);
  const mean = volts.reduce((a, b) => a + b, 0) / volts.length;
  expect(Math.abs(mean - (sum.results['vAvg'] as number))).toBeLessThan(0.2);
  for (const p of wave) expect(p.y).toBeGreaterThanOrEqual(p.source - 1e-6);
  expect(wave.at(-1)!.x).toBeCloseTo(0.02, 9);
  // The two half-waves are alike.
  expect(wave[500]!.y).toBeCloseTo(wave[2500]!.y, 6);
});

test('without a periodic state there is no wave', () => {
  expect(bulkWave(done('bulk-ripple', { vac: 230, f: 50, c: 1e-6, p: 200 }))).toEqual([]);
});
