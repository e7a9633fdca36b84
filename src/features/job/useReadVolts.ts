'use client';
import { useMemo } from 'react';
import { useJob } from './JobContext';
import { useEngine } from './useEngine';

const NONE: ReadonlyMap<string, number> = new Map();

/** The DC volts that were read last at nets of the board worked on, by net key. */
export function useReadVolts(): ReadonlyMap<string, number> {
  const { lines, active } = useJob();
  const engine = useEngine();
  return useMemo(() => engine?.readAtNets(active.board, lines, active.id) ?? NONE, [engine, active, lines]);
}
