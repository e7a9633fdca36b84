import { FIRST_SETTINGS } from '@/wire/settings';
import type { Settings } from '@/wire/settings';

/** The made-up workshop. */
export const DEMO_SETTINGS: Settings = {
  ...FIRST_SETTINGS,
  workshop: { name: 'Skerry Point workshop', address: 'The old net loft, North Quay, Skerry Point' },
  benches: [
    { name: 'Bench A', who: '' },
    { name: 'Bench B', who: '' },
  ],
  zone: 'Atlantic/Reykjavik',
  mains: '230/50',
  instruments: ['esr'],
};
