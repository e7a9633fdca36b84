'use client';
import { useMemo, useState } from 'react';
import { findPart, pinNames } from '@/core/circuit';
import { mapPoint, registerPhotographs } from '@/core/registration';
import type { Point } from '@/core/registration';
import { useJob } from '@/features/job/JobContext';
import type { Selection } from '@/features/schematic/selection';
import { SIDES } from '@/wire/photoMarks';
import type { PhotoMarks, Side, StoredPhoto } from '@/wire/photoMarks';
import { FileDrop } from '@/ui/FileDrop';
import { Segments } from '@/ui/Segments';
import { Slide } from '@/ui/Slide';
import { NetPads, Overlay, Pairs, Pins, Spot, nearest } from './photoParts';
import { PicturePane } from './PicturePane';
import { sideOf } from './sideOf';
import { usePhotos } from './usePhotos';

const HEIGHT = 360;
/** How far the back shines through at first, and at most while the front is looked for. */
const FADE = 0.35;
type Mode = 'look' | 'pair' | 'pin' | 'join';
const MODES: Readonly<Record<Mode, string>> = {
  look: 'Look',
  pair: 'Mark point pairs',
  pin: 'Pin parts',
  join: 'Join pads',
};

/** Front and back photographs laid onto each other; parts and pads pinned to their places, pads joined by pointing. */
export function PhotoPanel({
  selection,
  onPick,
  onHover,
}: {
  selection: Selection;
  onPick(selection: Selection): void;
  /** A part is pointed at on the picture: it is lit on the schematic. */
  onHover(ref: string | undefined): void;
}) {
  const { job, active, addLine } = useJob();
  const { photos, marks, sending, drop, mark } = usePhotos();
  const [mode, setMode] = useState<Mode>('look');
  const [fade, setFade] = useState(FADE);
  // What is picked turns the photograph over where it lies on one side alone.
  const [turned, setTurned] = useState<{ readonly by: Selection; readonly to: Side | null }>({
    by: selection,
    to: null,
  });
  if (photos !== null && turned.by !== selection) {
    const to = sideOf(active.board, marks, selection);
    setTurned({ by: selection, to: to ?? turned.to });
    if (to !== null) setFade(to === 'back' ? 1 : Math.min(fade, FADE));
  }
  const [half, setHalf] = useState<Point | null>(null);
  const [pinText, setPinText] = useState('');
  const [joining, setJoining] = useState<string | null>(null);
  const [said, setSaid] = useState('');
  const front = photos?.find((p) => p.side === 'front');
  const back = photos?.find((p) => p.side === 'back');
  const registration = useMemo(
    () => registerPhotographs(marks.pairs.map((p) => ({ from: p.back, to: p.front }))),
    [marks.pairs],
  );
  if (photos === null) return <p className="text-faint">Fetching the photographs …</p>;
  // Until both lie on each other, the side is shown that is looked for.
  const base = (registration === null && turned.to === 'back' ? back : front) ?? front ?? back;
  const overlay = front && back && registration ? back : undefined;
  const toFront = (side: Side, at: Point): Point | null =>
    side === base?.side ? at : registration ? mapPoint(registration.map, at) : null;

  const point = (at: Point): void => {
    if (mode === 'pin') pin(at);
    if (mode === 'join') join(at);
    if (mode === 'look') {
      const near = nearest(marks, toFront, at, base!.width);
      if (near) onPick({ part: near.ref });
    }
  };
  const pin = (at: Point): void => {
    const [ref = '', name] = pinText.trim().split('.');
    const part = findPart(active.board, ref);
    if (!part)
      return setSaid(
        pinText.trim() === ''
          ? 'Type what you point at first: R7, or R7.1 for one pad.'
          : `There is no part ${ref} on this board.`,
      );
    const index =
      name === undefined
        ? null
        : pinNames(part).findIndex((n, i) => n.toLowerCase() === name.toLowerCase() || String(i + 1) === name);
    if (index === -1) return setSaid(`${part.ref} has no pin ${name}.`);
    const what = pinText.trim();
    setSaid(`${what} on its way …`);
    const kept = mark({ kind: 'pin', pinned: { ref: part.ref, pin: index, side: base!.side, at } });
    void kept.then((ok) => setSaid(ok ? `${what} pinned` : ''));
  };
  const join = (at: Point): void => {
    const near = nearest({ ...marks, pinned: marks.pinned.filter((p) => p.pin !== null) }, toFront, at, base!.width);
    if (!near || near.pin === null) return setSaid('No pinned pad near there. Pin pads first (R7.1).');
    const spot = `${near.ref}.${near.pin + 1}`;
    if (joining === null || joining === spot) {
      setJoining(spot);
      return setSaid(`${spot}: now the pad it is joined to`);
    }
    void addLine({ kind: 'trace', body: { text: `${joining} -- ${spot}` } }, active.id);
    setSaid(`${joining} and ${spot} joined`);
    setJoining(null);
  };
  return (
    <div className="flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-3">
        <Segments
          label="What pointing does"
          value={mode}
          choices={MODES}
          disabled={!base ? (Object.keys(MODES) as Mode[]) : front && back ? [] : ['pair']}
          onChoose={(name) => {
            setMode(name);
            setSaid('');
          }}
        />
        {overlay && <Slide label="Fade from front to back" least="front" most="back" value={fade} onSlide={setFade} />}
        {mode === 'pin' && (
          <input
            aria-label="Part or pad to pin"
            value={pinText}
            onChange={(e) => setPinText(e.target.value)}
            placeholder="R7 or R7.1"
            className="figure w-32 rounded-sm border border-line bg-ground px-2 py-1"
          />
        )}
        <span className="grow" />
        {SIDES.map((side) => (
          <FileDrop
            key={side}
            label={`Photograph of the ${side}`}
            kinds="image/jpeg,image/png,image/webp"
            mostBytes={15_000_000}
            camera
            sending={sending?.side === side ? sending : null}
            onFile={(file) => void drop(side, file)}
          >
            {photos.some((p) => p.side === side) ? 'another' : 'add'} {side}
          </FileDrop>
        ))}
      </div>
      <p role="status" className="min-h-5 text-sm">
        {said || hint(mode, front, back, marks, half)}
      </p>
      {mode === 'pair' && front && back ? (
        <div className="grid grid-cols-2 gap-2">
          <PicturePane label="Front" width={front.width} height={front.height} shownHeight={HEIGHT} onPoint={setHalf}>
            <image href={`/api/jobs/${job.tag}/photos/${front.id}`} width={front.width} height={front.height} />
            {marks.pairs.map((p, i) => (
              <Spot key={i} at={p.front} words={String(i + 1)} wide={front.width} odd={registration?.outlier === i} />
            ))}
            {half && <Spot at={half} words={String(marks.pairs.length + 1)} wide={front.width} odd={false} />}
          </PicturePane>
          <PicturePane
            label="Back"
            width={back.width}
            height={back.height}
            shownHeight={HEIGHT}
            onPoint={(at) => {
              if (half === null) return setSaid('Mark the point on the front first.');
              setSaid('');
              setHalf(null);
              void mark({ kind: 'pair', front: half, back: at });
            }}
          >
            <image href={`/api/jobs/${job.tag}/photos/${back.id}`} width={back.width} height={back.height} />
            {marks.pairs.map((p, i) => (
              <Spot key={i} at={p.back} words={String(i + 1)} wide={back.width} odd={registration?.outlier === i} />
            ))}
          </PicturePane>
        </div>
      ) : (
        base && (
          <PicturePane label="Photographs" width={base.width} height={base.height} shownHeight={HEIGHT} onPoint={point}>
            <image href={`/api/jobs/${job.tag}/photos/${base.id}`} width={base.width} height={base.height} />
            {overlay && registration && <Overlay photo={overlay} base={base} marks={marks} opacity={fade} />}
            <Pins
              marks={marks}
              selection={selection}
              toFront={toFront}
              wide={base.width}
              joining={joining}
              onHover={onHover}
            />
          </PicturePane>
        )
      )}
      {mode === 'pair' && (
        <Pairs
          marks={marks}
          registration={registration}
          onDrop={(index) => void mark({ kind: 'drop-pair', index })}
          onSwap={(first, second) => void mark({ kind: 'swap-pairs', first, second })}
        />
      )}
      <NetPads selection={selection} marks={marks} />
    </div>
  );
}

function hint(
  mode: Mode,
  front: StoredPhoto | undefined,
  back: StoredPhoto | undefined,
  marks: PhotoMarks,
  half: Point | null,
): string {
  if (!front && !back)
    return 'Take a photograph of each side, straight from above, and drop them here. Everything about them stays on this computer.';
  if (mode === 'pair')
    return half
      ? 'Now the same point on the back.'
      : `Mark a hole that shows on both sides, on the front first. ${Math.max(0, 4 - marks.pairs.length)} more at least.`;
  if (mode === 'pin') return 'Type a part or a pad, then point at it.';
  if (mode === 'join') return 'Point at two pads that the same copper joins.';
  return front && back && marks.pairs.length < 4
    ? 'Mark four point pairs to lay the back onto the front.'
    : 'Point at a pinned part to pick it.';
}
