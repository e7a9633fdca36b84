'use client';
import { useWorkers, watched } from './workers';
import { workerName } from '@/wire/choices';
import { helpersOf } from '@/workers/helpers';
import { linesOf } from '@/core/ledger';
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import type { ReactNode } from 'react';
import type { Board } from '@/core/circuit';
import { SYMPTOMS } from '@/core/diagnose';
import type { ProbePoint, Symptom } from '@/core/diagnose';
import { diagnosticReadings } from '@/core/job';
import { SIGNAL_EVIDENCE } from '@/core/meter';
import type { SignalEvidence } from '@/core/meter';
import { useJob } from './JobContext';
import { useSettings } from './SettingsContext';
import { useEngine } from './useEngine';
import type { ComplaintAnswer, ComplaintAsked, DiagnoseAnswer, DiagnoseRequest, PlanEntry } from '@/workers/messages';

/** The diagnosis of the open board as the worker last gave it. */
export type Weighed = Extract<DiagnoseAnswer, { type: 'weighed' }>;

interface SuspectsValue {
  readonly boardId: string;
  /** 0..1 while the dictionary is made, 1 when it is there. */
  readonly share: number;
  readonly failed: string | null;
  /** How many faults were worked out under power for the complaint; null: none are, or no complaint is noted. */
  readonly complained: { readonly done: number; readonly of: number } | null;
  readonly weighed: Weighed | null;
  /** Whether every fault is worked out, by all that the workshop reads with. */
  readonly complete: boolean;
  /** True while an answer to the newest readings is on its way. */
  readonly thinking: boolean;
  readonly skipped: readonly ProbePoint[];
  skip(point: ProbePoint): void;
  /** Asks for the suspects until the function it gives is called. */
  watch(): () => void;
  /** By board what was being typed, and at which point, when another board or step was turned to. */
  readonly drafts: Map<string, { readonly point: PlanEntry; readonly text: string }>;
}

const NONE: readonly ProbePoint[] = [];

/** What the worker was last asked about. */
interface Asked {
  readonly number: number;
  readonly board: Board | null;
  readonly symptoms: readonly Symptom[];
}

const Context = createContext<SuspectsValue | null>(null);

/** The suspects of the open board; they are worked out as long as somebody asks. */
export function useSuspects(): SuspectsValue {
  const value = useContext(Context);
  if (!value) throw new Error('useSuspects outside a job');
  const { watch } = value;
  useEffect(() => watch(), [watch]);
  return value;
}

/** A board that changes under somebody's typing is opened anew once that has paused, milliseconds. */
const PAUSE_MS = 700;

/** What the worker said, of the board it said it of. */
interface Told<T> {
  readonly of: Board;
  readonly said: T;
}

/** What was said of a board; nothing when it was said of another. */
function saidOf<T, N>(told: Told<T> | null, board: Board, nothing: N): T | N {
  return told?.of === board ? told.said : nothing;
}

/** Of the workshop's instruments those that readings are planned with, by the mode of their readings. */
function telling(owned: readonly string[]): readonly SignalEvidence[] {
  return SIGNAL_EVIDENCE.filter((mode) => owned.includes(mode === 'cap' ? 'capacitance' : mode));
}

/** Keeps the diagnosis worker over all steps of a job; all that computes begins anew where it had failed. */
export function SuspectsProvider({ children }: { children: ReactNode }) {
  const { turn } = useWorkers();
  return <Suspecting key={turn}>{children}</Suspecting>;
}

