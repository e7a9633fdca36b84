'use client';
import { withMark } from '@/core/quantity';
import { findPart, netKey } from '@/core/circuit';
import { fitHomography } from '@/core/registration';
import type { Point, Registration } from '@/core/registration';
import { useJob } from '@/features/job/JobContext';
import type { Selection } from '@/features/schematic/selection';
import { Button } from '@/ui/Button';
import type { PhotoMarks, Side, StoredPhoto } from '@/wire/photoMarks';

/** The back seen through the board: four corners of its picture mapped, as a grid of small flat pieces. */
export function Overlay({
  photo,
  base,
  marks,
  opacity,
}: {
  photo: StoredPhoto;
  base: StoredPhoto;
  marks: PhotoMarks;
  opacity: number;
}) {
  const { tag } = useJob().job;
  const map = fitHomography(marks.pairs.map((p) => ({ from: p.back, to: p.front })));
  if (!map) return null;
  const [a, b, c, d, e, f, g, h, i] = map as [number, number, number, number, number, number, number, number, number];
  return (
    <foreignObject
      x={0}
      y={0}
      width={base.width}
      height={base.height}
      style={{ opacity, overflow: 'hidden', pointerEvents: 'none' }}
    >
      <img
        src={`/api/jobs/${tag}/photos/${photo.id}`}
        alt=""
        width={photo.width}
        height={photo.height}
        style={{
          maxWidth: 'none',
          transformOrigin: '0 0',
          transform: `matrix3d(${a},${d},0,${g},${b},${e},0,${h},0,0,1,0,${c},${f},0,${i})`,
        }}
      />
    </foreignObject>
  );
}

export function Spot({ at, words, wide, odd }: { at: Point; words: string; wide: number; odd: boolean }) {
  const r = wide / 90;
  return (
    <g>
      <circle
        cx={at.x}
        cy={at.y}
        r={r}
        fill="none"
        stroke={odd ? 'var(--oxide)' : 'var(--brass)'}
        strokeWidth={r / 3}
        strokeDasharray={odd ? `${r} ${r / 2}` : undefined}
      />
      <text
        x={at.x + r * 1.4}
        y={at.y + r * 0.6}
        fontSize={r * 1.9}
        fill="#fff"
        stroke="#000"
        strokeWidth={r / 4}
        paintOrder="stroke"
      >
        {words}
      </text>
    </g>
  );
}

