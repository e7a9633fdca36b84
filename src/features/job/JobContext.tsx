'use client';
import { useRouter } from 'next/navigation';
import { v4 as uuid } from 'uuid';
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { clockWords } from '@/ui/when';
import { useSettings } from './SettingsContext';
import type { ReactNode } from 'react';
import { correctedJob, everySource, isolatedBy, jobState, toldBefore, unknownHazard } from '@/core/job';
import type { JobProgress, JobState, KnownSource, StartBoard, TracedJobBoard } from '@/core/job';
import type { JobFacts } from '@/core/ledger';
import type { Problem } from '@/core/problem';
import { secondsSince } from '@/core/safety';
import type { Hazard, Moment } from '@/core/safety';
import { boardFromJson } from '@/wire/boardCopy';
import type { BoardJson } from '@/wire/boardJson';
import type { LedgerEntry, NewLine, StoredLine } from '@/wire/ledger';
import type { LiveJob } from '@/features/frame/LiveBanner';
import { useActor } from './useActor';
import { useContact } from './useContact';
import { useEngine } from './useEngine';
import { useMoment } from './useMoment';
import { useOutbox } from './useOutbox';
import type { RefusedLine } from './waitingStore';
import { useTraced } from './useTraced';

/** What a job's screens get from the server, as it was taken in. */
export interface JobData extends JobFacts {
  readonly tag: string;
  readonly createdAt: number;
  /** Number of the last line that came with it from a file; 0 where it was taken in here. */
  readonly broughtIn: number;
}

/** The open job: its boards and its log, and what follows from them alone. */
interface JobLedger {
  /** As it was taken in, with what was corrected since. */
  readonly job: JobData;
  /** Every source that was ever named: each is asked for. */
  readonly sources: readonly (KnownSource & { readonly isolatedBy: string | null })[];
  readonly boards: readonly TracedJobBoard[];
  /** The board that is worked on now. */
  readonly active: TracedJobBoard;
  readonly harnesses: readonly Harness[];
  readonly lines: readonly StoredLine[];
  /** Written here, not yet acknowledged by the server. */
  readonly waiting: readonly NewLine[];
  /** How the job stands: its outcome and what it waits for. */
  readonly state: JobState;
  readonly actor: string;
}

/** What can be done to the open job; it changes only with who works. */
interface JobCommands {
  setActor(actor: string): void;
  setTrouble(problem: Problem | null): void;
  dismissRefused(): void;
  addLine(entry: LedgerEntry, boardId?: string | null, reverses?: string | null): Promise<StoredLine | null>;
  chooseBoard(boardId: string): void;
  takeNewBoard(board: FirstBoard, line: StoredLine): void;
  takeHarness(harness: Harness, line: StoredLine): void;
}

/** What changes with the clock and with the contact to the server. */
interface JobStanding {
  readonly progress: JobProgress;
  readonly now: Moment;
  /** What is live in the workshop. */
  readonly live: readonly LiveJob[];
  /** Since when this window has lost touch with the log, milliseconds since 1970; null while in touch. */
  readonly lostSince: number | null;
  readonly trouble: Problem | null;
  /** Lines that the server would not take, set aside with the reason. */
  readonly refused: readonly RefusedLine[];
}

/** A wire between two boards of the job: a connector's pin on each. */
export interface Harness {
  readonly fromBoard: string;
  readonly fromPin: string;
  readonly toBoard: string;
  readonly toPin: string;
}

/** A board as the server sends it: what it started from, held to its schema there. */
export interface FirstBoard {
  readonly id: string;
  readonly label: string;
  readonly start: BoardJson;
  /** Why it cannot be read; null when it can. */
  readonly damaged: string | null;
}

const LedgerContext = createContext<JobLedger | null>(null);
const CommandsContext = createContext<JobCommands | null>(null);
const StandingContext = createContext<JobStanding | null>(null);

function inside<T>(value: T | null): T {
  if (!value) throw new Error('outside a job');
  return value;
}

/** The open job and what can be done to it. It says nothing that changes with the clock. */
export function useJob(): JobLedger & JobCommands {
  return { ...inside(useContext(LedgerContext)), ...useCommands() };
}

/** What can be done to the open job, for what shows nothing of it. */
export function useCommands(): JobCommands {
  return inside(useContext(CommandsContext));
}

/** Hazard, next step and contact: whoever asks is drawn again with every tick of the clock. */
export function useStanding(): JobStanding {
  return inside(useContext(StandingContext));
}

function openBoard({ id, label, start, damaged }: FirstBoard): StartBoard {
  return { id, label, damaged, start: boardFromJson(start) };
}

/** News of a job, as the server sends them. */
interface Pulse {
  readonly moment: Moment;
  readonly lines: readonly StoredLine[];
  readonly boardIds: readonly string[];
  readonly live: readonly LiveJob[];
}

/** The last number up to which no line is missing here. */
function withoutGap(lines: readonly StoredLine[]): number {
  const numbers = new Set(lines.map((l) => l.seq));
  let last = 0;
  while (numbers.has(last + 1)) last++;
  return last;
}

/** Without contact nothing lowers the hazard: another bench may have written what this window does not know. */
const outOfTouch = (hazard: Hazard, since: number, zone: string): Hazard =>
  unknownHazard(
    hazard,
    `No contact with the log since ${clockWords(since, zone)}: what has happened to this unit since is not known here.`,
  );

