'use client';
import { select } from 'd3-selection';
import { zoom, zoomIdentity } from 'd3-zoom';
import type { D3ZoomEvent, ZoomBehavior } from 'd3-zoom';
import { Maximize, Minus, Plus } from 'lucide-react';
import { Toolbar } from 'radix-ui';
import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import type { KeyboardEvent, ReactNode, RefObject } from 'react';
import { useWidth } from './useWidth';

/** What there is to look at, in its own units. */
export interface PaneContent {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** How it is looked at: pixels to the right and down, then how large. */
export interface Sight {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

/** A place in the content, in its own units. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}

const LARGER = 1.4;
const LARGEST = 8;
/** Pixels that an arrow key moves. */
const STEP = 60;

/** The whole of something in a pane of so many pixels. */
export function wholeOf(content: PaneContent, width: number, height: number): Sight {
  const scale = Math.min(width / Math.max(1, content.width), height / Math.max(1, content.height));
  return {
    scale,
    x: (width - content.width * scale) / 2 - content.x * scale,
    y: (height - content.height * scale) / 2 - content.y * scale,
  };
}

/** Where each remembered pane was left, as long as the page is open. */
const LEFT_AT = new Map<string, Sight>();

/**
 * A drawing or picture to move about in: dragged, pinched, by the wheel with Ctrl (without, the page scrolls), by plus, minus,
 * arrows and `0` for the whole. What is brought into sight (`goTo`) is, whenever its key changes.
 */
export function ZoomPane({
  label,
  role = 'img',
  content,
  height,
  begin,
  goTo = null,
  remember,
  tools,
  drawn,
  onKey,
  onPoint,
  children,
}: {
  label: string;
  role?: 'img' | 'application';
  content: PaneContent;
  height: number;
  /** How it is looked at first in a pane of so many pixels; the whole of it unless told. */
  begin?: ((width: number, height: number) => Sight) | undefined;
  goTo?: (Spot & { readonly key: string; readonly size?: { readonly width: number; readonly height: number } }) | null;
  /** A name under which the pane finds its sight again. */
  remember?: string | undefined;
  /** Further tools, items of a Radix toolbar. */
  tools?: ReactNode;
  drawn?: RefObject<SVGSVGElement | null>;
  /** A key that is not the pane's; true: it was taken. zoom: how much larger than at first. */
  onKey?: ((event: KeyboardEvent, zoom: number) => boolean) | undefined;
  /** Clicked or touched without moving. */
  onPoint?: ((at: Spot) => void) | undefined;
  children: ReactNode | ((scale: number) => ReactNode);
}) {
  const [frame, width] = useWidth<HTMLDivElement>(790);
  const own = useRef<SVGSVGElement>(null);
  const svg = drawn ?? own;
  const [moved, setMoved] = useState<Sight | null>(() =>
    remember === undefined ? null : (LEFT_AT.get(remember) ?? null),
  );
  const { x, y, width: wide, height: high } = content;
  const first = useMemo(
    () => (begin ?? ((w: number, h: number) => wholeOf({ x, y, width: wide, height: high }, w, h)))(width, height),
    [begin, x, y, wide, high, width, height],
  );
  const shown = moved ?? first;
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null);
  const move = (sight: Sight): void => {
    setMoved(sight);
    if (remember !== undefined) LEFT_AT.set(remember, sight);
  };
  const took = useEffectEvent(move);
  const [least, most] = [Math.min(first.scale, 0.25), LARGEST * Math.max(1, first.scale)];
  useEffect(() => {
    const target = svg.current;
    if (!target) return;
    const made = zoom<SVGSVGElement, unknown>()
      // A wheel alone scrolls the page; pinching a touchpad comes as one with Ctrl.
      .filter((event: MouseEvent) => (event.type === 'wheel' ? event.ctrlKey || event.metaKey : event.button === 0))
      .on('zoom', ({ transform, sourceEvent }: D3ZoomEvent<SVGSVGElement, unknown>) => {
        if (sourceEvent) took({ x: transform.x, y: transform.y, scale: transform.k });
      });
    behaviour.current = made;
    const chosen = select(target);
    chosen.call(made).on('dblclick.zoom', null);
    return () => void chosen.on('.zoom', null);
  }, [svg]);
  // The mechanism is told what is shown, however that came about.
  useEffect(() => {
    const target = svg.current;
    if (!target || !behaviour.current) return;
    behaviour.current.scaleExtent([least, most]);
    select(target).call(behaviour.current.transform, zoomIdentity.translate(shown.x, shown.y).scale(shown.scale));
  }, [svg, shown.x, shown.y, shown.scale, least, most]);

