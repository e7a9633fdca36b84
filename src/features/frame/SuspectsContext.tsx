'use client';
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import type { ReactNode } from 'react';
import { SYMPTOMS } from '@/core/diagnose';
import type { Finding, ProbePoint } from '@/core/diagnose';
import { diagnosticReadings, linesOf, presentReadings } from '@/core/job';
import { useJob } from '@/features/frame/JobContext';
import type { DiagnoseAnswer, DiagnoseRequest } from '@/workers/messages';

/** The diagnosis of the open board as the worker last gave it. */
export type Weighed = Extract<DiagnoseAnswer, { type: 'weighed' }>;

interface SuspectsValue {
  readonly boardId: string;
  /** 0..1 while the dictionary is made, 1 when it is there. */
  readonly share: number;
  readonly failed: string | null;
  readonly weighed: Weighed | null;
  /** True while an answer to the newest readings is on its way. */
  readonly thinking: boolean;
  readonly skipped: readonly ProbePoint[];
  skip(point: ProbePoint): void;
}

const Context = createContext<SuspectsValue | null>(null);

/** The suspects of the open board. */
export function useSuspects(): SuspectsValue {
  const value = useContext(Context);
  if (!value) throw new Error('useSuspects outside a job');
  return value;
}

/** Keeps the diagnosis worker over all steps of a job and feeds it the readings as they stand. */
export function SuspectsProvider({ children }: { children: ReactNode }) {
  const { job, active, lines, waiting } = useJob();
  const { id: boardId, asFound: board, board: present } = active;
  const [share, setShare] = useState(0);
  const [failed, setFailed] = useState<string | null>(null);
  const [weighed, setWeighed] = useState<Weighed | null>(null);
  const [asked, setAsked] = useState(0);
  const [skipped, setSkipped] = useState<readonly ProbePoint[]>([]);
  const worker = useRef<Worker | null>(null);
  const [openNumber, setOpenNumber] = useState(0);
  const [presentNumber, setPresentNumber] = useState(0);

  useEffect(() => {
    const made = new Worker(new URL('../../workers/diagnose.worker.ts', import.meta.url));
    worker.current = made;
    made.onmessage = ({ data }: MessageEvent<DiagnoseAnswer>) => {
      if (data.type === 'progress') setShare(data.share * 0.98);
      else if (data.type === 'opened') {
        setShare(1);
        setOpenNumber(data.number);
      } else if (data.type === 'presented') setPresentNumber(data.number);
      else if (data.type === 'weighed') setWeighed(data);
      else setFailed(data.sentence);
    };
    return () => made.terminate();
  }, []);

  const symptoms = useMemo(() => SYMPTOMS.filter((s) => job.symptoms.includes(s)), [job.symptoms]);
  const opened = useRef(0);
  useEffect(() => {
    opened.current += 1;
    const request: DiagnoseRequest = { type: 'open', number: opened.current, board, symptoms };
    worker.current?.postMessage(request);
  }, [board, symptoms]);

  const presented = useRef(0);
  useEffect(() => {
    presented.current += 1;
    const request: DiagnoseRequest = { type: 'present', number: presented.current, board: present };
    worker.current?.postMessage(request);
  }, [present]);

  const now = useMemo(() => presentReadings(lines, active, waiting), [lines, active, waiting]);
  const readings = useMemo(() => diagnosticReadings(lines, boardId), [lines, boardId]);
  const findings = useMemo(
    () =>
      linesOf<Finding>(lines, 'finding')
        .filter(({ line }) => line.boardId === null || line.boardId === boardId)
        .map(({ body }) => body),
    [lines, boardId],
  );
  const counter = useRef(0);
  useEffect(() => {
    if (openNumber === 0) return;
    counter.current += 1;
    const request: DiagnoseRequest = {
      type: 'weigh',
      number: counter.current,
      readings,
      present: now,
      skipped,
      findings,
    };
    worker.current?.postMessage(request);
    setAsked(counter.current);
  }, [readings, now, skipped, findings, openNumber, presentNumber]);

  const skip = useCallback((point: ProbePoint) => setSkipped((kept) => [...kept, point]), []);
  const thinking = weighed === null || weighed.number < asked;
  const value = useMemo(
    () => ({ boardId, share, failed, weighed, thinking, skipped, skip }),
    [boardId, share, failed, weighed, thinking, skipped, skip],
  );
  return <Context value={value}>{children}</Context>;
}
