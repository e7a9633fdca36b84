import { redirect } from 'next/navigation';

export default async function JobPage({ params }: { params: Promise<{ tag: string }> }) {
  redirect(`/jobs/${(await params).tag}/intake`);
}
