import './choices';
import { writeSweepCsv } from '@/core/sweep';
import type { SweepAsked, SweepAnswer } from './sweepMessages';
import { readSweepText } from '@/wire/csv';

/** Reads a pasted or opened table away from the page; the rows go back with the text that will be kept. */
self.onmessage = ({ data }: MessageEvent<SweepAsked>) => {
  const { rows, troubles } = readSweepText(data.text, data.setBy);
  const csv = rows.length === 0 ? '' : writeSweepCsv(rows, false);
  const answer: SweepAnswer = { id: data.id, rows, troubles, csv };
  self.postMessage(answer);
};
