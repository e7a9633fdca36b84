'use client';
import { Download, Expand, Shrink, Shuffle, Zap } from 'lucide-react';
import { useCallback, useMemo, useState } from 'react';
import type { ComponentProps, ReactNode } from 'react';
import { findPart } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { operatingPoint } from '@/core/operate';
import type { RailVolts } from '@/core/work';
import { Button } from '@/ui/Button';
import { Modal } from '@/ui/Modal';
import { PaneTool, ZoomPane } from '@/ui/ZoomPane';
import type { Sight } from '@/ui/ZoomPane';
import type { Drawing as Drawn } from '@/core/drawing';
import { shortValue } from '@/core/part';
import type { ReadMark } from '@/features/job/readMarks';
import { stopDrawing } from './drawingWorker';
import { Drawing } from './Drawing';
import { inSight } from './inSight';
import { netWords } from './netWords';
import type { NetWords } from './netWords';
import { partSentence } from './PartSign';
import type { Selection } from './selection';
import { saveSvg } from './saveSvg';
import { useDrawing } from './useDrawing';
import { walk } from './walk';

/** The schematic that draws itself, to move about in. Suspicion glows behind the parts; enlarged it has the window to itself. */
export function SchematicPane({
  board,
  selection,
  byPart,
  marks,
  was,
  onPickPart,
  onPickNet,
  lit,
  onHoverPart,
  volts,
  read,
  height: given,
}: {
  board: Board;
  /** Volts to write at the nets; those of the operating point unless told. */
  volts?: readonly RailVolts[] | undefined;
  /** Volts that were read at nets, by key. */
  read?: ReadonlyMap<string, number> | undefined;
  selection: Selection;
  byPart?: ReadonlyMap<string, number> | undefined;
  /** What was read at parts. */
  marks?: ReadonlyMap<string, ReadMark> | undefined;
  /** What parts that were changed since had been. */
  was?: ReadonlyMap<string, string> | undefined;
  onPickPart(ref: string): void;
  onPickNet?: ((net: string) => void) | undefined;
  lit?: string | undefined;
  onHoverPart?: ((ref: string | undefined) => void) | undefined;
  height: number;
}) {
  const { drawn: laid, failed, stopped, anew } = useDrawing(board);
  const drawing = laid?.drawing ?? null;
  const { computed } = operatingPoint(board);
  const expected = useMemo(
    () => volts ?? computed.map(({ red, nominal }) => ({ net: red, volts: nominal })),
    [volts, computed],
  );
  const written = useMemo(
    () => (drawing ? netWords(drawing.rails, expected, read) : NOTHING),
    [drawing, expected, read],
  );
  const [told, setTold] = useState(true);
  const [large, setLarge] = useState(false);
  const begin = useCallback((width: number, high: number) => (drawing ? fit(drawing, width, high) : WHOLE), [drawing]);
  // What is picked elsewhere comes into sight here.
  const goTo = useMemo(() => (drawing ? inSight(drawing, selection) : null), [drawing, selection]);
  if (failed) return <p className="p-3 text-faint">The schematic could not be drawn. The tables hold everything.</p>;
  if (!laid || !drawing)
    return (
      <p className="flex items-baseline gap-3 p-3 text-faint" role="status">
        {stopped ? 'The schematic is not drawn. The tables hold everything.' : 'Drawing the schematic …'}
        <Button kind="quiet" onClick={stopped ? anew : stopDrawing}>
          {stopped ? 'Draw it' : 'Stop'}
        </Button>
      </p>
    );
  const shared = {
    board: laid.board,
    selection,
    byPart,
    marks,
    was,
    onPickPart,
    onPickNet,
    volts: told ? written : NOTHING,
    lit,
    onHoverPart,
    drawing,
    begin,
    goTo,
    anew,
    tellVolts: { told, onTell: () => setTold(!told) },
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
  begin,
  goTo,
  anew,
  tellVolts,
  height,
  children,
  ...drawn
}: Omit<ComponentProps<typeof Drawing>, 'far'> & {
  readonly begin: NonNullable<ComponentProps<typeof ZoomPane>['begin']>;
  readonly goTo: Exclude<ComponentProps<typeof ZoomPane>['goTo'], undefined>;
  readonly anew: () => void;
  readonly tellVolts: { readonly told: boolean; onTell(): void };
  readonly height: number;
  readonly children: ReactNode;
}) {
  const { drawing, board, selection, marks, onPickPart } = drawn;
  const part = selection.part === undefined ? undefined : findPart(board, selection.part);
  return (
    <>
      <ZoomPane
        label={`Schematic of ${board.title}`}
        content={{ x: 0, y: 0, width: drawing.width, height: drawing.height }}
        height={height}
        begin={begin}
        goTo={goTo}
        onKey={({ key }) => {
          const next = selection.part === undefined ? null : walk(drawing, selection.part, key);
          if (next !== null) onPickPart(next);
          return next !== null;
        }}
        tools={
          <>
            {children}
            <PaneTool label="Volts at the nets" pressed={tellVolts.told} onPress={tellVolts.onTell}>
              <Zap aria-hidden className="size-4.5" />
            </PaneTool>
            <PaneTool label="Place everything anew" onPress={anew}>
              <Shuffle aria-hidden className="size-4.5" />
            </PaneTool>
            <PaneTool label="Save the drawing as SVG" onPress={() => saveSvg(drawing, board)}>
              <Download aria-hidden className="size-4.5" />
            </PaneTool>
          </>
        }
      >
        {(scale) => <Drawing {...drawn} far={scale < FAR} />}
      </ZoomPane>
      <p className="sr-only" aria-live="polite">
        {part
          ? `On the drawing: ${partSentence(part, shortValue(part), marks?.get(part.ref))}. Arrows walk along its wires.`
          : ''}
      </p>
    </>
  );
}

const NOTHING: ReadonlyMap<string, NetWords> = new Map();
const WHOLE: Sight = { x: 0, y: 0, scale: 1 };

/** Below this only stages and rails are told. */
const FAR = 0.5;
/** Smallest scale at which designators can still be read. */
const READABLE = 0.8;

function fit(drawing: Drawn, width: number, height: number): Sight {
  const scale = Math.min(1, (height - 8) / drawing.height, (width - 8) / drawing.width);
  if (scale >= READABLE) return { x: 4, y: 4, scale };
  // Too large to be read whole: it begins where the power comes in.
  const inlet = drawing.stages.find((s) => s.kind === 'mains-input') ?? drawing.stages[0];
  const y = Math.max(0, Math.min((inlet?.y ?? 0) - 40, drawing.height - height / READABLE));
  return { x: 4, y: 4 - y * READABLE, scale: READABLE };
}
