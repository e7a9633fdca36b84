import { ExpectScreen } from '@/features/expect/ExpectScreen';

export default function ExpectPage() {
  return <ExpectScreen />;
}
