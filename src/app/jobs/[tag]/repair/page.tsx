import { RepairScreen } from '@/features/repair/RepairScreen';

export default function RepairPage() {
  return <RepairScreen />;
}
