'use client';
import Link from 'next/link';
import { Button } from '@/ui/Button';

/** A screen that failed: what is kept, and the way on. */
export default function ScreenFailed({ error, reset }: { error: Error & { digest?: string }; reset(): void }) {
  return (
    <main className="mx-auto max-w-2xl p-8">
      <h1 className="mb-3 text-2xl font-bold">This screen has failed</h1>
      <p className="mb-2">
        Nothing that was written is lost: lines that were not acknowledged yet wait in this browser and are sent when
        the job is opened again.
      </p>
      <p className="figure mb-5 text-sm text-faint">
        {error.digest ? `It stands in the application’s log under ${error.digest}.` : error.message}
      </p>
      <div className="flex items-center gap-4">
        <Button kind="primary" autoFocus onClick={reset}>
          Try again
        </Button>
        <Link href="/" className="text-slate underline underline-offset-4">
          To the bench
        </Link>
      </div>
    </main>
  );
}
