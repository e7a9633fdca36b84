'use client';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { linesOf } from '@/core/ledger';
import { useMemo } from 'react';
import { easiestPlace } from '@/core/circuit';
import { faultWords, formatFault } from '@/core/fault';
import { judgeReading } from '@/core/job';
import { formatQuantity } from '@/core/quantity';
import { useJob } from '@/features/job/JobContext';
import type { TracedJobBoard } from '@/core/job';
import { useSettings } from '@/features/job/SettingsContext';
import { plateWords } from '@/features/frame/plateWords';
import { timeWords } from '@/ui/when';
import { MODE_WORDS, expectedWords, seenWords } from '@/features/frame/lineWords';
import { COMPLAINTS } from '@/wire/complaints';
import { OnBoard } from './OnBoard';
import { ReportActions } from './ReportActions';
import { PoweredReadings } from './PoweredReadings';
import { Modified, Sweeps } from './Proofs';
import { SafetyTests } from './SafetyTests';
import { Usable } from './Usable';

/** The report: one printable page of what was wrong, what was fitted, what it reads now, and what was not tested. */
export function ReportScreen() {
  const { job, boards, lines, state } = useJob();
  const { workshop, zone } = useSettings();
  const open = state.outcome === 'open';
  return (
    <article className="max-w-3xl max-md:overflow-x-auto">
      <ReportActions />
      <h1 className="text-2xl font-bold">
        Repair report <span className="figure">{job.tag}</span>
      </h1>
      <p className="mb-3 text-faint">
        {[workshop.name, workshop.address, `${timeWords(lines[0]?.at ?? job.createdAt, zone)} ${zone}`]
          .filter((words) => words !== '')
          .join(', ')}
      </p>
      <dl className="mb-4 grid grid-cols-[8rem_1fr] gap-x-4 gap-y-1">
        <dt className="text-faint">Unit</dt>
        <dd>
          {job.unit}
          {job.serial && `, serial ${job.serial}`}
        </dd>
        <dt className="text-faint">Nameplate</dt>
        <dd>{plateWords(job.nameplate)}</dd>
        <dt className="text-faint">Complaint</dt>
        <dd>
          {job.complaint}{' '}
          {job.symptoms.length > 0 && (
            <span className="text-faint">
              ({job.symptoms.map((s) => COMPLAINTS.find((c) => c.code === s)?.words ?? s).join(', ')})
            </span>
          )}
        </dd>
        <dt className="text-faint">Outcome</dt>
        <dd>
          {open ? 'still open' : state.outcome.replaceAll('-', ' ')}
          {!open && state.said && (
            <span className="text-faint">
              , {state.said.actor}, {timeWords(state.said.at, zone)}
            </span>
          )}
        </dd>
      </dl>
      <Findings />
      {boards.map((home) => (
        <ReadingsTable key={home.id} home={home} purpose="probe" title="Readings against expected" />
      ))}
      <section className="mb-4">
        <h2 className="font-semibold">Fault</h2>
        {linesOf(lines, 'fault').map(({ line, body }) => (
          <p key={line.id}>
            <OnBoard id={line.boardId} />
            {faultWords((boards.find((b) => b.id === line.boardId) ?? boards[0]!).board, body.fault)}. {body.words}{' '}
            <span className="text-faint">Called by {line.actor}.</span>
          </p>
        ))}
        {linesOf(lines, 'fault').length === 0 && <p className="text-faint">None called.</p>}
      </section>
      <PartsFitted />
      {boards.map((home) => (
        <Modified key={home.id} home={home} />
      ))}
      {boards.map((home) => (
        <ReadingsTable key={home.id} home={home} purpose="after-repair" title="After the repair" />
      ))}
      {boards.map((home) => (
        <PoweredReadings key={home.id} home={home} />
      ))}
      {boards.map((home) => (
        <Usable key={home.id} item={home} />
      ))}
      <Sweeps />
      <Cautions />
      <SafetyTests />
      <Drawings />
    </article>
  );
}

/** Each board as it was traced, on a page of its own. */
function Drawings() {
  const { job, boards } = useJob();
  const traced = boards.filter((home) => home.board.parts.length > 0);
  return traced.map((home) => (
    <section key={home.id} className="sheet-page mb-4">
      <h2 className="no-print mb-1 flex items-baseline gap-4 font-semibold">
        Drawing{boards.length > 1 && ` of ${home.label}`}
        <Link href={`/jobs/${job.tag}/drawing`} className="text-sm font-normal text-slate underline underline-offset-4">
          A4 or A3, as PDF or SVG
        </Link>
      </h2>
      <DrawingSheet home={home} paper="A4" />
    </section>
  ));
}

