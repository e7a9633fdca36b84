'use client';
import { useState } from 'react';
import type { Nameplate } from '@/core/circuit';
import { Scroll } from '@/ui/Scroll';
import { Radio } from '@/ui/Radio';
import { SearchLine } from '@/ui/SearchLine';

/** A typical circuit to start from. */
export interface CircuitChoice {
  readonly name: string;
  readonly title: string;
  readonly describes: string;
  readonly parts: number;
  readonly nameplate: Nameplate;
}

/** The typical circuits, likely ones first as they come, narrowed by words; stands in the radio group of the boards. */
export function TypicalCircuits({ circuits, chosen }: { circuits: readonly CircuitChoice[]; chosen: string | null }) {
  const [wanted, setWanted] = useState('');
  const words = wanted.toLowerCase().split(/\s+/u).filter(Boolean);
  const found = circuits.filter((c) => {
    const text = `${c.title} ${c.describes} ${c.name}`.toLowerCase();
    return c.name === chosen || words.every((w) => text.includes(w));
  });
  return (
    <section aria-label="Typical circuits" className="border-y border-line/60 py-1.5">
      <SearchLine label="Typical circuit:" value={wanted} onType={setWanted} placeholder="flyback, battery, bridge …" />
      <Scroll label="Circuits found" look="mt-1 max-h-56">
        <div className="flex flex-col gap-1.5">
          {found.map((c) => (
            <Radio key={c.name} value={`typical:${c.name}`}>
              {c.title}{' '}
              <span className="text-sm text-faint">
                {c.describes}; {c.parts} parts, all assumed
              </span>
            </Radio>
          ))}
          {found.length === 0 && (
            <p className="text-sm text-faint">None with these words: start empty, or ask for less.</p>
          )}
        </div>
      </Scroll>
    </section>
  );
}
