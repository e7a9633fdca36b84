'use client';
import { MODAL_MIDDLE, Modal } from '@/ui/Modal';
import { FRAME_KEYS, SCREEN_KEYS } from './keys';
import type { KeyRow } from './keys';

/** The list of keys, under `?`. */
export function KeyHelp({
  open,
  inJob,
  onOpenChange,
}: {
  open: boolean;
  inJob: boolean;
  onOpenChange(open: boolean): void;
}) {
  const rows: readonly KeyRow[] = [...Object.values(FRAME_KEYS), ...SCREEN_KEYS];
  return (
    <Modal
      open={open}
      onOpenChange={onOpenChange}
      title="Keys"
      heading="mb-3 text-lg font-semibold"
      look={`${MODAL_MIDDLE} max-h-[92vh] w-[32rem] overflow-y-auto border border-line`}
    >
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1.5">
        {rows
          .filter((row) => inJob || !row.inJob)
          .map((row) => (
            <div key={row.keys} className="contents">
              <dt className="figure text-brass">{row.keys}</dt>
              <dd>{row.words}</dd>
            </div>
          ))}
      </dl>
    </Modal>
  );
}