function Findings() {
  const { lines } = useJob();
  const findings = linesOf(lines, 'finding');
  return (
    <section className="mb-4">
      <h2 className="font-semibold">Findings</h2>
      {findings.length === 0 && <p className="text-faint">None noted.</p>}
      <ul className="list-inside list-disc">
        {findings.map(({ line, body }) => (
          <li key={line.id}>
            {body.words}{' '}
            <span className="text-faint">
              ({body.place}; {body.severity})
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

const DrawingSheet = dynamic(() => import('@/features/schematic/DrawingSheet').then((m) => m.DrawingSheet), {
  ssr: false,
});

const VERDICTS = { agree: '✓ agrees', disagree: '✕ disagrees', noted: '● noted' } as const;

function ReadingsTable({
  home,
  purpose,
  title,
}: {
  home: TracedJobBoard;
  purpose: 'probe' | 'after-repair';
  title: string;
}) {
  const { boards, lines } = useJob();
  const { id } = home;
  const rows = useMemo(
    () =>
      linesOf(lines, 'reading')
        .filter(
          ({ line, body }) => line.boardId === id && (body.purpose === 'after-repair') === (purpose === 'after-repair'),
        )
        .flatMap(({ line, body }) => {
          const told = judgeReading({ boards, lines }, { ...line, body });
          return told ? [{ line, body, told }] : [];
        }),
    [boards, lines, id, purpose],
  );
  if (rows.length === 0) return null;
  return (
    <section className="mb-4">
      <h2 className="mb-1 font-semibold">
        <OnBoard id={id} />
        {title}
      </h2>
      <table className="w-full border-collapse text-left text-sm">
        <thead className="text-faint">
          <tr className="border-b border-line">
            <th className="py-1 font-normal">Red</th>
            <th className="font-normal">Black</th>
            <th className="font-normal">Mode</th>
            <th className="text-right font-normal">Read</th>
            <th className="pr-3 text-right font-normal">Expected</th>
            <th className="font-normal">Verdict</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ line, body, told: { board, faults, expected, outcome } }) => {
            const place = (net: string): string => easiestPlace(board, net);
            return (
              <tr key={line.id} className="border-b border-line/40 align-baseline">
                <td className="py-1 pr-2">{place(body.red)}</td>
                <td className="pr-2">{place(body.black)}</td>
                <td className="pr-2">{MODE_WORDS[body.mode]}</td>
                <td className="figure text-right whitespace-nowrap">{seenWords(body.mode, body.seen)}</td>
                <td className="figure pr-3 pl-3 text-right whitespace-nowrap">
                  {expected ? expectedWords(expected) : ''}
                </td>
                <td>
                  {outcome === null ? 'not on this board any more' : VERDICTS[outcome]}
                  {faults.length > 0 && (
                    <span className="block text-faint">
                      with {faultWords(board, faults.map(formatFault).join('+'))} in it
                    </span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

function PartsFitted() {
  const { lines } = useJob();
  const parts = linesOf(lines, 'replacement');
  return (
    <section className="mb-4">
      <h2 className="font-semibold">Parts fitted</h2>
      {parts.length === 0 && <p className="text-faint">None.</p>}
      <ul className="list-inside list-disc">
        {parts.map(({ line, body }) => (
          <li key={line.id}>
            <OnBoard id={line.boardId} />
            {body.ref}, was {body.was}: {body.fitted.source},{' '}
            {body.fitted.samePart ? 'the same part' : 'another part of no lower rating'}
            {body.fitted.ratedVolts !== undefined && `, ${formatQuantity(body.fitted.ratedVolts, 'V')}`}
            {body.fitted.ratedAmps !== undefined && `, ${formatQuantity(body.fitted.ratedAmps, 'A')}`}. {body.words}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Cautions() {
  const { lines } = useJob();
  const skipped = linesOf(lines, 'check-skipped');
  const powered = linesOf(lines, 'sweep-rows').length > 0 || linesOf(lines, 'powered-reading').length > 0;
  const overridden = linesOf(lines, 'override');
  return (
    <section className="mb-4">
      <h2 className="font-semibold">Cautions</h2>
      <ul className="list-inside list-disc">
        {!powered && <li>Read cold only: nothing in this report was measured under power.</li>}
        {skipped.map(({ line, body }) => (
          <li key={line.id}>
            {body.ref} was not checked: {body.reason}.
          </li>
        ))}
        {overridden.map(({ line, body }) => (
          <li key={line.id}>Measured without a proof of discharge: {body.reason}.</li>
        ))}
        <li>Installation and reconnection follow local codes and are for a licensed person where these ask for one.</li>
      </ul>
    </section>
  );
}
