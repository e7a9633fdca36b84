import { SafeScreen } from '@/features/safe/SafeScreen';

export const metadata = { title: 'Make safe' };

export default function SafePage() {
  return <SafeScreen />;
}
