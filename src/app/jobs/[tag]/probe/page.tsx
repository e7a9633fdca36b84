import { ProbeScreen } from '@/features/probe/ProbeScreen';

export default function ProbePage() {
  return <ProbeScreen />;
}
