import { SweepScreen } from '@/features/sweep/SweepScreen';

export const metadata = { title: 'Sweep' };

export default function SweepPage() {
  return <SweepScreen />;
}
