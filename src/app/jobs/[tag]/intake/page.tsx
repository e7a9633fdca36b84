import { IntakeScreen } from '@/features/intake/IntakeScreen';

export default function IntakePage() {
  return <IntakeScreen />;
}
