'use client';
import './globals.css';

/** The frame itself failed: nothing of it can be counted on here. */
export default function FrameFailed({ error, reset }: { error: Error & { digest?: string }; reset(): void }) {
  return (
    <html lang="en" data-theme="soot">
      <body>
        <main className="mx-auto max-w-2xl p-8">
          <h1 className="mb-3 text-2xl font-bold">Rough Lantern has failed</h1>
          <p className="mb-2">
            Nothing that was written is lost: lines that were not acknowledged yet wait in this browser. Check that the
            application and its database run.
          </p>
          {error.digest && <p className="figure mb-5 text-sm text-faint">Look for {error.digest} in its log.</p>}
          <button type="button" className="rounded-sm bg-brass px-4 py-2 font-semibold text-on-brass" onClick={reset}>
            Try again
          </button>
        </main>
      </body>
    </html>
  );
}
