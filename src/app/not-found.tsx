import { PrimaryLink } from '@/ui/PrimaryLink';

export const metadata = { title: 'Not here' };

/** No such page or job. */
export default function NotHere() {
  return (
    <main className="mx-auto max-w-2xl p-8">
      <h1 className="mb-3 text-2xl font-bold">Nothing here</h1>
      <p className="mb-5">
        There is no such page, or no job with this tag. Tags stand on the bench; a job that was written there is never
        thrown away.
      </p>
      <PrimaryLink href="/">To the bench</PrimaryLink>
    </main>
  );
}
