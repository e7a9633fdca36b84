import { JobSums } from '@/features/sums/JobSums';

export const metadata = { title: 'Sums' };

export default function JobSumsPage() {
  return <JobSums />;
}
