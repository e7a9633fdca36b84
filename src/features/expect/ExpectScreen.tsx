'use client';
import { Tabs } from 'radix-ui';
import { useMemo, useState } from 'react';
import type { Supposition } from '@/core/expect';
import { readUnderPower } from '@/core/job';
import { supplyOf } from '@/core/operate';
import { parseQuantity } from '@/core/quantity';
import type { OperatingCondition } from '@/core/work';
import { useJob } from '@/features/job/JobContext';
import { useSuspects } from '@/features/job/SuspectsContext';
import { Notice } from '@/ui/Notice';
import { PrimaryLink } from '@/ui/PrimaryLink';
import { TabStrip } from '@/ui/TabStrip';
import { ConditionStrip } from './ConditionStrip';
import { MovedLine } from './MovedLine';
import { PointTable } from './PointTable';
import { PowerUpView } from './PowerUpView';
import { RateView } from './RateView';
import { SequenceView } from './SequenceView';
import { WhatIf } from './WhatIf';
import { useWorkingBoard } from './useWorkingBoard';

const VIEWS = { expect: 'Expect', rate: 'Rate', sequence: 'Sequence', 'power-up': 'Power up' } as const;
type View = keyof typeof VIEWS;

/** Suspects that the first power is looked at under. */
const MOST_SUSPECTS = 6;

/** The working board: what every point should show, how hard every part is worked, how the unit starts, the first power. */
export function ExpectScreen() {
  const { job, active, lines } = useJob();
  const { board, id } = active;
  const [view, setView] = useState<View>('expect');
  const supply = useMemo(() => supplyOf(board), [board]);
  const [source, setSource] = useState(supply.nominal === null ? '' : String(supply.nominal));
  const [load, setLoad] = useState<OperatingCondition['load']>('half');
  const [supposed, setSupposed] = useState<readonly Supposition[]>([]);
  const read = parseQuantity(source.trim());
  const volts = read.ok && (read.value.unit ?? 'V') === 'V' && read.value.value >= 0 ? read.value.value : null;
  const condition = useMemo(() => (volts === null ? null : { source: volts, load }), [volts, load]);
  const taken = useMemo(() => (condition ? readUnderPower(lines, id, condition) : []), [lines, id, condition]);
  const standing = useMemo(() => taken.filter((body) => !body.unsteady), [taken]);
  const { weighed } = useSuspects();
  const suspects = useMemo(
    () =>
      view === 'power-up'
        ? (weighed?.suspects ?? []).slice(0, MOST_SUSPECTS).map((s) => ({ fault: s.fault, share: s.probability }))
        : null,
    [view, weighed],
  );
  const wants = useMemo(() => ({ rate: view === 'rate' || supposed.length > 0, suspects }), [view, supposed, suspects]);
  const working = useWorkingBoard(board, condition, standing, supposed, wants);
  const { unit, failed } = working;
  return (
    <div className="flex flex-col gap-3">
      <Tabs.Root value={view} onValueChange={(v) => setView(v as View)} className="flex flex-col gap-3">
        <div className="flex items-center gap-4">
          <div className="min-w-0 flex-1">
            <TabStrip label="The working board" tabs={VIEWS} />
          </div>
          <PrimaryLink href={`/jobs/${job.tag}/probe`}>Read it in Probe</PrimaryLink>
        </div>
        <ConditionStrip
          supply={supply}
          source={source}
          volts={volts}
          load={load}
          working={working}
          onSource={setSource}
          onLoad={setLoad}
        />
        <WhatIf board={board} supposed={supposed} onChange={setSupposed} />
        {unit?.moved && <MovedLine unit={unit} rated={working.rated} rating={working.rating} />}
        {failed !== null && <Notice kind="trouble">It could not be worked out: {failed} Nothing was changed.</Notice>}
        {supply.nominal === null && source === '' && (
          <Notice kind="note">
            Nothing tells yet what this unit is fed with: type its source above, or note its nameplate at intake.
          </Notice>
        )}
        <Tabs.Content value="expect">
          <PointTable unit={unit} taken={taken} supposes={supposed.length > 0} wave={working.wave} />
        </Tabs.Content>
        <Tabs.Content value="rate">
          <RateView rated={working.rated} rating={working.rating} onStop={working.stop} />
        </Tabs.Content>
        <Tabs.Content value="sequence">
          <SequenceView unit={unit} />
        </Tabs.Content>
        <Tabs.Content value="power-up">
          <PowerUpView steps={working.limiter} unit={unit} source={volts} />
        </Tabs.Content>
      </Tabs.Root>
    </div>
  );
}
