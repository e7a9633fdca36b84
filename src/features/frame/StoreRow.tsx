'use client';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { placesOnNet } from '@/core/circuit';
import { benchText, formatQuantity, formatVolts, parseQuantity } from '@/core/quantity';
import { METER_LIMIT_VOLTS, REGAIN_MINUTES, UNTRACED, raisedTo, storeName } from '@/core/safety';
import { operatingPoint } from '@/core/operate';
import type { SizeDoubt } from '@/core/operate';
import type { StoreState } from '@/core/safety';
import { useCommands, useJob } from '@/features/job/JobContext';
import { SumLink } from './SumLink';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import { Reveal } from '@/ui/Reveal';
import { Tick } from '@/ui/Tick';

const STATE_WORDS: Readonly<Record<StoreState['state'], string>> = {
  'not-proved': '◇ not proved',
  expired: '◇ proof has run out',
  charged: '▲ charged',
  touch: '▲ low enough to touch, not for the meter',
  discharged: '▬ discharged',
};

/** One store: worst case, what to empty it with, and the proof reading, which may be taken again at any time. */
export function StoreRow({ state, lit, locked }: { state: StoreState; lit: boolean; locked: boolean }) {
  const { boards, active } = useJob();
  const { proof, minutesLeft } = state;
  const home = boards.find((b) => b.id === state.store.boardId)!;
  const work =
    state.store.place === null ? operatingPoint(home.board).across(state.store.plus, state.store.minus) : null;
  // What the unit works at may be more than its parts are made for, and then counts.
  const store =
    work === null
      ? state.store
      : raisedTo(state.store, { volts: work.highest, basis: work.highestBasis, why: work.highestWhy });
  const place = (net: string): string =>
    placesOnNet(home.board, net).find((p) => store.refs.includes(p.ref))?.words ?? net;
  const { discharge, volts } = store;
  const done = state.state === 'discharged';
  return (
    <div
      className={`border-l-4 bg-raised px-4 py-3 ${lit ? 'border-brass' : done ? 'border-verdigris' : 'border-line'}`}
      data-store={store.refs.join(' ') || UNTRACED}
    >
      <div className="flex items-baseline justify-between gap-4">
        <p>
          <strong>
            {boards.length > 1 && `${home.label}: `}
            {store.refs.join(', ') || storeName(store)}
          </strong>{' '}
          up to <span className="figure text-lg">{formatQuantity(volts.nominal, 'V')}</span>
          {store.place === null && (
            <>
              , <span className="figure">{formatQuantity(store.joules, 'J')}</span>
            </>
          )}{' '}
          <span className="text-sm text-faint">
            ({volts.basis}: {volts.why})
          </span>
          {work?.source === 'computed' && work.nominal !== null && (
            <span className="block text-sm">
              At work <span className="figure">{formatQuantity(work.nominal, 'V')}</span> (
              <span className="figure">
                {formatQuantity(work.low!, 'V')} to {formatQuantity(work.high!, 'V')}
              </span>{' '}
              over sources and loads); it is emptied for the worst case.
            </span>
          )}
        </p>
        <span className={`shrink-0 ${done ? 'text-verdigris' : 'text-brass'}`}>
          {STATE_WORDS[state.state]}
          {proof && state.state !== 'not-proved' && (
            <span className="block text-right text-sm text-faint">
              {formatVolts(proof.volts)} by {proof.by}
              {minutesLeft !== null && minutesLeft > 0 && `, ${Math.ceil(minutesLeft)} min left`}
            </span>
          )}
        </span>
      </div>
      {store.doubts.map((doubt) => (
        <DoubtLine key={doubt.ref} doubt={doubt} boardId={home.id} />
      ))}
      {store.proof && (
        <>
          {!done && (
            <p className="mt-1">
              Empty it through <span className="figure">{formatQuantity(discharge.ohms, 'ohm')}</span> rated{' '}
              {formatQuantity(discharge.ratedVolts, 'V')}, {formatQuantity(discharge.peakWatts, 'W')} for an instant,
              about {formatQuantity(Math.max(discharge.seconds, 0.1), 's', 2)}
              {home.id === active.id && store.place === null && (
                <>
                  {' '}
                  (
                  <SumLink
                    sum="discharge-time"
                    figures={{
                      c: `${store.refs[0]}.${store.refs.length > 1 ? 'bank' : 'value'}`,
                      vStart: `${store.refs[0]}.store`,
                    }}
                    typed={{ r: benchText(discharge.ohms), vSafe: '0.2' }}
                  >
                    work it out
                  </SumLink>
                  )
                </>
              )}
              {discharge.lamp !== null && <>, or {discharge.lamp} (an LED lamp does not empty it)</>}. Then read it:{' '}
              {store.place ?? `red on ${place(store.plus)}, black on ${place(store.minus)}`}.
            </p>
          )}
          {done ? (
            <Reveal className="mt-1" words={`Read it again after ${REGAIN_MINUTES} min: charge creeps back`}>
              <ProofForm state={state} lit={false} locked={locked} boardId={home.id} />
            </Reveal>
          ) : (
            <ProofForm state={state} lit={lit} locked={locked} boardId={home.id} />
          )}
        </>
      )}
      {!store.proof && <p className="text-sm text-faint">Holds too little to hurt; no proof is asked for.</p>}
    </div>
  );
}

