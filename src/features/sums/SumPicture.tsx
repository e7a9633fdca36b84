'use client';
import type { SumDone } from '@/core/sums';
import { BankStrip } from './pictures/BankStrip';
import { BulkPlot } from './pictures/BulkPlot';
import { DischargePlot } from './pictures/DischargePlot';
import { ErrorPlot } from './pictures/ErrorPlot';
import { LockWindow } from './pictures/LockWindow';
import { LossPlot } from './pictures/LossPlot';

/** A small picture of a sum where one says more than figures. */
export function SumPicture({ done }: { done: SumDone }) {
  switch (done.name) {
    case 'discharge-time':
      return <DischargePlot done={done} />;
    case 'bulk-ripple':
      return <BulkPlot done={done} />;
    case 'divider-retarget':
      return <ErrorPlot done={done} />;
    case 'uvlo-divider':
      return <LockWindow done={done} />;
    case 'buck-loss':
      return <LossPlot done={done} />;
    case 'cap-bank-outlier':
      return <BankStrip done={done} />;
    default:
      return null;
  }
}
