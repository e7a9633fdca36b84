import { z } from 'zod';
import type { Unit } from '@/core/quantity';
import { figureError } from './typedFigure';

/** A typed figure, or nothing; zero: that is one too. */
export const figureIn = (unit: Unit, zero = false) =>
  z.string().superRefine((text, context) => {
    const wrong = figureError(text, unit, zero);
    if (wrong !== undefined) context.addIssue({ code: 'custom', message: wrong });
  });
