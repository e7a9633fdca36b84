import { version } from '@/data/version';
import { LoosePage } from '@/features/frame/LoosePage';
import { SettingsScreen } from '@/features/settings/SettingsScreen';
import { settingsNow } from '../settingsNow';

export const metadata = { title: 'Settings' };
export const dynamic = 'force-dynamic';

export default async function SettingsPage() {
  return (
    <LoosePage title={<h1>Settings of the workshop</h1>}>
      <SettingsScreen settings={await settingsNow()} now={new Date().getTime()} version={version()} />
    </LoosePage>
  );
}
