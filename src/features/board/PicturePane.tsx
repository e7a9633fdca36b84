'use client';
import { useRef, useState } from 'react';
import type { KeyboardEvent, MouseEvent, ReactNode, WheelEvent } from 'react';
import type { Point } from '@/core/registration';

/** Pixels of the picture that an arrow key moves the cross; with Shift one. */
const STEP = 12;

/**
 * A picture to point at: click, or move the cross with the arrow keys and press Enter. Plus and minus or the wheel
 * zoom about the cross, dragging with the right button is not needed: the cross stays in sight.
 */
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
  const svg = useRef<SVGSVGElement>(null);
  const [cross, setCross] = useState<Point>({ x: width / 2, y: height / 2 });
  const [zoom, setZoom] = useState(1);
  const [w, h] = [width / zoom, height / zoom];
  const left = Math.min(Math.max(0, cross.x - w / 2), width - w);
  const top = Math.min(Math.max(0, cross.y - h / 2), height - h);
  const [corner, setCorner] = useState<Point | null>(null);
  const box = zoom === 1 ? { x: 0, y: 0 } : (corner ?? { x: left, y: top });
  const move = (dx: number, dy: number): void => {
    const next = { x: Math.min(width, Math.max(0, cross.x + dx)), y: Math.min(height, Math.max(0, cross.y + dy)) };
    setCross(next);
    setCorner({
      x: Math.min(Math.max(0, next.x - w / 2), width - w),
      y: Math.min(Math.max(0, next.y - h / 2), height - h),
    });
  };
  const zoomTo = (next: number, about: Point): void => {
    const z = Math.min(8, Math.max(1, next));
    setZoom(z);
    setCorner({
      x: Math.min(Math.max(0, about.x - width / z / 2), width - width / z),
      y: Math.min(Math.max(0, about.y - height / z / 2), height - height / z),
    });
  };
  const onKey = (event: KeyboardEvent): void => {
    const step = event.shiftKey ? 1 : STEP / zoom;
    const moves: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const way = moves[event.key];
    if (way) move(...way);
    else if (event.key === 'Enter') onPoint(cross);
    else if (event.key === '+') zoomTo(zoom * 1.5, cross);
    else if (event.key === '-') zoomTo(zoom / 1.5, cross);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const pointOf = (event: MouseEvent | WheelEvent): Point => {
    const matrix = svg.current!.getScreenCTM()!.inverse();
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { x: Math.min(width, Math.max(0, at.x)), y: Math.min(height, Math.max(0, at.y)) };
  };
  return (
    <svg
      ref={svg}
      role="application"
      aria-label={`${label}: arrow keys move the cross, Enter marks, plus and minus zoom`}
      tabIndex={0}
      viewBox={`${box.x} ${box.y} ${w} ${h}`}
      style={{ height: shownHeight }}
      className="w-full border border-line bg-ground focus-visible:border-slate"
      onKeyDown={onKey}
      onClick={(e) => {
        const at = pointOf(e);
        setCross(at);
        onPoint(at);
      }}
      onWheel={(e) => zoomTo(zoom * (e.deltaY < 0 ? 1.25 : 0.8), pointOf(e))}
    >
      {children}
      <path
        d={`M${cross.x - 18 / zoom} ${cross.y}h${36 / zoom}M${cross.x} ${cross.y - 18 / zoom}v${36 / zoom}`}
        stroke="var(--slate)"
        strokeWidth={2.5 / zoom}
        pointerEvents="none"
      />
    </svg>
  );
}
