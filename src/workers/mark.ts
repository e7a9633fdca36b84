import { setDecimalMark } from '@/core/quantity';

/** A worker writes its figures as the page does that began it: it is named by the mark. */
setDecimalMark(self.name === 'comma' ? 'comma' : 'point');