  const [followed, setFollowed] = useState<string | undefined>(undefined);
  if (goTo && goTo.key !== followed) {
    setFollowed(goTo.key);
    // No larger than it is drawn, and small enough for all of it.
    const { size } = goTo;
    const scale = size ? Math.min(1, width / size.width, height / size.height) : shown.scale;
    setMoved({ scale, x: width / 2 - goTo.x * scale, y: height / 2 - goTo.y * scale });
  }

  const zoomBy = (factor: number): void => {
    const [px, py] = [width / 2, height / 2];
    const scale = Math.min(most, Math.max(least, shown.scale * factor));
    const k = scale / shown.scale;
    move({ scale, x: px - (px - shown.x) * k, y: py - (py - shown.y) * k });
  };
  const whole = (): void => move(wholeOf(content, width, height));
  const keyed = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const by = (dx: number, dy: number) => (): void => move({ ...shown, x: shown.x + dx, y: shown.y + dy });
    const acts: Readonly<Record<string, () => void>> = {
      '+': () => zoomBy(LARGER),
      '-': () => zoomBy(1 / LARGER),
      '0': whole,
      ArrowLeft: by(STEP, 0),
      ArrowRight: by(-STEP, 0),
      ArrowUp: by(0, STEP),
      ArrowDown: by(0, -STEP),
    };
    const taken = onKey?.(event, shown.scale / first.scale) ?? false;
    if (!taken) acts[event.key]?.();
    if (!taken && !acts[event.key]) return;
    event.preventDefault();
    event.stopPropagation();
  };
  const sign = 'size-4.5';
  return (
    <div ref={frame} className="relative overflow-hidden border border-line bg-ground" style={{ height }}>
      <svg
        ref={svg}
        width="100%"
        height={height}
        role={role}
        aria-label={label}
        tabIndex={0}
        className="block touch-none focus-visible:-outline-offset-3!"
        onKeyDown={keyed}
        onClick={(event) => {
          if (!onPoint) return;
          const box = event.currentTarget.getBoundingClientRect();
          onPoint({
            x: (event.clientX - box.left - shown.x) / shown.scale,
            y: (event.clientY - box.top - shown.y) / shown.scale,
          });
        }}
      >
        <g transform={`translate(${shown.x} ${shown.y}) scale(${shown.scale})`}>
          {typeof children === 'function' ? children(shown.scale) : children}
        </g>
      </svg>
      <Toolbar.Root aria-label={`Looking at it: ${label}`} className="no-print absolute right-2 bottom-2 flex gap-1">
        <PaneTool label="Smaller" onPress={() => zoomBy(1 / LARGER)}>
          <Minus aria-hidden className={sign} />
        </PaneTool>
        <PaneTool label="Larger" onPress={() => zoomBy(LARGER)}>
          <Plus aria-hidden className={sign} />
        </PaneTool>
        <PaneTool label="Show all" onPress={whole}>
          <Maximize aria-hidden className={sign} />
        </PaneTool>
        {tools}
      </Toolbar.Root>
    </div>
  );
}

/** A tool beside those of the pane. pressed: whether what it turns on and off is on. */
export function PaneTool({
  label,
  onPress,
  pressed,
  children,
}: {
  label: string;
  onPress(): void;
  pressed?: boolean;
  children: ReactNode;
}) {
  return (
    <Toolbar.Button
      aria-label={label}
      aria-pressed={pressed}
      onClick={onPress}
      className="grid size-7 place-items-center rounded-sm border border-line bg-raised text-sm aria-pressed:border-brass pointer-coarse:size-[44px]"
    >
      {children}
    </Toolbar.Button>
  );
}
