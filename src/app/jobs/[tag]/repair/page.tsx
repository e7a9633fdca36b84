import { RepairScreen } from '@/features/repair/RepairScreen';

export const metadata = { title: 'Repair' };

export default function RepairPage() {
  return <RepairScreen />;
}
