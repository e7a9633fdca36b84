import { LoosePage } from '@/features/frame/LoosePage';
import { LooseSums } from '@/features/sums/LooseSums';

export const metadata = { title: 'Bench sums' };

export default function SumsPage() {
  return (
    <LoosePage title={<p>Bench sums, without a job</p>}>
      <LooseSums />
    </LoosePage>
  );
}
