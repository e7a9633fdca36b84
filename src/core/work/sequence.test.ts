import { exampleBoard } from '../../../bench/exampleBoards';
import { parseFault } from '../fault';
import { PoweredReader, startSequence, startTimes, wavePlaces, withReadings } from '.';

function at(name: string, ...faults: string[]): PoweredReader {
  const board = exampleBoard(name);
  const parsed = faults.map((text) => {
    const fault = parseFault(board, text);
    if (!fault.ok) throw new Error(text);
    return fault.value;
  });
  return PoweredReader.at(board, { source: board.nameplate!.inputNominal!, load: 'half' }, parsed);
}

test('a flyback starts in the order source, rail, controller, converter, output; its pin charges through its resistors', () => {
  const reader = at('lamp-supply-24v');
  const { steps, stalls } = startSequence(reader);
  expect(steps.map((s) => s.kind)).toEqual(['source', 'rail', 'controller', 'converter', 'output']);
  const [, , controller] = steps;
  expect(controller!.at).toBeCloseTo(startTimes(reader.operation)['U1']!, 6);
  // 600 kohm from 320 V into the supply pin's capacitors up to 16 V: C V / I, with what the controller draws.
  expect(controller!.at).toBeGreaterThan(0.3);
  expect(controller!.at).toBeLessThan(2);
  expect(controller!.condition).toContain('16');
  expect(steps.every((s, i) => i === 0 || s.at >= steps[i - 1]!.at)).toBe(true);
  expect(stalls).toEqual([]);
});

test('a unit of several stages: standby first, its relay, then what it feeds', () => {
  const { steps } = startSequence(at('ups-frontend-pfc'));
  const place = (lane: string): number => steps.findIndex((s) => s.lane === lane);
  expect(place('U2')).toBeLessThan(place('flyback M3'));
  expect(place('flyback M3')).toBeLessThan(place('RY1'));
  expect(place('RY1')).toBeLessThan(place('boost pfc M1'));
});

test('without its start-up resistor it stalls at the controller, with the volts that its pin stands at', () => {
  const { steps, stalls } = startSequence(at('lamp-supply-24v', 'R1:open'));
  expect(steps.some((s) => s.kind === 'output')).toBe(false);
  const [first] = stalls;
  expect(first).toMatchObject({ lane: 'U1' });
  expect(first!.why).toMatch(/supply pin stands at .*, it starts at 16\sV/u);
  expect(first!.point).toMatchObject({ red: 'VCC' });
  expect(stalls.some((s) => s.lane.startsWith('flyback') && s.why === 'waits for U1')).toBe(true);
});

test('what was read counts: a supply pin at 5 V stops it there', () => {
  const sound = at('lamp-supply-24v');
  const { reader } = withReadings(sound, [{ mode: 'dcv', red: 'VCC', black: 'HV-', value: 5 }]);
  const { stalls } = startSequence(reader);
  expect(stalls.map((s) => s.lane)).toContain('U1');
});

test('a supply pin that cycles is told with its times', () => {
  const { stalls } = startSequence(at('lamp-supply-24v', 'D3:open'));
  expect(stalls[0]).toMatchObject({ lane: 'U1' });
  expect(stalls[0]!.why).toMatch(/of every .*s, and loses its supply again/u);
});

test('places for a scope: switching node, gate, current sense, rectifiers; each has a waveform', () => {
  const reader = at('lamp-supply-24v');
  const places = wavePlaces(reader);
  expect(places.map((p) => p.what)).toEqual(
    expect.arrayContaining(['switching node of M1', 'gate of M1', 'current sense of U1', 'rectifier D4A']),
  );
  for (const p of places) expect(reader.waveform(p.red, p.black)).not.toBeNull();
});
