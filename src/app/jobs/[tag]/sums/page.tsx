import { JobSums } from '@/features/sums/JobSums';

export default function JobSumsPage() {
  return <JobSums />;
}