/** A reading of DC volts at a store. Only a proved meter lowers the hazard; a high figure counts whatever the meter. */
function ProofForm({
  state,
  lit,
  locked,
  boardId,
}: {
  state: StoreState;
  lit: boolean;
  locked: boolean;
  boardId: string;
}) {
  const { addLine } = useCommands();
  const { store } = state;
  const [text, setText] = useState('');
  const [proved, setProved] = useState(false);
  const [error, setError] = useState('');
  const done = state.state === 'discharged';
  const send = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const read = parseQuantity(text);
    if (!read.ok) return setError('Type the volts you read, such as 0.03.');
    const low = Math.abs(read.value.value) < METER_LIMIT_VOLTS;
    if (!proved && low)
      return setError('A low figure proves nothing by a meter that was not proved: prove it and tick it.');
    setError('');
    const refs = store.refs.length > 0 ? [...store.refs] : [UNTRACED];
    const body = { storeKey: store.key, refs, volts: read.value.value, meterProved: proved };
    // What was typed for the next one while this one was on its way stays.
    if (await addLine({ kind: 'discharge-proof', body }, boardId)) setText((now) => (now === text ? '' : now));
  };
  return (
    <form onSubmit={(e) => void send(e)} className="mt-2 flex flex-wrap items-end gap-4">
      <Tick
        label="Meter proved on a known source, before and after"
        checked={proved}
        onTick={setProved}
        disabled={locked}
        autoFocus={lit}
        className="pb-1.5"
      />
      <TextField
        label="DC volts read"
        className="w-36"
        inputMode="decimal"
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={error || undefined}
        disabled={locked}
        placeholder="0.03"
      />
      <Button type="submit" kind={lit ? 'primary' : 'plain'} disabled={locked}>
        {done ? 'Keep this reading' : 'Keep this proof'}
      </Button>
    </form>
  );
}

/** A marking that may mean two sizes, of which one is danger: asked, and taken at the worst until it is answered. */
function DoubtLine({ doubt, boardId }: { doubt: SizeDoubt; boardId: string }) {
  const { addLine } = useCommands();
  const say = (farads: number): void =>
    void addLine(
      { kind: 'trace', body: { text: `${doubt.ref} is=${Number((farads * 1e12).toPrecision(3))}p` } },
      boardId,
    );
  return (
    <p className="mt-1 flex flex-wrap items-center gap-3">
      <span>
        {doubt.ref} is marked <span className="figure">{doubt.mark}</span>: taken for{' '}
        <span className="figure">{formatQuantity(doubt.large, 'F')}</span> until somebody says.
      </span>
      <Button kind="plain" onClick={() => say(doubt.large)}>
        It is {formatQuantity(doubt.large, 'F')}
      </Button>
      <Button kind="plain" onClick={() => say(doubt.small)}>
        It is {formatQuantity(doubt.small, 'F')}
      </Button>
    </p>
  );
}
