'use client';
import { Volume2, VolumeX } from 'lucide-react';
import dynamic from 'next/dynamic';
import { Tabs, Toggle } from 'radix-ui';
import { linesOf, standingLines } from '@/core/ledger';
import { memo, useCallback, useMemo, useRef, useState } from 'react';
import type { SeenReading } from '@/core/expect';
import { goesOnWithoutProof } from '@/core/job';
import { unpoweredReading } from '@/features/job/unpoweredReading';
import { useJob, useStanding } from '@/features/job/JobContext';
import { expectedWords, seenWords } from '@/features/frame/lineWords';
import { useEngine } from '@/features/job/useEngine';
import { useSettings } from '@/features/job/SettingsContext';
import { useReadMarks } from '@/features/job/useReadMarks';
import { useReadVolts } from '@/features/job/useReadVolts';
import { useSuspects } from '@/features/job/SuspectsContext';
import { Schematic } from '@/features/schematic/Schematic';
import { PrimaryLink } from '@/ui/PrimaryLink';
import { Progress } from '@/ui/Progress';
import { TabStrip } from '@/ui/TabStrip';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import { playTone } from '@/ui/tones';
import type { Tone } from '@/ui/tones';
import type { PlanEntry } from '@/workers/messages';
import { OutcomeLine } from './OutcomeLine';
import type { LastOutcome } from './OutcomeLine';
import { PlanList } from './PlanList';
import { PointPanel } from './PointPanel';
import { ReadingEntry } from './ReadingEntry';
import { usePoints } from './usePoints';

// Each is fetched when it is first shown.
const ProofFirst = dynamic(() => import('./ProofFirst').then((m) => m.ProofFirst));
const Verdict = dynamic(() => import('./Verdict').then((m) => m.Verdict));
const PermitList = dynamic(() => import('./PermitList').then((m) => m.PermitList));
const LikelyUnseen = dynamic(() => import('./LikelyUnseen').then((m) => m.LikelyUnseen));
const SuspectList = dynamic(() => import('./SuspectList').then((m) => m.SuspectList));
const ProbePhoto = dynamic(() => import('./ProbePhoto').then((m) => m.ProbePhoto), { ssr: false });
const PoweredProbe = dynamic(() => import('./PoweredProbe').then((m) => m.PoweredProbe), { ssr: false });

/** Probe: the next point large, the figure, Enter; the verdict at once; suspects move. Each board has its own. */
export function ProbeScreen() {
  const { lines } = useJob();
  const { progress, now } = useStanding();
  const open = progress.hazard.meterSafe || goesOnWithoutProof(lines, now);
  // What was just read under power goes on under power.
  const [way, setWay] = useState(
    progress.hazard.state === 'LIVE' && linesOf(lines, 'powered-reading').length > 0 ? 'powered' : 'cold',
  );
  const toPower = useCallback(() => setWay('powered'), []);
  return (
    <Tabs.Root value={way} onValueChange={setWay}>
      <TabStrip label="How it is read" tabs={WAYS} />
      <Tabs.Content value="cold">
        {open ? <Probing onPower={toPower} /> : <ProofFirst hazard={progress.hazard} />}
      </Tabs.Content>
      <Tabs.Content value="powered">
        <PoweredProbe />
      </Tabs.Content>
    </Tabs.Root>
  );
}

const WAYS = { cold: 'Cold', powered: 'Under power' };

