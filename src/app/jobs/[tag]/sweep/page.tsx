import { SweepScreen } from '@/features/sweep/SweepScreen';

export default function SweepPage() {
  return <SweepScreen />;
}
