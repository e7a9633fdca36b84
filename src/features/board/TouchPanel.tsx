'use client';
import { MoveHorizontal, MoveRight } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { parseQuantity } from '@/core/quantity';
import { goesOnWithoutProof } from '@/core/job';
import { useJob, useStanding } from '@/features/job/JobContext';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import { useLitFocus } from '@/ui/useLitFocus';
import { Disagreements } from './ShorthandPanel';
import { followed, nextTouch } from './touchSearch';
import type { TouchProposal } from './touchSearch';

/** The most that a meter shows by diode test, volts. */
const MOST_VOLTS = 4;

/** Touch mode: two places named, what the meter says, and on to the next. */
export function TouchPanel() {
  const { active, addLine, lines } = useJob();
  const { progress: standing, now } = useStanding();
  const { board, entries, trace, id } = active;
  const [skipped, setSkipped] = useState<ReadonlySet<string>>(new Set());
  const [text, setText] = useState('');
  const [trouble, setTrouble] = useState('');
  const field = useLitFocus<HTMLInputElement>(true);
  // A click on the tab keeps the focus for itself: the field takes it a frame later.
  useEffect(() => {
    const frame = requestAnimationFrame(() => field.current?.focus());
    return () => cancelAnimationFrame(frame);
  }, [field]);
  const last = useRef<string[]>([]);
  const proposal = useMemo(() => nextTouch(board, entries, skipped), [board, entries, skipped]);
  const progress = useMemo(() => followed(board), [board]);
  const diode = proposal?.kind === 'diode';
  const answer = (link: string): void => {
    if (!proposal) return;
    const [first, second] = proposal.resting === 'red' ? proposal.spots : [...proposal.spots].reverse();
    const line = `${first} ${link} ${second}`;
    last.current.push(line);
    setText('');
    setTrouble('');
    void addLine({ kind: 'trace', body: { text: line } }, id);
  };
  const undo = (): void => {
    const text = last.current.pop();
    const line = lines.find((l) => l.entry.kind === 'trace' && l.entry.body.text === text && l.boardId === id);
    if (line) void addLine({ kind: 'reversal', body: { reason: text! } }, id, line.id);
  };
  const skip = (): void => {
    if (proposal) setSkipped((kept) => new Set([...kept, proposal.key]));
  };
  const onKey = (event: KeyboardEvent): void => {
    const acts: Readonly<Record<string, () => void>> = {
      y: () => answer('-~-'),
      n: () => answer(diode ? '-OL-' : '-/-'),
      ...(diode ? { o: () => answer('-OL-') } : {}),
      s: skip,
      u: undo,
    };
    const act = text === '' && !event.ctrlKey && !event.metaKey ? acts[event.key.toLowerCase()] : undefined;
    if (act) {
      event.preventDefault();
      act();
    } else if (event.key === 'Enter' && text.trim() !== '') {
      event.preventDefault();
      const read = parseQuantity(text);
      const figure = read.ok && read.value.value >= 0 ? read.value : null;
      if (diode) {
        if (figure && (figure.unit ?? 'V') === 'V' && figure.value <= MOST_VOLTS) answer(`-${figure.value}V-`);
        else setTrouble('Volts as the diode test shows them, like 0.55; o for OL.');
      } else if (!figure) setTrouble('Ohms like 0.2, 22 or 4k7.');
      else answer(`-${text.trim().replace(/\s+|Ω/gu, '')}-`);
    }
  };
  return (
    <div className="flex flex-col gap-3">
      {proposal && !standing.hazard.meterSafe && !goesOnWithoutProof(lines, now) && (
        <Notice kind="caution">
          Not proved empty. {standing.hazard.reason} Volts on a capacitor kill a meter in continuity and diode test.
        </Notice>
      )}
      {proposal ? (
        <section aria-label="Next check" aria-live="polite" className="border border-line bg-raised p-4">
          <Places proposal={proposal} />
          <div className="mt-4 flex flex-wrap items-center gap-2">
            <input
              ref={field}
              aria-label={diode ? 'Volts by diode test' : 'Yes, no or ohms'}
              value={text}
              onChange={(e) => setText(e.target.value)}
              onKeyDown={onKey}
              placeholder={diode ? 'volts, o for OL' : 'y  n  or ohms'}
              className="figure w-64 rounded-sm border-2 border-slate bg-ground px-2 py-1 text-2xl placeholder:text-faint"
            />
            <Button onClick={() => answer('-~-')}>
              Beeps <kbd className="figure text-faint">y</kbd>
            </Button>
            {diode ? (
              <Button onClick={() => answer('-OL-')}>
                OL <kbd className="figure text-faint">o</kbd>
              </Button>
            ) : (
              <Button onClick={() => answer('-/-')}>
                Silent <kbd className="figure text-faint">n</kbd>
              </Button>
            )}
            <Button onClick={skip}>
              Cannot reach <kbd className="figure text-faint">s</kbd>
            </Button>
            <Button onClick={undo}>
              Undo <kbd className="figure text-faint">u</kbd>
            </Button>
          </div>
          {trouble !== '' && <p className="mt-2 text-oxide">{trouble}</p>}
        </section>
      ) : (
        <p className="border border-line bg-raised p-4">{leftWords(progress)}</p>
      )}
      <p className="text-sm text-faint">
        <span className="figure text-ink">{progress.done}</span> of{' '}
        <span className="figure text-ink">{progress.of}</span> pins followed,{' '}
        <span className="figure text-ink">{trace.touches}</span> touches so far
      </p>
      <Disagreements />
    </div>
  );
}

