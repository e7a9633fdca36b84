'use client';
import { memo, useMemo } from 'react';
import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { joints, onBarrier, signPath, stageWords } from '@/core/drawing';
import type { DrawnName, Drawing as Drawn } from '@/core/drawing';
import { shortValue } from '@/core/part';
import type { ReadMark } from '@/features/job/readMarks';
import { NetVolts } from './NetVolts';
import { netSentence } from './netWords';
import type { NetWords } from './netWords';
import { PartSign, partSentence } from './PartSign';
import { ReadMarks } from './ReadMarks';
import { Suspicion } from './Suspicion';
import { Leads } from './Leads';
import type { Selection } from './selection';

/** The drawing itself: stages, the barrier, glow of suspicion, wires, symbols with their letters. */
export const Drawing = memo(function Drawing({
  drawing,
  board,
  selection,
  byPart,
  marks,
  was,
  volts,
  lit: pointed,
  far,
  onPickPart,
  onPickNet,
  onHoverPart,
}: {
  drawing: Drawn;
  board: Board;
  selection: Selection;
  byPart?: ReadonlyMap<string, number> | undefined;
  /** What was read at parts. */
  marks?: ReadonlyMap<string, ReadMark> | undefined;
  /** What parts that were changed since had been. */
  was?: ReadonlyMap<string, string> | undefined;
  /** What stands at nets at work, by key. */
  volts: ReadonlyMap<string, NetWords>;
  onPickPart(ref: string): void;
  onPickNet?: ((net: string) => void) | undefined;
  /** A part pointed at elsewhere. */
  lit?: string | undefined;
  /** Looked at from far away: only stages and rails are told. */
  far: boolean;
  onHoverPart?: ((ref: string | undefined) => void) | undefined;
}) {
  const lit = new Set(selection.nets?.map(netKey));
  const parts = useMemo(() => new Map(board.parts.map((p) => [p.ref, p])), [board]);
  const dots = useMemo(() => joints(drawing), [drawing]);
  return (
    <>
      <Stages drawing={drawing} far={far} />
      <Suspicion drawing={drawing} byPart={byPart} />
      <g fill="none">
        {drawing.wires.map((w) => {
          const points = w.points.map((p) => p.join(',')).join(' ');
          const bright = lit.has(netKey(w.net));
          return (
            <g key={`${w.net} ${points}`} className={onPickNet && 'cursor-pointer'} onClick={() => onPickNet?.(w.net)}>
              {onPickNet && <polyline points={points} stroke="transparent" strokeWidth={9} />}
              <polyline
                points={points}
                stroke={bright ? 'var(--slate)' : 'var(--faint)'}
                strokeWidth={bright ? 3.2 : 1.3}
              />
            </g>
          );
        })}
      </g>
      <g fill="var(--faint)">
        {dots.map(([x, y]) => (
          <circle key={`${x} ${y}`} cx={x} cy={y} r={2.6} />
        ))}
      </g>
      {drawing.symbols.map((s) => {
        const own = s.refs.map((r) => parts.get(r)!);
        return (
          <PartSign
            key={s.refs[0]}
            symbol={s}
            assumed={own.every((p) => p.basis === 'assumed')}
            empty={own.every((p) => !p.fitted)}
            picked={s.refs.some((r) => selection.part === r || pointed === r)}
            name={own.map((p) => partSentence(p, shortValue(p), marks?.get(p.ref))).join('; ')}
            onPick={onPickPart}
            onHover={onHoverPart}
          />
        );
      })}
      {marks && <ReadMarks drawing={drawing} marks={marks} />}
      {drawing.names.map((n) => (
        <NetName
          key={`${n.net} ${n.x} ${n.y}`}
          name={n}
          lit={lit.has(netKey(n.net))}
          volts={volts.get(netKey(n.net))}
          onPick={onPickNet}
        />
      ))}
      {!far && <Letters drawing={drawing} byPart={byPart} was={was} parts={parts} />}
      <NetVolts drawing={drawing} volts={volts} far={far} />
      <Leads drawing={drawing} nets={selection.nets ?? []} />
    </>
  );
});