/** Without properties that change, so that a tick of the clock does not draw it again. */
const Probing = memo(function Probing({ onPower }: { onPower(): void }) {
  const { job, boards, active, lines, addLine } = useJob();
  const { board, id } = active;
  const { weighed, complete, share, failed, complained, thinking, drafts } = useSuspects();
  const [draft] = useState(() => drafts.get(id) ?? null);
  const { plan, current, places, choose, begin, next, back } = usePoints(draft?.point ?? null);
  const engine = useEngine();
  const judged = useMemo(() => ({ boards, lines }), [boards, lines]);
  const expected = useMemo(
    () =>
      current ? (engine?.expectAt(judged, { ...current, boardId: id, purpose: 'probe' })?.expected ?? null) : null,
    [engine, judged, id, current],
  );
  const marks = useReadMarks();
  const read = useReadVolts();
  const [last, setLast] = useState<LastOutcome | null>(null);
  const [allPlaces, setAllPlaces] = useState(false);
  const [picked, setPicked] = useState<string | undefined>(undefined);
  const [sound, setSound] = useState(useSettings().sound);
  // On a phone the rest is a touch away.
  const [more, setMore] = useState(false);
  const selection = useMemo(
    () => ({ part: picked, nets: current ? [current.red, current.black] : [] }),
    [picked, current],
  );
  const tone = useRef<Tone | null>(null);

  const keepOne = (point: PlanEntry, seen: SeenReading): void => {
    const line = unpoweredReading(point, seen, 'probe');
    const told = engine?.judgeReading(judged, { boardId: id, body: line.body });
    const outcome = told?.outcome ?? 'noted';
    tone.current =
      seen.kind === 'overload' && outcome !== 'disagree' ? 'overload' : outcome === 'noted' ? null : outcome;
    if (tone.current) playTone(tone.current, sound);
    setLast({
      outcome,
      seen: seenWords(point.mode, seen),
      expected: told?.expected ? expectedWords(told.expected) : 'nothing known',
      where: `${point.red} / ${point.black}`,
    });
    void addLine(line, id);
  };
  const keep = (readings: readonly SeenReading[]): void => {
    readings.forEach((seen, i) => keepOne(places[i]!, seen));
    drafts.delete(id);
    choose(null);
    setAllPlaces(false);
  };
  const undo = (): void => {
    const latest = standingLines(lines)
      .filter((l) => l.entry.kind === 'reading' && l.boardId === id)
      .at(-1);
    if (latest) void addLine({ kind: 'reversal', body: { reason: 'undone in Probe' } }, id, latest.id);
    setLast(null);
  };

  const named = weighed !== null && !thinking && weighed.verdict === 'named';
  return (
    <div className="flex flex-col gap-2">
      <div className="flex items-center gap-3">
        <h1 className="sr-only">Probe</h1>
        <div className="min-w-0 flex-1">
          <OutcomeLine last={last} />
        </div>
        <Toggle.Root
          pressed={sound}
          onPressedChange={setSound}
          className="flex items-center gap-1.5 rounded-sm border border-line px-2 py-1 text-sm text-faint"
        >
          {sound ? <Volume2 aria-hidden className="size-4" /> : <VolumeX aria-hidden className="size-4" />}
          {sound ? 'sound on' : 'sound off'}
        </Toggle.Root>
      </div>
      {weighed && !thinking && weighed.verdict !== 'open' && <Verdict />}
      {current && expected ? (
        <section
          aria-label="Next point"
          data-point={`${current.mode} ${current.red} ${current.black}`}
          data-settled={thinking || share < 1 ? undefined : 'yes'}
          className="border border-line bg-raised px-4 py-3"
        >
          <PointPanel board={board} point={current} expected={expected} allPlaces={allPlaces} />
          <ReadingEntry
            board={board}
            places={places}
            expected={expected}
            lit={!named}
            keys={{
              next,
              back,
              undo,
              repeatTone: () => tone.current && playTone(tone.current, sound),
              places: () => setAllPlaces((v) => !v),
            }}
            begun={draft?.text ?? ''}
            onBegin={begin}
            onType={(text) => (text === '' ? drafts.delete(id) : drafts.set(id, { point: current, text }))}
            onKeep={keep}
          />
        </section>
      ) : (
        <section aria-label="Next point" className="border border-line bg-raised px-4 py-6 text-lg">
          {failed !== null ? (
            <Notice kind="trouble">
              The plan could not be made: {failed}. Readings can still be written under Board.
            </Notice>
          ) : share < 1 ? (
            <>
              Working out what every fault would read …
              <Progress className="mt-3 w-full" value={share} label="Working out the plan" />
            </>
          ) : thinking || !engine ? (
            'Weighing …'
          ) : (
            <div className="flex items-center justify-between gap-4">
              No reading left would tell more without lifting a leg.
              {!named && <PrimaryLink href={`/jobs/${job.tag}/repair`}>Call it yourself</PrimaryLink>}
            </div>
          )}
        </section>
      )}
      {complete && weighed?.verdict === 'open' && weighed.suspects[0]?.invisible && (
        <LikelyUnseen board={board} weighed={weighed} onChoose={choose} onPower={onPower} />
      )}
      <Button className="sm:hidden" onClick={() => setMore(!more)} aria-expanded={more}>
        {more ? 'Lead, lead, figure alone' : 'Plan, suspects, permit, drawing'}
      </Button>
      <div className={`flex flex-col gap-2 ${more ? '' : 'max-sm:hidden'}`}>
        <div className="grid grid-cols-2 gap-4 max-md:grid-cols-1">
          <section aria-labelledby="plan">
            <h2 id="plan" className="mb-1 font-semibold">
              Plan, best next first
            </h2>
            <PlanList board={board} plan={plan} current={current} onChoose={choose} />
            {weighed && plan.length === 0 && <p className="text-faint">Nothing left to read.</p>}
          </section>
          <section aria-labelledby="suspects">
            <h2 id="suspects" className="mb-1 font-semibold">
              Suspects{' '}
              <span className="text-sm font-normal text-faint">
                {weighed && weighed.done < weighed.of
                  ? `${weighed.done} of ${weighed.of} worked out, nothing is called before all are`
                  : thinking && weighed
                    ? 'weighing …'
                    : complained && complained.done < complained.of
                      ? `by the complaint: ${complained.done} of ${complained.of} faults worked out under power`
                      : complained && 'by the complaint as computed'}
              </span>
            </h2>
            {weighed && <SuspectList board={board} weighed={weighed} />}
          </section>
        </div>
        {weighed && (
          <section aria-labelledby="permit">
            <h2 id="permit" className="mb-1 font-semibold">
              Permit to power
            </h2>
            <PermitList permit={weighed.permit} board={board} current={current} onChoose={choose} />
          </section>
        )}
        <div className="flex items-start gap-3 max-lg:flex-col">
          <div className="min-w-0 flex-1 max-lg:w-full">
            <Schematic
              board={board}
              selection={selection}
              byPart={weighed?.byPart}
              marks={marks}
              read={read}
              height={260}
              onPickPart={setPicked}
            />
          </div>
          {current && <ProbePhoto red={current.red} black={current.black} height={260} />}
        </div>
      </div>
    </div>
  );
});