/** Why nothing is asked. */
function leftWords({ done, of }: { done: number; of: number }): string {
  if (of === 0) return 'Type the parts you see first, with ? for pins not followed yet; the checks come from them.';
  if (done === of) return 'Every pin is followed. New parts typed with ? bring new checks.';
  return `No check is left, and ${of - done} pins are joined to nothing. Where one should be, undo the check that parted it.`;
}

const LEADS = { red: { word: 'Red', sign: '◆', look: 'text-oxide' }, black: { word: 'Black', sign: '●', look: '' } };

/** Where the leads go: both for a beep; for the diode test the one that rests, and the one that moves. */
function Places({ proposal }: { proposal: TouchProposal }) {
  const { kind, places, spots, resting } = proposal;
  if (kind === 'beep')
    return (
      <>
        <p className="text-sm text-faint">Continuity: touch both, does it beep?</p>
        <div className="mt-1 grid grid-cols-[1fr_auto_1fr] items-center gap-4">
          <Place place={places[0]} spot={spots[0]} />
          <MoveHorizontal aria-hidden className="size-7 text-faint" />
          <Place place={places[1]} spot={spots[1]} />
        </div>
      </>
    );
  const [rests, moves] = resting === 'red' ? [LEADS.red, LEADS.black] : [LEADS.black, LEADS.red];
  return (
    <>
      <p className="text-sm text-faint">
        Diode test, one lead clipped; let the figure stand. What reads differently from there is another net.
      </p>
      <div className="mt-1 grid grid-cols-[1fr_auto_2fr] items-end gap-4">
        <div>
          <p className={`text-sm font-semibold ${rests.look}`}>
            <span aria-hidden>{rests.sign}</span> {rests.word} rests on
          </p>
          <p className="text-lg leading-tight">{places[0]}</p>
          <p className="figure text-sm text-faint">{spots[0]}</p>
        </div>
        <MoveRight aria-hidden className="mb-4 size-7 text-faint" />
        <div>
          <p className={`text-sm font-semibold ${moves.look}`}>
            <span aria-hidden>{moves.sign}</span> {moves.word} on
          </p>
          <Place place={places[1]} spot={spots[1]} />
        </div>
      </div>
    </>
  );
}

function Place({ place, spot }: { place: string; spot: string }) {
  return (
    <div>
      <p className="text-2xl leading-tight font-bold">{place}</p>
      <p className="figure text-sm text-faint">{spot}</p>
    </div>
  );
}