/** For so long, seconds, what the server worked out stands without being looked at again. */
const TOLD_SECONDS = 30;

/** Holds an open job in the page: its ledger as the server acknowledged it, and everything derived from it. */
export function JobProvider({
  job: takenIn,
  boards: firstBoards,
  harnesses: firstHarnesses,
  lines: firstLines,
  progress: firstProgress,
  moment,
  live: firstLive,
  children,
}: {
  job: JobData;
  boards: readonly TracedJobBoard[];
  harnesses: readonly Harness[];
  lines: readonly StoredLine[];
  /** How it stood by these boards and lines at this moment. */
  progress: JobProgress;
  moment: Moment;
  live: readonly LiveJob[];
  children: ReactNode;
}) {
  const [first] = useState({ boards: firstBoards, lines: firstLines, progress: firstProgress, moment });
  const [starts, setStarts] = useState<readonly StartBoard[]>(first.boards);
  const [harnesses, setHarnesses] = useState(firstHarnesses);
  const { zone } = useSettings();
  const [activeId, chooseBoard] = useState('');
  const [lines, setLines] = useState(firstLines);
  const { now, hear, reach } = useMoment(moment);
  const [live, setLive] = useState(firstLive);
  const router = useRouter();
  const [actor, setActor] = useActor();
  const [trouble, setTrouble] = useState<Problem | null>(null);

  const tag = takenIn.tag;
  const onStored = useCallback(
    (stored: StoredLine) => {
      setLines((kept) => (kept.some((l) => l.id === stored.id) ? kept : [stored, ...kept]));
      reach({ at: stored.at, boot: stored.boot, uptime: stored.uptime });
    },
    [reach],
  );
  const { waiting, refused, dismiss, send } = useOutbox(tag, onStored, setTrouble);
  const known = useRef({ lines, starts });
  useEffect(() => {
    known.current = { lines, starts };
  }, [lines, starts]);
  const path = useCallback(() => `/api/jobs/${tag}/pulse?after=${withoutGap(known.current.lines)}`, [tag]);
  const onNews = useCallback(
    (news: Pulse) => {
      hear(news.moment);
      news.lines.forEach(onStored);
      setLive((kept) => (JSON.stringify(kept) === JSON.stringify(news.live) ? kept : news.live));
      // A board that another window has added comes with a fresh page.
      if (news.boardIds.some((id) => !known.current.starts.some((s) => s.id === id))) router.refresh();
    },
    [hear, onStored, router],
  );
  const lostSince = useContact(tag, path, onNews);
  const engine = useEngine();
  const boards = useTraced(engine, starts, lines, waiting, first);
  const active = boards.find((b) => b.id === activeId) ?? boards[0]!;
  const addLine = useCallback(
    (entry: LedgerEntry, boardId: string | null = null, reverses: string | null = null) =>
      send({ clientKey: uuid(), actor, boardId, entry, reverses }),
    [actor, send],
  );

  const takeNewBoard = useCallback(
    (board: FirstBoard, line: StoredLine) => {
      setStarts((kept) => [...kept, openBoard(board)]);
      onStored(line);
    },
    [onStored],
  );
  const takeHarness = useCallback(
    (harness: Harness, line: StoredLine) => {
      setHarnesses((kept) => [...kept, harness]);
      onStored(line);
    },
    [onStored],
  );

  const job = useMemo(() => correctedJob(takenIn, lines), [takenIn, lines]);
  const sources = useMemo(() => {
    const by = isolatedBy(takenIn.sources, lines, takenIn.broughtIn);
    return everySource(takenIn.sources, lines).map((s, i) => ({ ...s, isolatedBy: by[i] ?? null }));
  }, [takenIn.sources, takenIn.broughtIn, lines]);
  const state = useMemo(() => jobState(lines), [lines]);
  const progress = useMemo(() => {
    const view = { unit: takenIn.nameplate, waiting, broughtIn: takenIn.broughtIn };
    const news = lines !== first.lines || waiting.length > 0 || starts !== first.boards;
    const known = engine
      ? engine.jobProgress(takenIn.sources, boards, lines, now, view)
      : toldBefore(first.progress, news || secondsSince(first.moment, now) > TOLD_SECONDS);
    return lostSince === null ? known : { ...known, hazard: outOfTouch(known.hazard, lostSince, zone) };
  }, [engine, first, takenIn, starts, boards, lines, waiting, now, lostSince, zone]);
  const ledger = useMemo(
    () => ({ job, sources, boards, active, harnesses, lines, waiting, state, actor }),
    [job, sources, boards, active, harnesses, lines, waiting, state, actor],
  );
  const commands = useMemo(
    () => ({ setActor, setTrouble, dismissRefused: dismiss, addLine, chooseBoard, takeNewBoard, takeHarness }),
    [setActor, dismiss, addLine, takeNewBoard, takeHarness],
  );
  const standing = useMemo(
    () => ({ progress, now, live, lostSince, trouble, refused }),
    [progress, now, live, lostSince, trouble, refused],
  );
  return (
    <CommandsContext value={commands}>
      <LedgerContext value={ledger}>
        <StandingContext value={standing}>{children}</StandingContext>
      </LedgerContext>
    </CommandsContext>
  );
}