/** Pinned parts and pads; what is picked is lit, pads of its nets too. */
export function Pins({
  marks,
  selection,
  toFront,
  wide,
  joining,
  onHover,
}: {
  marks: PhotoMarks;
  selection: Selection;
  toFront(side: Side, at: Point): Point | null;
  wide: number;
  joining: string | null;
  onHover(ref: string | undefined): void;
}) {
  const { active } = useJob();
  const r = wide / 110;
  const nets = litNets(active.board, selection);
  return (
    <>
      {marks.pinned.map((p) => {
        const at = toFront(p.side, p.at);
        if (!at) return null;
        const part = findPart(active.board, p.ref);
        const net = p.pin === null ? undefined : part?.nets[p.pin];
        const lit = selection.part === p.ref || (net !== undefined && nets.has(netKey(net)));
        const words = p.pin === null ? p.ref : `${p.ref}.${p.pin + 1}`;
        return (
          <g key={`${words} ${p.side}`} onPointerEnter={() => onHover(p.ref)} onPointerLeave={() => onHover(undefined)}>
            {p.pin === null ? (
              <rect
                x={at.x - r}
                y={at.y - r}
                width={2 * r}
                height={2 * r}
                fill={lit ? 'var(--brass)' : 'none'}
                fillOpacity={0.5}
                stroke={lit ? 'var(--brass)' : '#fff'}
                strokeWidth={lit ? r / 2 : r / 4}
              />
            ) : (
              <circle
                cx={at.x}
                cy={at.y}
                r={lit ? r : r * 0.7}
                fill={joining === words ? 'var(--slate)' : lit ? 'var(--brass)' : 'none'}
                stroke={lit ? 'var(--brass)' : '#fff'}
                strokeWidth={r / 3}
                strokeDasharray={p.side === 'back' ? `${r * 0.8} ${r * 0.4}` : undefined}
              />
            )}
            {(p.pin === null || lit || joining === words) && (
              <text
                x={at.x + r * 1.3}
                y={at.y - r * 0.6}
                fontSize={r * 1.7}
                fill={lit ? 'var(--brass)' : '#fff'}
                stroke="#000"
                strokeWidth={r / 4}
                paintOrder="stroke"
              >
                {words}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}

function litNets(board: Parameters<typeof findPart>[0], selection: Selection): ReadonlySet<string> {
  const part = selection.part === undefined ? undefined : findPart(board, selection.part);
  return new Set([...(selection.nets ?? []), ...(part?.nets ?? [])].map(netKey));
}

/** The pinned place nearest to a point, if one is near. */
export function nearest(marks: PhotoMarks, toFront: (side: Side, at: Point) => Point | null, at: Point, wide: number) {
  const near = marks.pinned
    .flatMap((p) => {
      const there = toFront(p.side, p.at);
      return there ? [{ p, away: Math.hypot(there.x - at.x, there.y - at.y) }] : [];
    })
    .sort((a, b) => a.away - b.away)[0];
  return near && near.away < wide / 25 ? near.p : null;
}

/** The point pairs with how far off each is; the one that does not fit is named. */
export function Pairs({
  marks,
  registration,
  onDrop,
  onSwap,
}: {
  marks: PhotoMarks;
  registration: Registration | null;
  onDrop(index: number): void;
  onSwap(first: number, second: number): void;
}) {
  return (
    <section aria-label="Point pairs" className="text-sm">
      {registration ? (
        <p>
          The back lies on the front within{' '}
          <strong className="figure">{withMark(registration.rms.toFixed(1))} px</strong>.
          {registration.swapped && (
            <span className="text-oxide">
              {' '}
              Pairs {registration.swapped[0] + 1} and {registration.swapped[1] + 1} look exchanged.{' '}
              <Button onClick={() => onSwap(...registration.swapped!)}>Exchange them back</Button>
            </span>
          )}
          {registration.outlier !== null && !registration.swapped && (
            <span className="text-oxide">
              {' '}
              Pair {registration.outlier + 1} does not fit the others: take it out and mark it again.
            </span>
          )}
        </p>
      ) : (
        <p className="text-faint">
          {marks.pairs.length < 4
            ? 'Four pairs are needed, well apart.'
            : 'These points lie on one line: mark some to the side.'}
        </p>
      )}
      <ul className="mt-1 flex flex-wrap gap-2">
        {marks.pairs.map((_, i) => (
          <li key={i} className={`border px-2 py-0.5 ${registration?.outlier === i ? 'border-oxide' : 'border-line'}`}>
            {i + 1}
            {registration && (
              <span className="figure text-faint"> {withMark(registration.residuals[i]!.toFixed(1))} px</span>
            )}{' '}
            <Button kind="quiet" aria-label={`Take pair ${i + 1} out`} onClick={() => onDrop(i)}>
              out
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Which pads of the picked net lie on which side. */
export function NetPads({ selection, marks }: { selection: Selection; marks: PhotoMarks }) {
  const { active } = useJob();
  const nets = litNets(active.board, selection);
  if (nets.size === 0) return null;
  const pads = marks.pinned.filter(
    (p) => p.pin !== null && nets.has(netKey(findPart(active.board, p.ref)?.nets[p.pin] ?? '')),
  );
  if (pads.length === 0) return null;
  const on = (side: Side): string =>
    pads
      .filter((p) => p.side === side)
      .map((p) => `${p.ref}.${p.pin! + 1}`)
      .join(' ') || 'none';
  return (
    <p className="text-sm text-faint">
      Pads of what is picked: front <span className="figure">{on('front')}</span>, back{' '}
      <span className="figure">{on('back')}</span>
    </p>
  );
}
