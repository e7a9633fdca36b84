import Link from 'next/link';
import { FrameKeys } from '@/features/frame/FrameKeys';
import { ThemeSwitch } from '@/features/frame/ThemeSwitch';
import { LooseSums } from '@/features/sums/LooseSums';

export const metadata = { title: 'Bench sums' };

export default function SumsPage() {
  return (
    <div className="mx-auto max-w-[1100px] px-6 py-5 max-sm:px-3">
      <header className="mb-5 flex items-center gap-5">
        <Link href="/" className="text-2xl font-bold text-brass">
          Rough Lantern
        </Link>
        <p className="flex-1 text-faint">Bench sums, without a job</p>
        <FrameKeys />
        <ThemeSwitch />
      </header>
      <main>
        <LooseSums />
      </main>
    </div>
  );
}
