import { ReportScreen } from '@/features/report/ReportScreen';

export const metadata = { title: 'Report' };

export default function ReportPage() {
  return <ReportScreen />;
}
