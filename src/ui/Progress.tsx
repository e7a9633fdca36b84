'use client';
import { Progress as Radix } from 'radix-ui';

/** How far work is, 0..1; null: under way, and nobody knows how far. */
export function Progress({
  label,
  value,
  className = 'w-32',
}: {
  label: string;
  value: number | null;
  className?: string;
}) {
  return (
    <Radix.Root asChild aria-label={label} value={value === null ? null : Math.round(100 * value)}>
      {/* Phrasing content: it may stand in a paragraph. */}
      <span className={`relative inline-block h-2 overflow-hidden rounded-full bg-line ${className}`}>
        <Radix.Indicator asChild>
          <span
            className="block h-full bg-brass data-[state=indeterminate]:w-1/3 data-[state=indeterminate]:animate-sweep motion-reduce:animate-none"
            style={value === null ? {} : { width: `${100 * value}%` }}
          />
        </Radix.Indicator>
      </span>
    </Radix.Root>
  );
}
