import { SafeScreen } from '@/features/safe/SafeScreen';

export default function SafePage() {
  return <SafeScreen />;
}
