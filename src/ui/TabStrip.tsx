'use client';
import { Tabs } from 'radix-ui';

/** The tabs of a Radix tab root in our dress. tabs: words by value. */
export function TabStrip({ label, tabs }: { label: string; tabs: Readonly<Record<string, string>> }) {
  return (
    <Tabs.List
      aria-label={label}
      className="mb-2 flex max-w-full gap-1 overflow-x-auto overflow-y-hidden border-b border-line"
    >
      {Object.entries(tabs).map(([value, words]) => (
        <Tabs.Trigger
          key={value}
          value={value}
          className="border-b-2 border-transparent px-3 py-1 whitespace-nowrap text-faint focus-visible:-outline-offset-3! pointer-coarse:min-h-[44px] data-[state=active]:border-brass data-[state=active]:text-ink"
        >
          {words}
        </Tabs.Trigger>
      ))}
    </Tabs.List>
  );
}
