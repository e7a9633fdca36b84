import Link from 'next/link';
import { pool } from '@/data/pool';
import { FrameKeys } from '@/features/frame/FrameKeys';
import { ThemeSwitch } from '@/features/frame/ThemeSwitch';
import { SettingsScreen } from '@/features/settings/SettingsScreen';
import { workshopSettings } from '@/usecases/settings';

export const metadata = { title: 'Settings' };
export const dynamic = 'force-dynamic';

export default async function SettingsPage() {
  const settings = await workshopSettings(pool());
  return (
    <div className="mx-auto max-w-[1100px] px-6 py-5 max-sm:px-3">
      <header className="mb-5 flex items-center gap-5">
        <Link href="/" className="text-2xl font-bold text-brass">
          Rough Lantern
        </Link>
        <h1 className="flex-1 text-faint">Settings of the workshop</h1>
        <FrameKeys />
        <ThemeSwitch />
      </header>
      <main>
        <SettingsScreen settings={settings} now={new Date().getTime()} />
      </main>
    </div>
  );
}
