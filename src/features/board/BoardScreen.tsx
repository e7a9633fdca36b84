'use client';
import { Tabs } from 'radix-ui';
import { STEPS } from '@/core/job';
import { useSearchParams } from 'next/navigation';
import { useCallback, useMemo, useState } from 'react';
import type { Board } from '@/core/circuit';
import { boardNets, findPart, pinsOnNet, placesOnNet } from '@/core/circuit';
import { marking, partFigure } from '@/core/part';
import type { Part } from '@/core/part';
import { formatQuantity } from '@/core/quantity';
import { useJob } from '@/features/job/JobContext';
import { NextLink } from '@/features/frame/NextLink';
import { useSuspects } from '@/features/job/SuspectsContext';
import { shortValue } from '@/core/schematic';
import { Schematic } from '@/features/schematic/Schematic';
import type { Selection } from '@/features/schematic/selection';
import { TabStrip } from '@/ui/TabStrip';
import { BasisMark } from './BasisMark';
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
  const { active } = useJob();
  const { weighed } = useSuspects();
  const { board, id } = active;
  const [picked, setPicked] = usePicked(board);
  const [onDrawing, setOnDrawing] = useState<string | undefined>(undefined);
  const [onPhoto, setOnPhoto] = useState<string | undefined>(undefined);
  const [table, setTable] = useState<Tab>(() => (board.parts.length === 0 ? 'type' : 'parts'));
  const [wanted, setWanted] = useState('');
  const pickNet = useCallback((net: string) => setPicked({ nets: [net] }), [setPicked]);
  const pickPart = useCallback((ref: string) => setPicked({ part: ref }), [setPicked]);
  const words = wanted.toLowerCase();
  const parts = useMemo(
    () =>
      board.parts.filter((p) =>
        `${p.ref} ${p.kind} ${marking(p) ?? ''} ${p.nets.join(' ')} ${p.basis}`.toLowerCase().includes(words),
      ),
    [board, words],
  );
  const nets = useMemo(() => boardNets(board).filter((n) => n.toLowerCase().includes(words)), [board, words]);
  const assumed = board.parts.filter((p) => p.basis === 'assumed').length;
  const part = picked.part === undefined ? undefined : findPart(board, picked.part);
  // Nothing picked: what is done here has the whole width.
  const wide = picked.part === undefined && picked.nets === undefined && table !== 'parts' && table !== 'nets';
  return (
    <div className="flex flex-col gap-3">
      <div className="flex items-start justify-between gap-4">
        <div>
          <h1 className="text-xl font-bold">{board.title}</h1>
          <p className="text-faint">
            {board.parts.length} parts on {boardNets(board).length} nets
            {assumed > 0 && `; ${assumed} still assumed: say what is on your board`}
          </p>
        </div>
        <NextLink otherwise="probe" from={STEPS.filter((s) => s !== 'safe')} />
      </div>
      {board.parts.length > 0 && (
        <Schematic
          board={board}
          selection={picked}
          byPart={weighed?.byPart}
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
            {(table === 'parts' || table === 'nets') && (
              <div className="max-h-80 overflow-y-auto" tabIndex={0} aria-label="Table">
                {table === 'parts' ? (
                  <PartsTable parts={parts} picked={picked.part} onPick={(ref) => setPicked({ part: ref })} />
                ) : (
                  <ul>
                    {nets.map((net) => (
                      <li key={net}>
                        <button
                          type="button"
                          onClick={() => setPicked({ nets: [net] })}
                          className={`flex h-8 w-full items-center gap-3 px-2 text-left hover:bg-raised ${picked.nets?.[0] === net ? 'bg-raised' : ''}`}
                        >
                          <span className="figure w-24">{net}</span>
                          <span className="min-w-0 truncate text-sm text-faint">
                            {pinsOnNet(board, net).length} pins; easiest: {placesOnNet(board, net)[0]?.words}
                          </span>
                        </button>
                      </li>
                    ))}
                  </ul>
                )}
              </div>
            )}
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

function PartsTable({
  parts,
  picked,
  onPick,
}: {
  parts: readonly Part[];
  picked: string | undefined;
  onPick(ref: string): void;
}) {
  return (
    <table className="w-full border-collapse text-left">
      <thead className="sticky top-0 bg-ground text-sm text-faint">
        <tr>
          <th className="w-10 font-normal">
            <span className="sr-only">Basis</span>
          </th>
          <th className="font-normal">Part</th>
          <th className="pr-2 text-right font-normal">Value</th>
          <th className="font-normal">Marking</th>
          <th className="font-normal">Nets</th>
        </tr>
      </thead>
      <tbody>
        {parts.map((p) => {
          const [figure, unit] = shortValue(p).split('\u2009');
          return (
            <tr
              key={p.ref}
              className={`h-8 border-b border-line/40 hover:bg-raised ${picked === p.ref ? 'bg-raised' : ''}`}
            >
              <td className="pr-2 text-center">
                <BasisMark basis={p.basis} fitted={p.fitted} />
              </td>
              <td className="pr-2 whitespace-nowrap">
                <button
                  type="button"
                  className="figure underline decoration-line underline-offset-4"
                  onClick={() => onPick(p.ref)}
                >
                  {p.ref}
                </button>{' '}
                <span className="text-sm text-faint">{p.fitted ? p.kind : 'not fitted'}</span>
              </td>
              <td className="figure pr-2 text-right whitespace-nowrap">
                {figure} <span className="inline-block w-7 text-left text-faint">{unit ?? ''}</span>
              </td>
              <td className="max-w-32 truncate pr-3">{marking(p) ?? ratedVolts(p)}</td>
              <td className="figure max-w-44 truncate text-sm text-faint">{p.nets.join(' ')}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function ratedVolts(part: Part): string {
  const volts = partFigure(part, 'ratedVolts');
  return volts === undefined ? '' : formatQuantity(volts, 'V');
}
