import { balanceOf, leftOver, runningCells, voltSeconds } from '@/testing/balances';
import { archetypeBoard } from '../archetype';
import { operateUnit } from './operate';
import type { Operation } from './operate';
import { workPlan } from './workPlan';

const atWork = (name: string, load: 'half' | 'full'): Operation => {
  const plan = workPlan(archetypeBoard(name)!);
  return operateUnit(plan, { source: plan.inputs.nominal, load }, []);
};

const SWITCHED = [
  'flyback-opto',
  'forward',
  'two-switch-forward',
  'half-bridge',
  'full-bridge',
  'push-pull',
  'buck-module',
  'synchronous-buck',
  'boost',
  'buck-boost',
  'flyback-primary-sensed',
];

/** Without a clamp a switch that opens takes what the leakage of its winding held: that is in no element's current. */
const SPILT: Readonly<Record<string, number>> = { forward: 0.03, 'push-pull': 0.09 };

test.each(SWITCHED)('%s: what a period takes is what it loses, and its windings end it as they began', (name) => {
  const operation = atWork(name, 'full');
  expect(runningCells(operation).length).toBeGreaterThan(0);
  for (const cell of runningCells(operation)) {
    const { taken, turnover, lost, stored } = balanceOf(cell, operation.volts);
    expect(turnover).toBeGreaterThan(0);
    expect(Math.abs(taken - lost - stored) / turnover).toBeLessThan(SPILT[name] ?? 0.005);
    expect(Math.abs(stored) / turnover).toBeLessThan(0.02);
  }
});

test.each(SWITCHED)('%s: no winding keeps volt-seconds, every node of the mean network is in balance', (name) => {
  const operation = atWork(name, 'half');
  for (const cell of runningCells(operation)) expect(voltSeconds(cell, operation.volts)).toBeLessThan(0.01);
  expect(leftOver(operation).share).toBeLessThan(2e-3);
});
