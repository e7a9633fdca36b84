'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect } from 'react';
import type { ReactNode, Ref, RefObject } from 'react';

/** Rows that are not drawn yet are taken for this high, pixels. */
const ROW = 32;

/** The rows of a long table that are in sight in the pane it scrolls in; what is picked comes into sight. */
export function RowsInSight({
  frame,
  count,
  current,
  rowAt,
}: {
  frame: RefObject<HTMLElement | null>;
  count: number;
  /** The picked row, -1 for none. */
  current: number;
  rowAt(index: number, measure: Ref<HTMLTableRowElement>): ReactNode;
}) {
  // eslint-disable-next-line react-hooks/incompatible-library -- as in DataTable: it is not memoised
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 8,
  });
  const { scrollToIndex } = virtual;
  useEffect(() => {
    if (current >= 0) scrollToIndex(current, { align: 'auto' });
  }, [current, scrollToIndex]);
  const items = virtual.getVirtualItems();
  const above = items[0]?.start ?? 0;
  const below = items.length === 0 ? 0 : virtual.getTotalSize() - items.at(-1)!.end;
  return (
    <>
      {above > 0 && <tr aria-hidden style={{ height: above }} />}
      {items.map(({ index }) => rowAt(index, virtual.measureElement))}
      {below > 0 && <tr aria-hidden style={{ height: below }} />}
    </>
  );
}
