'use client';
import { useState } from 'react';
import type { KeyboardEvent, ReactNode } from 'react';
import type { Point } from '@/core/registration';
import { ZoomPane } from '@/ui/ZoomPane';

/** Pixels of the picture that an arrow key moves the cross; with Shift one. */
const STEP = 12;

/** A picture to point at: click or touch, or move the cross with the arrow keys and press Enter; the cross stays in sight. */
export function PicturePane({
  label,
  width,
  height,
  shownHeight,
  children,
  onPoint,
}: {
  label: string;
  /** Of the picture, in its own pixels. */
  width: number;
  height: number;
  shownHeight: number;
  /** SVG in the picture's own pixels. */
  children: ReactNode;
  onPoint(at: Point): void;
}) {
  const [cross, setCross] = useState<Point>({ x: width / 2, y: height / 2 });
  const [followed, setFollowed] = useState<Point | null>(null);
  const inside = ({ x, y }: Point): Point => ({
    x: Math.min(width, Math.max(0, x)),
    y: Math.min(height, Math.max(0, y)),
  });
  const keyed = (event: KeyboardEvent, zoom: number): boolean => {
    const large = zoom > 1.5;
    const step = event.shiftKey ? 1 : large ? STEP / zoom : STEP;
    const moves: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const way = moves[event.key];
    if (way) {
      const next = inside({ x: cross.x + way[0], y: cross.y + way[1] });
      setCross(next);
      if (large) setFollowed(next);
    } else if (event.key === 'Enter') onPoint(cross);
    else return false;
    return true;
  };
  return (
    <ZoomPane
      label={`${label}: arrow keys move the cross, Enter marks, plus and minus zoom, 0 shows all`}
      role="application"
      content={{ x: 0, y: 0, width, height }}
      height={shownHeight}
      goTo={followed && { ...followed, key: `${followed.x} ${followed.y}` }}
      onKey={keyed}
      onPoint={(at) => {
        const place = inside(at);
        setCross(place);
        onPoint(place);
      }}
    >
      {(scale) => (
        <>
          {children}
          <path
            d={`M${cross.x - 18 / scale} ${cross.y}h${36 / scale}M${cross.x} ${cross.y - 18 / scale}v${36 / scale}`}
            stroke="var(--slate)"
            strokeWidth={2.5 / scale}
            pointerEvents="none"
          />
        </>
      )}
    </ZoomPane>
  );
}
