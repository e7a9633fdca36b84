'use client';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { placesOnNet } from '@/core/circuit';
import { benchText, formatQuantity, formatVolts, parseQuantity } from '@/core/quantity';
import { PROOF_MINUTES } from '@/core/safety';
import type { StoreState } from '@/core/safety';
import { useJob } from './JobContext';
import { SumLink } from './SumLink';
import { Button } from '@/ui/Button';
import { TextField, Tick } from '@/ui/Field';

const STATE_WORDS: Readonly<Record<StoreState['state'], string>> = {
  'not-proved': '◇ not proved',
  expired: '◇ proof has run out',
  charged: '▲ charged',
  touch: '▬ low enough to touch, not for the meter',
  discharged: '▬ discharged',
};

/** One store: worst case, what to empty it with, and the proof reading. */
export function StoreRow({
  state,
  lit,
  locked,
  now,
}: {
  state: StoreState;
  lit: boolean;
  locked: boolean;
  now: number;
}) {
  const { boards, active, addLine } = useJob();
  const { store, proof } = state;
  const [text, setText] = useState('');
  const [proved, setProved] = useState(false);
  const [error, setError] = useState('');
  const home = boards.find((b) => b.id === store.boardId)!;
  const place = (net: string): string =>
    placesOnNet(home.board, net).find((p) => store.refs.includes(p.ref))?.words ?? net;

  const send = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const read = parseQuantity(text);
    if (!read.ok) return setError('Type the volts you read, such as 0.03.');
    if (!proved) return setError('First prove the meter on a known source, before and after, and tick it.');
    setError('');
    const body = { storeKey: store.key, refs: [...store.refs], volts: read.value.value, meterProved: proved };
    if (await addLine({ kind: 'discharge-proof', body }, home.id)) setText('');
  };

  const { discharge, volts } = store;
  return (
    <div
      className={`border-l-4 bg-raised px-4 py-3 ${lit ? 'border-brass' : state.state === 'discharged' ? 'border-verdigris' : 'border-line'}`}
    >
      <div className="flex items-baseline justify-between gap-4">
        <p>
          <strong>
            {boards.length > 1 && `${home.label}: `}
            {store.refs.join(', ')}
          </strong>{' '}
          up to <span className="figure text-lg">{formatQuantity(volts.nominal, 'V')}</span>,{' '}
          <span className="figure">{formatQuantity(store.joules, 'J')}</span>{' '}
          <span className="text-sm text-faint">
            ({volts.basis}: {volts.why})
          </span>
        </p>
        <span className={`shrink-0 ${state.state === 'discharged' ? 'text-verdigris' : 'text-brass'}`}>
          {STATE_WORDS[state.state]}
          {proof && state.state !== 'not-proved' && (
            <span className="block text-right text-sm text-faint">
              {formatVolts(proof.volts)} by {proof.by}
              {state.state !== 'expired' &&
                `, ${Math.max(0, Math.ceil(PROOF_MINUTES - (now - proof.at) / 60_000))} min left`}
            </span>
          )}
        </span>
      </div>
      {store.proof && state.state !== 'discharged' && (
        <>
          <p className="mt-1">
            Empty it through <span className="figure">{formatQuantity(discharge.ohms, 'ohm')}</span> rated{' '}
            {formatQuantity(discharge.ratedVolts, 'V')}, {formatQuantity(discharge.peakWatts, 'W')} for an instant,
            about {formatQuantity(Math.max(discharge.seconds, 0.1), 's', 2)}
            {home.id === active.id && (
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
            {discharge.lamp !== null && <>, or {discharge.lamp} (an LED lamp does not empty it)</>}. Then read it: red
            on {place(store.plus)}, black on {place(store.minus)}.
          </p>
          <form onSubmit={(e) => void send(e)} className="mt-2 flex flex-wrap items-end gap-4">
            <Tick
              label="Meter proved on a known source, before and after"
              checked={proved}
              onChange={(e) => setProved(e.target.checked)}
              disabled={locked}
              autoFocus={lit}
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
              Keep this proof
            </Button>
          </form>
        </>
      )}
      {!store.proof && <p className="text-sm text-faint">Holds too little to hurt; no proof is asked for.</p>}
    </div>
  );
}