/** Soft tints behind the stages, and the barrier from top to bottom. */
function Stages({ drawing, far }: { drawing: Drawn; far: boolean }) {
  return (
    <>
      <g>
        {drawing.stages.map((s) => (
          <g key={`${s.kind} ${s.x} ${s.y}`}>
            <title>{stageWords(s.kind)}</title>
            {s.bands.map((b) => (
              <rect key={`${b.x} ${b.y}`} {...b} rx={12} fill="var(--raised)" fillOpacity={0.75} />
            ))}
          </g>
        ))}
      </g>
      {far && (
        <g fontSize={20} fontWeight={600} fill="var(--faint)" textAnchor="middle">
          {drawing.stages
            .filter((s) => s.width * s.height > 12_000)
            .map((s) => (
              <text key={`${s.kind} ${s.x} ${s.y}`} x={s.x + s.width / 2} y={s.y - 16}>
                {stageWords(s.kind)}
              </text>
            ))}
        </g>
      )}
      {drawing.barriers.map((b) => {
        const [[x = 0, top = 0] = [], [, bottom = 0] = []] = b.points;
        return (
          <g key={x}>
            <path d={`M${x} ${top}V${bottom}`} stroke="var(--oxide)" strokeWidth={2.6} strokeDasharray="14 7" />
            <text
              x={x + 14}
              y={top + 16}
              fontSize={11}
              fill="var(--oxide)"
              transform={`rotate(90 ${x + 6} ${top + 16})`}
            >
              isolation
            </text>
          </g>
        );
      })}
    </>
  );
}

/** A net by its name, or by the sign of its island's reference. */
function NetName({
  name: n,
  lit,
  volts,
  onPick,
}: {
  name: DrawnName;
  lit: boolean;
  volts: NetWords | undefined;
  onPick: ((net: string) => void) | undefined;
}) {
  const colour = lit ? 'var(--slate)' : 'var(--ink)';
  if (n.sign !== null)
    return (
      <g className={onPick && 'cursor-pointer'} onClick={() => onPick?.(n.net)}>
        <title>{n.net}</title>
        <rect x={n.x} y={n.y} width={n.width} height={n.height} fill="transparent" />
        <path d={signPath(n)} fill="none" stroke={colour} strokeWidth={lit ? 2.6 : 1.5} />
      </g>
    );
  return (
    <text
      x={n.x + n.width / 2}
      y={n.y + 9.5}
      fontSize={9.5}
      textAnchor="middle"
      fill={lit ? 'var(--slate)' : 'var(--faint)'}
      fontWeight={lit ? 700 : 400}
      className={onPick && 'cursor-pointer'}
      onClick={() => onPick?.(n.net)}
    >
      <title>{volts === undefined ? n.net : `${n.net}, ${netSentence(volts)}`}</title>
      {n.net}
    </text>
  );
}

/** Designators and values, and how much a part is suspected. */
function Letters({
  drawing,
  byPart,
  was,
  parts,
}: {
  drawing: Drawn;
  byPart: ReadonlyMap<string, number> | undefined;
  was: ReadonlyMap<string, string> | undefined;
  parts: ReadonlyMap<string, Board['parts'][number]>;
}) {
  return (
    <>
      {drawing.texts.map((t, i) => {
        const first = drawing.texts[i - 1]?.of !== t.of;
        const next = drawing.texts[i + 1];
        // The odds stand at the end of the designator's line.
        const last = next?.of !== t.of || next.y !== t.y;
        const odds = last && (first || drawing.texts[i - 1]!.y === t.y) ? (byPart?.get(t.of) ?? 0) : 0;
        const assumed = parts.get(t.of)?.basis === 'assumed';
        return (
          <text
            key={`${t.of} ${t.text}`}
            x={t.x}
            y={t.y + 10}
            fontSize={10.5}
            fill={first && !assumed ? 'var(--ink)' : 'var(--faint)'}
            fontWeight={first ? 700 : 400}
            {...(onBarrier(drawing, t) ? { stroke: 'var(--ground)', strokeWidth: 4, paintOrder: 'stroke' } : {})}
          >
            {t.text}
            {next?.of !== t.of && was?.has(t.of) && (
              <tspan fill="var(--faint)" fontWeight={400} textDecoration="line-through" dx={4}>
                {was.get(t.of)}
              </tspan>
            )}
            {odds >= 0.02 && (
              <tspan fill="var(--brass)" fontWeight={700}>
                {` ${Math.round(100 * odds)} %`}
              </tspan>
            )}
          </text>
        );
      })}
    </>
  );
}
