import { netKey } from '../circuit';
import { listHypotheses } from '../diagnose';
import { testBoards } from '@/testing/boards';
import { flatten } from '.';
import type { Circuit, Device } from '.';

/** What each device is and where it lies, with nodes told by their nets; those that a fault made stand by where they hang. */
function told({ devices, parameters, nodeNames, nodeOfNet, pins }: Circuit): unknown {
  const netOf = new Map([...nodeOfNet].map(([net, node]) => [node, net]));
  const name = (node: number): string => netOf.get(node) ?? netKey(nodeNames[node]!);
  return {
    devices: devices
      .map(({ model, nodes, at, sigmas, name: own }) => ({
        at: `${own} ${nodes.map(name).join(' ')}`,
        first: parameters[at],
        second: model.kind === 'junction' ? parameters[at + 1] : 0,
        sigmas,
      }))
      .map((d) => JSON.stringify(d))
      .sort(),
    // States of junctions go from one circuit to the other by their order.
    junctions: devices
      .filter((d) => d.model.kind === 'junction')
      .map((d) => `${d.name} ${d.nodes.map(name).join(' ')}`),
    pins: pins.map((nodes) => nodes.map(name)),
  };
}

const whichDevice = ({ name, model, nodes, sigmas }: Device): string =>
  `${name} ${model.kind} ${nodes.join()} ${sigmas.length}`;

/** Boards of few and of many kinds of part: every third. */
test.each(testBoards(1, 3).map(({ name, board }) => [name, board] as const))(
  '%s: a board flattened once, then given a fault, is the faulty board flattened',
  (_, board) => {
    const sound = { ...board };
    const drawOf = new Map(flatten(sound).devices.map((d) => [whichDevice(d), d.draws]));
    for (const { faults } of listHypotheses(board).filter((_, i) => i % 3 === 0)) {
      const faulty = flatten(sound, faults);
      expect(told(faulty)).toEqual(told(flatten({ ...board }, faults)));
      // A part is drawn by the same numbers, whatever else is broken.
      for (const d of faulty.devices.filter((one) => one.sigmas.every((s) => s > 0)))
        expect(d.draws).toEqual(drawOf.get(whichDevice(d)) ?? d.draws);
    }
  },
);

test('a board that was flattened gives the same circuit again, and a draw of its parts none of it', () => {
  const { board } = testBoards()[0]!;
  const sound = flatten(board);
  expect(told(flatten(board))).toEqual(told(sound));
  const drawn = flatten(board, [], () => 2);
  expect(drawn.parameters).not.toEqual(sound.parameters);
});
