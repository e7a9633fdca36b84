import { ok, refuse } from '../problem';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** Sag when a load starts. Source: Ohm and Kirchhoff. */
export const sag: SumDefinition = {
  name: 'sag',
  title: 'Sag when a load starts',
  formula: 'sag = (vNominal - vMin)/vNominal; sourceR = drop/iStep',
  source: 'Ohm and Kirchhoff',
  inputs: [
    { key: 'vNominal', unit: 'V', meaning: 'before', rule: 'positive' },
    { key: 'vMin', unit: 'V', meaning: 'lowest', rule: 'non-negative' },
    { key: 'iStep', unit: 'A', meaning: 'step of the load', rule: 'positive' },
    { key: 'limit', unit: '1', meaning: 'allowed sag', rule: 'fraction-below-one', preset: 0.1 },
  ],
  resultUnits: { sag: '1', sourceR: 'ohm' },
  task: 'read-a-rail',
  words: 'dip drop load step weak source resistance battery',
  lead: ['sag', 'sourceR'],
  resultWords: { sag: 'sag, share', sourceR: 'resistance of the source', verdict: 'against the limit' },
  steps: ['sag = (vNominal - vMin) / vNominal', 'sourceR = (vNominal - vMin) / iStep'],
  example: { vNominal: 12.6, vMin: 11.4, iStep: 10 },
  compute({ vNominal = 0, vMin = 0, iStep = 0, limit = 0 }) {
    if (vMin > vNominal) return refuse(badInput('vMin', 'is above vNominal'));
    const drop = vNominal - vMin;
    const results = { sag: drop / vNominal, sourceR: drop / iStep, verdict: drop / vNominal <= limit ? 'ok' : 'over' };
    return ok({ results, cautions: [] });
  },
};
