import { ModifyScreen } from '@/features/modify/ModifyScreen';

export default function ModifyPage() {
  return <ModifyScreen />;
}
