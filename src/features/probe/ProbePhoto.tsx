'use client';
import { useJob } from '@/features/job/JobContext';
import { usePhotos } from '@/features/board/usePhotos';
import { BlackTip, RedTip } from '@/features/schematic/Leads';
import { SHAPE, around, leadPads } from './leadPads';

/** The photograph with the pads of both leads, where those are pinned: what the eye looks for on the board. */
export function ProbePhoto({ red, black, height }: { red: string; black: string; height: number }) {
  const { job, active } = useJob();
  const { photos, marks } = usePhotos();
  const pads = leadPads(active.board, marks, red, black);
  const photo = pads && photos?.find((p) => p.side === pads.side);
  if (!pads || !photo) return null;
  const sight = around(pads.red, pads.black, photo);
  const large = sight.width / (height * SHAPE);
  const tip = (at: { readonly x: number; readonly y: number }) => `translate(${at.x} ${at.y}) scale(${1.25 * large})`;
  return (
    <figure style={{ width: height * SHAPE }} className="max-w-full shrink-0 border border-line">
      <svg
        role="img"
        aria-label={`Photograph of the ${pads.side}: red on ${pads.redWords}, black on ${pads.blackWords}`}
        viewBox={`${sight.x} ${sight.y} ${sight.width} ${sight.height}`}
        className="block h-auto w-full"
      >
        <image href={`/api/jobs/${job.tag}/photos/${photo.id}`} width={photo.width} height={photo.height} />
        {[
          { at: pads.red, sign: <RedTip at={NOUGHT} /> },
          { at: pads.black, sign: <BlackTip at={NOUGHT} colour="#000" /> },
        ].map(({ at, sign }, i) => (
          <g key={i} transform={tip(at)}>
            <circle r={10} fill="#fff" fillOpacity={0.72} />
            <g strokeWidth={2.4}>{sign}</g>
          </g>
        ))}
      </svg>
      <figcaption className="px-2 py-0.5 text-sm text-faint">
        {pads.side}: red <span className="figure">{pads.redWords}</span>, black{' '}
        <span className="figure">{pads.blackWords}</span>
      </figcaption>
    </figure>
  );
}

const NOUGHT = { x: 0, y: 0 };
