import { IntakeScreen } from '@/features/intake/IntakeScreen';

export const metadata = { title: 'Intake' };

export default function IntakePage() {
  return <IntakeScreen />;
}
