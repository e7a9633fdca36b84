'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { PointerEvent as ReactPointerEvent } from 'react';
import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { operatingPoint } from '@/core/operate';
import { formatQuantity } from '@/core/quantity';
import type { RailVolts } from '@/core/work';
import { Drawing } from './Drawing';
import type { Selection } from './selection';
import { saveSvg } from './saveSvg';
import { useSchematicLayout } from './useSchematicLayout';
import type { SchematicLayout } from './elkLayout';

/** What is picked out: a part, a net, or the two nets under the leads. */
interface View {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

/** The schematic that draws itself: zoom with the wheel or the buttons, drag to move. Suspicion glows behind the parts. */
export function Schematic({
  board,
  selection,
  byPart,
  onPickPart,
  onPickNet,
  lit,
  onHoverPart,
  volts,
  height: given,
}: {
  board: Board;
  /** Volts to write at the nets; those of the operating point unless told. */
  volts?: readonly RailVolts[] | undefined;
  selection: Selection;
  byPart?: ReadonlyMap<string, number> | undefined;
  onPickPart(ref: string): void;
  onPickNet?: ((net: string) => void) | undefined;
  lit?: string | undefined;
  onHoverPart?: ((ref: string | undefined) => void) | undefined;
  height: number;
}) {
  const { drawn: laid, failed } = useSchematicLayout(board);
  const layout = laid?.layout ?? null;
  const { computed } = operatingPoint(board);
  const written = useMemo(
    () =>
      new Map(
        (volts ?? computed.map(({ red, nominal }) => ({ net: red, volts: nominal }))).map((r) => [
          netKey(r.net),
          formatQuantity(Math.abs(r.volts) < 0.005 ? 0 : r.volts, 'V'),
        ]),
      ),
    [volts, computed],
  );
  const [large, setLarge] = useState(false);
  const height = large ? 690 : given;
  const frame = useRef<HTMLDivElement>(null);
  const [view, setView] = useState<View | null>(null);
  const fitted = useMemo(() => (layout ? fit(layout, height) : null), [layout, height]);
  const shown = view ?? fitted;
  const drawn = useRef<SVGSVGElement>(null);
  const drag = useRef<{ x: number; y: number; view: View } | null>(null);

  useEffect(() => {
    const target = frame.current;
    if (!target) return;
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault();
      const box = target.getBoundingClientRect();
      const [px, py] = [event.clientX - box.left, event.clientY - box.top];
      setView((kept) => zoomAt(kept ?? fitted, event.deltaY < 0 ? 1.15 : 1 / 1.15, px, py));
    };
    target.addEventListener('wheel', onWheel, { passive: false });
    return () => target.removeEventListener('wheel', onWheel);
  }, [fitted]);

  // What is picked elsewhere comes into sight here.
  const focus =
    selection.part ??
    board.parts.find((p) => selection.nets?.every((n) => p.nets.some((m) => netKey(m) === netKey(n))))?.ref;
  const centred = useMemo(
    () => (layout && focus !== undefined ? centre(layout, focus, height, frame.current?.clientWidth ?? 800) : null),
    [layout, focus, height],
  );
  const [lastFocus, setLastFocus] = useState<string | undefined>(undefined);
  if (focus !== lastFocus && layout) {
    setLastFocus(focus);
    setView(centred);
  }

  if (failed) return <p className="p-3 text-faint">The schematic could not be laid out. The tables hold everything.</p>;
  if (!laid || !layout || !shown) return <p className="p-3 text-faint">Drawing the schematic …</p>;
  const onDown = (event: ReactPointerEvent): void => {
    drag.current = { x: event.clientX, y: event.clientY, view: shown };
  };
  const onMove = (event: ReactPointerEvent): void => {
    const from = drag.current;
    if (from && event.buttons === 1)
      setView({ ...from.view, x: from.view.x + event.clientX - from.x, y: from.view.y + event.clientY - from.y });
  };
  return (
    <div
      ref={frame}
      className={
        large
          ? 'fixed inset-x-4 top-20 z-30 overflow-hidden border-2 border-line bg-ground'
          : 'relative overflow-hidden border border-line bg-ground'
      }
      style={{ height }}
      onKeyDown={(e) => {
        if (e.key === 'Escape') setLarge(false);
      }}
    >
      <svg
        ref={drawn}
        width="100%"
        height={height}
        role="img"
        aria-label={`Schematic of ${board.title}`}
        onPointerDown={onDown}
        onPointerMove={onMove}
      >
        <g transform={`translate(${shown.x} ${shown.y}) scale(${shown.scale})`}>
          <Drawing
            layout={layout}
            board={laid.board}
            selection={selection}
            byPart={byPart}
            islands={laid.islands}
            onPickPart={onPickPart}
            onPickNet={onPickNet}
            volts={written}
            lit={lit}
            onHoverPart={onHoverPart}
          />
        </g>
      </svg>
      <div className="absolute right-2 bottom-2 flex gap-1">
        {[
          ['−', 'Smaller', () => setView(zoomAt(shown, 1 / 1.4, 400, height / 2))],
          ['+', 'Larger', () => setView(zoomAt(shown, 1.4, 400, height / 2))],
          ['all', 'Show all', () => setView(fit(layout, height, 0, frame.current?.clientWidth ?? 800))],
          [
            large ? 'close' : 'large',
            large ? 'Back to the page' : 'Over the whole window',
            () => (setLarge(!large), setView(null)),
          ],
          ['SVG', 'Save the drawing as SVG', () => saveSvg(drawn.current, layout, board.title)],
        ].map(([sign, label, act]) => (
          <button
            key={String(label)}
            type="button"
            aria-label={String(label)}
            onClick={act as () => void}
            className="min-w-7 rounded-sm border border-line bg-raised px-1.5"
          >
            {String(sign)}
          </button>
        ))}
      </div>
    </div>
  );
}

/** Smallest scale at which designators can still be read. */
const READABLE = 0.88;

function fit(layout: SchematicLayout, height: number, least = READABLE, width = 790): View {
  const scale = Math.min(1, (height - 16) / Math.max(1, layout.height), (width - 16) / Math.max(1, layout.width));
  if (scale >= least) return { x: 8, y: 8 - layout.top * scale, scale };
  // Too large to be read whole: it begins where the power comes in.
  const inlet = layout.rooms.find((r) => layout.graph.rooms.find((g) => g.id === r.id)?.row === 'input');
  return { x: 8, y: 8 - (inlet?.y ?? 0) * least, scale: least };
}

function zoomAt(view: View | null, factor: number, px: number, py: number): View | null {
  if (!view) return view;
  const scale = Math.min(3, Math.max(0.1, view.scale * factor));
  const k = scale / view.scale;
  return { scale, x: px - (px - view.x) * k, y: py - (py - view.y) * k };
}

function centre(layout: SchematicLayout, ref: string, height: number, width: number): View | null {
  const at = layout.at.get(ref);
  return at ? { scale: 1, x: width / 2 - at.x - 30, y: height / 2 - at.y - 15 } : null;
}
