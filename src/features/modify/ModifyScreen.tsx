'use client';
import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { CHANGE_NAMES, findLoadPlaces, findLockPins } from '@/core/modify';
import { findDividers } from '@/core/operate';
import type { ChangeKind } from '@/core/modify';
import { useJob } from '@/features/job/JobContext';
import { TabStrip } from '@/ui/TabStrip';
import { LoadForm } from './LoadForm';
import { LockForm } from './LockForm';
import { ModificationCard } from './ModificationCard';
import { OutputForm } from './OutputForm';
import { useModifications } from '@/features/job/useModifications';

/** Changes of a board on purpose: what is kept with its proof first, then a new one to work out. */
export function ModifyScreen() {
  const kept = useModifications();
  const [kind, setKind] = useState<ChangeKind | null>(null);
  // What is not proved yet is the next thing to do; a new change only when asked for.
  const open = kept.find((m) => m.verdict === null);
  const shown = kind ?? (open ? null : 'output-voltage');
  return (
    <div className="flex flex-col gap-5">
      <div>
        <h1 className="text-xl font-bold">Modify</h1>
        <p className="text-faint">
          A change on purpose: worked out on this board, with what it touches and the sweep that proves it.
        </p>
      </div>
      {kept.map((m) => (
        <ModificationCard key={m.id} modification={m} lit={m === open && shown === null} />
      ))}
      <section aria-label="A new change">
        <Tabs.Root value={shown ?? ''} onValueChange={(k) => setKind(k as ChangeKind)} activationMode="manual">
          <TabStrip label="Kinds of change" tabs={CHANGE_NAMES} />
          {shown !== null && (
            <Tabs.Content value={shown} key={`${shown} ${kept.length}`} tabIndex={-1}>
              <NewChange kind={shown} onKept={() => setKind(null)} />
            </Tabs.Content>
          )}
        </Tabs.Root>
      </section>
      <p className="text-sm text-faint">
        The board as it was stays as an earlier version; undoing the line in the log takes a change off again.{' '}
      </p>
    </div>
  );
}

function NewChange({ kind, onKept }: { kind: ChangeKind; onKept(): void }) {
  const { active } = useJob();
  const { board } = active;
  switch (kind) {
    case 'output-voltage': {
      const dividers = findDividers(board);
      return dividers.length === 0 ? (
        <Nothing>
          No divider that sets an output is traced yet: the two resistors from an output to a feedback pin or a
          reference.
        </Nothing>
      ) : (
        <OutputForm dividers={dividers} onKept={onKept} />
      );
    }
    case 'lock-out': {
      const pins = findLockPins(board);
      return pins.length === 0 ? (
        <Nothing>No enable pin is known on this board: trace what goes to the controller’s pins.</Nothing>
      ) : (
        <LockForm pins={pins} onKept={onKept} />
      );
    }
    case 'start-on-load': {
      const places = findLoadPlaces(board);
      return places.length === 0 ? (
        <Nothing>No output connector with its rail and return is traced yet.</Nothing>
      ) : (
        <LoadForm places={places} onKept={onKept} />
      );
    }
  }
}

function Nothing({ children }: { children: string }) {
  return <p className="border-l-4 border-slate bg-raised px-3 py-2">{children}</p>;
}
