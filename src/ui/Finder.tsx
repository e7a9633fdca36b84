'use client';
import { Command } from 'cmdk';
import type { ReactNode } from 'react';

/** Things of one kind among what was found. */
export interface FoundGroup<T> {
  readonly heading: string | null;
  readonly items: readonly T[];
}

/**
 * A list that is narrowed as something is typed and walked by arrow keys: Enter, a click or a touch takes one.
 *
 * fills  it takes the height that its place leaves, instead of a height of its own.
 */
export function Finder<T>({
  label,
  placeholder,
  wanted,
  onWanted,
  groups,
  keyOf,
  row,
  onTake,
  empty,
  beside,
  fills = false,
}: {
  label: string;
  placeholder: string;
  wanted: string;
  onWanted(text: string): void;
  groups: readonly FoundGroup<T>[];
  keyOf(item: T): string;
  row(item: T): ReactNode;
  onTake(item: T): void;
  empty: ReactNode;
  /** Stands beside the field. */
  beside?: ReactNode;
  fills?: boolean;
}) {
  return (
    <Command shouldFilter={false} label={label} loop className={fills ? 'flex min-h-0 flex-1 flex-col' : ''}>
      <div className="flex items-center gap-3 border-b border-line">
        <Command.Input
          autoFocus
          value={wanted}
          onValueChange={onWanted}
          placeholder={placeholder}
          className="w-full min-w-0 flex-1 bg-raised px-4 py-3 text-lg placeholder:text-faint"
        />
        {beside}
      </div>
      <Command.List className={`overflow-y-auto p-2 ${fills ? 'min-h-0 flex-1' : 'max-h-[60vh]'}`}>
        <Command.Empty className="px-2 py-3 text-faint">{empty}</Command.Empty>
        {groups.map(({ heading, items }) => (
          <Command.Group
            key={heading ?? ''}
            {...(heading === null ? {} : { heading })}
            className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:text-faint"
          >
            {items.map((item) => (
              <Command.Item
                key={keyOf(item)}
                value={`${heading ?? ''} ${keyOf(item)}`}
                onSelect={() => onTake(item)}
                className="flex cursor-pointer items-baseline gap-3 rounded-sm px-2 py-1 data-[selected=true]:bg-slate data-[selected=true]:text-ground pointer-coarse:min-h-[44px]"
              >
                {row(item)}
              </Command.Item>
            ))}
          </Command.Group>
        ))}
      </Command.List>
    </Command>
  );
}

/** A row of a finder: what the thing is called, and what stands beside its name. */
export function FoundRow({ words, note }: { words: string; note?: string | undefined }) {
  return (
    <>
      <span className="font-semibold">{words}</span>
      <span className="min-w-0 flex-1 truncate text-sm opacity-80">{note}</span>
    </>
  );
}