/** Feeds the worker where suspects show. */
function Suspecting({ children }: { children: ReactNode }) {
  const { job, active, lines, waiting } = useJob();
  const { id: boardId, asFound: board, board: present } = active;
  const [share, setShare] = useState<Told<number> | null>(null);
  const [failed, setFailed] = useState<Told<string> | null>(null);
  const [weighed, setWeighed] = useState<(Told<Weighed> & { readonly ofPresent: Board | null }) | null>(null);
  const [asked, setAsked] = useState(0);
  const [skipped, setSkipped] = useState<Readonly<Record<string, readonly ProbePoint[]>>>({});
  const worker = useRef<Worker | null>(null);
  // Grows with every dictionary that is ready, the first and whatever there is of it later on.
  const [openings, setOpenings] = useState(0);
  const [presentNumber, setPresentNumber] = useState(0);
  // What was last asked about, under which number: an answer under another number is of another board.
  const opened = useRef<Asked>({ number: 0, board: null, symptoms: [] });
  const presented = useRef<Asked>({ number: 0, board: null, symptoms: [] });
  const [watchers, setWatchers] = useState(0);
  const wanted = watchers > 0;
  const watch = useCallback(() => {
    setWatchers((n) => n + 1);
    return () => setWatchers((n) => n - 1);
  }, []);

  useEffect(() => {
    if (!wanted || worker.current) return;
    const made = watched(
      new Worker(new URL('../../workers/diagnose.worker.ts', import.meta.url), {
        type: 'module',
        name: workerName(),
      }),
    );
    worker.current = made;
    made.onmessage = ({ data }: MessageEvent<DiagnoseAnswer>) => {
      if (data.type === 'presented') return setPresentNumber(data.number);
      if (data.type === 'failed') {
        const about = (data.of === 'present' ? presented : opened).current;
        if (about.board && about.number === data.number) setFailed({ of: about.board, said: data.sentence });
        return;
      }
      const { number, board: of } = opened.current;
      if (!of || number !== (data.type === 'weighed' ? data.opened : data.number)) return;
      if (data.type !== 'weighed') {
        setShare({ of, said: data.done / data.of });
        if (data.type === 'opened') setOpenings((n) => n + 1);
      } else {
        const same = data.presented === presented.current.number;
        setWeighed({ of, said: data, ofPresent: same ? presented.current.board : null });
      }
    };
  }, [wanted]);
  useEffect(() => () => worker.current?.terminate(), []);

  const symptoms = useMemo(() => SYMPTOMS.filter((s) => job.symptoms.includes(s)), [job.symptoms]);
  const settings = useSettings();
  const instruments = useMemo(() => telling(settings.instruments), [settings.instruments]);
  const last = useRef('');
  useEffect(() => {
    if (!wanted) return;
    const open = (): void => {
      last.current = boardId;
      if (opened.current.board !== board || opened.current.symptoms !== symptoms) {
        opened.current = { number: opened.current.number + 1, board, symptoms };
        const request: DiagnoseRequest = {
          type: 'open',
          number: opened.current.number,
          board,
          symptoms,
          instruments,
          helpers: helpersOf(navigator.hardwareConcurrency || 1),
        };
        worker.current?.postMessage(request);
      }
      if (presented.current.board !== present) {
        presented.current = { number: presented.current.number + 1, board: present, symptoms };
        const request: DiagnoseRequest = { type: 'present', number: presented.current.number, board: present };
        worker.current?.postMessage(request);
      }
    };
    if (last.current !== boardId) return open();
    const timer = window.setTimeout(open, PAUSE_MS);
    return () => window.clearTimeout(timer);
  }, [wanted, boardId, board, present, symptoms, instruments]);

  // The complaint is worked out once the dictionary is there: both want the machine to themselves.
  const [signed, setSigned] = useState<Told<{ readonly done: number; readonly of: number }> | null>(null);
  const ready = saidOf(share, board, 0) === 1;
  useEffect(() => {
    if (!wanted || !ready || symptoms.length === 0) return;
    const made = watched(
      new Worker(new URL('../../workers/complaint.worker.ts', import.meta.url), {
        type: 'module',
        name: workerName(),
      }),
    );
    made.onmessage = ({ data }: MessageEvent<ComplaintAnswer>) => {
      const request: DiagnoseRequest = { type: 'signs', number: opened.current.number, entries: data.entries };
      worker.current?.postMessage(request);
      setSigned({ of: board, said: { done: data.done, of: data.of } });
    };
    const message: ComplaintAsked = { board, symptoms };
    made.postMessage(message);
    return () => made.terminate();
  }, [wanted, ready, board, symptoms]);

  // Suspects do not wander under somebody's hands: it weighs with the next reading, and once when all of it is there.
  const said = saidOf(signed, board, null);
  const allSigned = said !== null && said.done === said.of;

  const engine = useEngine();
  const now = useMemo(() => engine?.presentReadings(lines, active, waiting) ?? null, [engine, lines, active, waiting]);
  const readings = useMemo(() => diagnosticReadings(lines, boardId), [lines, boardId]);
  const findings = useMemo(
    () =>
      linesOf(lines, 'finding')
        .filter(({ line }) => line.boardId === null || line.boardId === boardId)
        .map(({ body }) => body),
    [lines, boardId],
  );
  const [drafts] = useState((): SuspectsValue['drafts'] => new Map());
  const passed = skipped[boardId] ?? NONE;
  const counter = useRef(0);
  useEffect(() => {
    // Of a board that is not open yet nothing is asked.
    if (!wanted || openings === 0 || now === null || opened.current.board !== board) return;
    counter.current += 1;
    const request: DiagnoseRequest = {
      type: 'weigh',
      number: counter.current,
      opened: opened.current.number,
      presented: presented.current.number,
      readings,
      present: now,
      skipped: passed,
      findings,
    };
    worker.current?.postMessage(request);
    setAsked(counter.current);
  }, [wanted, board, readings, now, passed, findings, openings, presentNumber, allSigned]);

  const skip = useCallback(
    (point: ProbePoint) => setSkipped((kept) => ({ ...kept, [boardId]: [...(kept[boardId] ?? NONE), point] })),
    [boardId],
  );
  const value = useMemo((): SuspectsValue => {
    const said = saidOf(weighed, board, null);
    // A permit is for the board as it is; of the one before it says nothing.
    const permit = said && weighed?.ofPresent === present ? said.permit : null;
    return {
      boardId,
      share: saidOf(share, board, 0),
      complained: saidOf(signed, board, null),
      failed: saidOf(failed, board, null) ?? saidOf(failed, present, null),
      weighed: said && { ...said, permit },
      complete: said !== null && said.done === said.of && instruments.every((mode) => said.instruments.includes(mode)),
      thinking: said === null || said.number < asked,
      skipped: passed,
      skip,
      watch,
      drafts,
    };
  }, [boardId, board, present, instruments, share, failed, signed, weighed, asked, passed, skip, watch, drafts]);
  return <Context value={value}>{children}</Context>;
}
