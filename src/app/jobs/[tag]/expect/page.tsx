import { ExpectScreen } from '@/features/expect/ExpectScreen';

export const metadata = { title: 'Expect' };

export default function ExpectPage() {
  return <ExpectScreen />;
}
