import { ModifyScreen } from '@/features/modify/ModifyScreen';

export const metadata = { title: 'Modify' };

export default function ModifyPage() {
  return <ModifyScreen />;
}
