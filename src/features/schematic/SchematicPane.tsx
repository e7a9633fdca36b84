'use client';
import { Download, Expand, Shrink } from 'lucide-react';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { ComponentProps, ReactNode } from 'react';
import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { operatingPoint } from '@/core/operate';
import { formatQuantity } from '@/core/quantity';
import type { RailVolts } from '@/core/work';
import { Modal } from '@/ui/Modal';
import { PaneTool, ZoomPane } from '@/ui/ZoomPane';
import type { Sight } from '@/ui/ZoomPane';
import { Drawing } from './Drawing';
import { inSight } from './inSight';
import type { Selection } from './selection';
import { saveSvg } from './saveSvg';
import { useSchematicLayout } from './useSchematicLayout';
import type { SchematicLayout } from './elkLayout';

/** The schematic that draws itself, to move about in. Suspicion glows behind the parts; enlarged it has the window to itself. */
export function SchematicPane({
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
  const begin = useCallback((width: number, high: number) => (layout ? fit(layout, width, high) : WHOLE), [layout]);
  // What is picked elsewhere comes into sight here.
  const goTo = useMemo(
    () => (laid && layout ? inSight(laid.board, layout, selection) : null),
    [laid, layout, selection],
  );
  if (failed) return <p className="p-3 text-faint">The schematic could not be laid out. The tables hold everything.</p>;
  if (!laid || !layout) return <p className="p-3 text-faint">Drawing the schematic …</p>;
  const shared = {
    board: laid.board,
    selection,
    byPart,
    islands: laid.islands,
    onPickPart,
    onPickNet,
    volts: written,
    lit,
    onHoverPart,
    layout,
    title: board.title,
    begin,
    goTo,
  };
  return (
    <>
      <Pane {...shared} height={given}>
        <PaneTool label="Over the whole window" onPress={() => setLarge(true)}>
          <Expand aria-hidden className="size-4.5" />
        </PaneTool>
      </Pane>
      <Modal open={large} onOpenChange={setLarge} title="The drawing over the whole window" look="inset-3 bg-ground">
        {large && (
          <Pane {...shared} height={window.innerHeight - 26}>
            <PaneTool label="Back to the page" onPress={() => setLarge(false)}>
              <Shrink aria-hidden className="size-4.5" />
            </PaneTool>
          </Pane>
        )}
      </Modal>
    </>
  );
}

/** One pane with the drawing in it; children: tools of its own. */
function Pane({
  layout,
  title,
  begin,
  goTo,
  height,
  children,
  ...drawing
}: ComponentProps<typeof Drawing> & {
  readonly title: string;
  readonly begin: NonNullable<ComponentProps<typeof ZoomPane>['begin']>;
  readonly goTo: Exclude<ComponentProps<typeof ZoomPane>['goTo'], undefined>;
  readonly height: number;
  readonly children: ReactNode;
}) {
  const svg = useRef<SVGSVGElement>(null);
  return (
    <ZoomPane
      label={`Schematic of ${title}`}
      content={{ x: 0, y: layout.top, width: layout.width, height: layout.height }}
      height={height}
      begin={begin}
      goTo={goTo}
      drawn={svg}
      tools={
        <>
          {children}
          <PaneTool label="Save the drawing as SVG" onPress={() => saveSvg(svg.current, layout, title)}>
            <Download aria-hidden className="size-4.5" />
          </PaneTool>
        </>
      }
    >
      <Drawing layout={layout} {...drawing} />
    </ZoomPane>
  );
}

const WHOLE: Sight = { x: 0, y: 0, scale: 1 };

/** Smallest scale at which designators can still be read. */
const READABLE = 0.88;

function fit(layout: SchematicLayout, width: number, height: number): Sight {
  const scale = Math.min(1, (height - 16) / Math.max(1, layout.height), (width - 16) / Math.max(1, layout.width));
  if (scale >= READABLE) return { x: 8, y: 8 - layout.top * scale, scale };
  // Too large to be read whole: it begins where the power comes in.
  const inlet = layout.rooms.find((r) => layout.graph.rooms.find((g) => g.id === r.id)?.row === 'input');
  return { x: 8, y: 8 - (inlet?.y ?? 0) * READABLE, scale: READABLE };
}
