'use client';
import Link from 'next/link';
import { Tabs } from 'radix-ui';
import { STEPS } from '@/core/job';
import { useSearchParams } from 'next/navigation';
import { useCallback, useState, useMemo } from 'react';
import type { Board } from '@/core/circuit';
import { boardNets, findPart } from '@/core/circuit';
import { useJob } from '@/features/job/JobContext';
import { NextLink } from '@/features/frame/NextLink';
import { useReadMarks } from '@/features/job/useReadMarks';
import { useReadVolts } from '@/features/job/useReadVolts';
import { useSuspects } from '@/features/job/SuspectsContext';
import { formerValues } from '@/features/schematic/formerValues';
import { Schematic } from '@/features/schematic/Schematic';
import type { Selection } from '@/features/schematic/selection';
import { TabStrip } from '@/ui/TabStrip';
import { NetsTable, PartsTable } from './BoardTables';
import { ComparePanel } from './ComparePanel';
import { LookPanel } from './LookPanel';
import { PartPanel } from './PartPanel';
import { PhotoPanel } from './PhotoPanel';
import { ShorthandPanel } from './ShorthandPanel';
import { StagesPanel } from './StagesPanel';
import { TableFiles } from './TableFiles';
import { TouchPanel } from './TouchPanel';

type Tab = 'type' | 'touch' | 'parts' | 'nets' | 'stages' | 'photos' | 'compare' | 'look';
const TABS: Readonly<Record<Tab, string>> = {
  look: 'Look',
  type: 'Type',
  touch: 'Touch',
  photos: 'Photographs',
  stages: 'Stages',
  parts: 'Parts',
  nets: 'Nets',
  compare: 'Compare',
};

/** What is picked; at first, and whenever the address names another, what that names. */
function usePicked(board: Board): readonly [Selection, (picked: Selection) => void] {
  const query = useSearchParams();
  const [ref, net] = [query.get('part'), query.get('net')];
  const [picked, setPicked] = useState<Selection>({});
  const [followed, setFollowed] = useState('');
  const named = `${ref} ${net}`;
  if (named !== followed) {
    setFollowed(named);
    const part = ref === null ? undefined : findPart(board, ref)?.ref;
    if (part !== undefined) setPicked({ part });
    else if (net !== null && boardNets(board).includes(net)) setPicked({ nets: [net] });
  }
  return [picked, setPicked];
}

/** Trace: schematic above, ways to trace and tables below, parts and nets in tables below, everything known about what is picked beside them. */
export function BoardScreen() {
  const { job, active } = useJob();
  const { weighed } = useSuspects();
  const { board, id } = active;
  const marks = useReadMarks();
  const read = useReadVolts();
  const was = useMemo(() => formerValues(active.asFound, board), [active.asFound, board]);
  const [picked, setPicked] = usePicked(board);
  const [onDrawing, setOnDrawing] = useState<string | undefined>(undefined);
  const [onPhoto, setOnPhoto] = useState<string | undefined>(undefined);
  const [table, setTable] = useState<Tab>(() => (board.parts.length === 0 ? 'type' : 'parts'));
  const [wanted, setWanted] = useState('');
  const pickNet = useCallback((net: string) => setPicked({ nets: [net] }), [setPicked]);
  const pickPart = useCallback((ref: string) => setPicked({ part: ref }), [setPicked]);
  const assumed = board.parts.filter((p) => p.basis === 'assumed').length;
  const part = picked.part === undefined ? undefined : findPart(board, picked.part);
  // Nothing picked: what is done here has the whole width.
  const wide = picked.part === undefined && picked.nets === undefined;
  return (
    <div className="flex flex-col gap-3">
      <div className="flex items-start justify-between gap-4">
        <div>
          <h1 className="text-xl font-bold">{board.title}</h1>
          <p className="text-faint">
            {board.parts.length} parts on {boardNets(board).length} nets
            {assumed > 0 && `; ${assumed} still assumed: say what is on your board`}
            {board.parts.length > 0 && (
              <Link href={`/jobs/${job.tag}/drawing`} className="ml-3 text-slate underline underline-offset-4">
                The drawing on paper
              </Link>
            )}
          </p>
        </div>
        <NextLink otherwise="probe" from={STEPS.filter((s) => s !== 'safe')} />
      </div>
      {board.parts.length > 0 && (
        <Schematic
          board={board}
          selection={picked}
          byPart={weighed?.byPart}
          marks={marks}
          was={was}
          read={read}
          height={330}
          onPickPart={pickPart}
          onPickNet={pickNet}
          lit={onPhoto}
          onHoverPart={table === 'photos' ? setOnDrawing : undefined}
        />
      )}
      <div className={wide ? '' : 'grid grid-cols-[1fr_22rem] gap-4 max-xl:grid-cols-[1fr_18rem]'}>
        <Tabs.Root
          value={table}
          onValueChange={(name) => setTable(name as Tab)}
          activationMode="manual"
          className="min-w-0"
        >
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <TabStrip label="Ways to trace" tabs={TABS} />
            {(table === 'parts' || table === 'nets') && (
              <input
                type="search"
                aria-label="Search parts and nets"
                value={wanted}
                onChange={(e) => setWanted(e.target.value)}
                placeholder="designator, marking, net, assumed …"
                className="w-64 rounded-sm border border-line bg-ground px-2 py-1 placeholder:text-faint"
              />
            )}
            {(table === 'parts' || table === 'nets') && <TableFiles />}
          </div>
          <Tabs.Content value={table} tabIndex={-1}>
            {table === 'look' && <LookPanel picked={picked.part} />}
            {table === 'type' && <ShorthandPanel />}
            {table === 'touch' && <TouchPanel />}
            {table === 'stages' && <StagesPanel picked={picked.part} onPick={setPicked} />}
            {table === 'compare' && <ComparePanel onPick={setPicked} />}
            {table === 'photos' && (
              <PhotoPanel
                selection={onDrawing === undefined ? picked : { part: onDrawing }}
                onPick={setPicked}
                onHover={setOnPhoto}
              />
            )}
            {table === 'parts' && <PartsTable board={board} wanted={wanted} picked={picked.part} onPick={pickPart} />}
            {table === 'nets' && <NetsTable board={board} wanted={wanted} picked={picked.nets?.[0]} onPick={pickNet} />}
          </Tabs.Content>
        </Tabs.Root>
        {!wide && (
          <PartPanel
            key={`${picked.part ?? ''} ${picked.nets?.[0] ?? ''}`}
            board={board}
            boardId={id}
            part={part}
            net={picked.nets?.[0]}
            onPick={setPicked}
          />
        )}
      </div>
    </div>
  );
}
