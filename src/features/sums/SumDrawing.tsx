'use client';
import type { SumDone } from '@/core/sums';
import { BankStrip } from './pictures/BankStrip';
import { BulkPlot } from './pictures/BulkPlot';
import { DischargePlot } from './pictures/DischargePlot';
import { ErrorPlot } from './pictures/ErrorPlot';
import { LockWindow } from './pictures/LockWindow';
import { LossPlot } from './pictures/LossPlot';

/** A small picture of a sum where one says more than figures. */
export function SumDrawing({ done, width }: { done: SumDone; width: number }) {
  switch (done.name) {
    case 'discharge-time':
      return <DischargePlot done={done} width={width} />;
    case 'bulk-ripple':
      return <BulkPlot done={done} width={width} />;
    case 'divider-retarget':
      return <ErrorPlot done={done} width={width} />;
    case 'uvlo-divider':
      return <LockWindow done={done} width={width} />;
    case 'buck-loss':
      return <LossPlot done={done} width={width} />;
    case 'cap-bank-outlier':
      return <BankStrip done={done} width={width} />;
    default:
      return null;
  }
}
