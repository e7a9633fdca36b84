'use client';
import type { ReactNode } from 'react';

/** A plot with its words beside it for those who do not see it. */
export function Plot({ title, children }: { title: string; children: ReactNode }) {
  return (
    <figure className="mt-3" aria-label={title}>
      <figcaption className="text-sm text-faint">{title}</figcaption>
      {children}
    </figure>
  );
}

/** A result or input of a done sum as a number, 0 where it has none. */
export function figureIn(
  done: { readonly results: Readonly<Record<string, unknown>>; readonly inputs: Readonly<Record<string, unknown>> },
  key: string,
): number {
  const value = done.results[key] ?? done.inputs[key];
  return typeof value === 'number' ? value : 0;
}
