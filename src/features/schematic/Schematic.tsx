'use client';
import dynamic from 'next/dynamic';
import type { ComponentProps } from 'react';
import type { SchematicPane } from './SchematicPane';

const Pane = dynamic(() => import('./SchematicPane').then((m) => m.SchematicPane), {
  ssr: false,
  loading: () => <p className="p-3 text-faint">Fetching the drawing …</p>,
});

/** The schematic that draws itself, fetched when it is shown; its place is kept for it. */
export function Schematic(props: ComponentProps<typeof SchematicPane>) {
  return (
    <div style={{ minHeight: props.height }}>
      <Pane {...props} />
    </div>
  );
}
