import { ProbeScreen } from '@/features/probe/ProbeScreen';

export const metadata = { title: 'Probe' };

export default function ProbePage() {
  return <ProbeScreen />;
}
