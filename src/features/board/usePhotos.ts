'use client';
import { useCallback, useEffect, useState } from 'react';
import { useJob } from '@/features/job/JobContext';
import { postJson } from '@/features/job/postJson';
import { NO_MARKS } from '@/wire/photoMarks';
import type { MarkChange, PhotoMarks, Side, StoredPhoto } from '@/wire/photoMarks';
import type { Problem } from '@/core/problem';

/** The photographs of the board that is worked on, the marks on them, and what changes them. */
export function usePhotos(): {
  readonly photos: readonly StoredPhoto[] | null;
  readonly marks: PhotoMarks;
  readonly busy: boolean;
  drop(side: Side, file: File): Promise<void>;
  mark(change: MarkChange): Promise<void>;
} {
  const { job, active, setTrouble } = useJob();
  const [photos, setPhotos] = useState<readonly StoredPhoto[] | null>(null);
  const [marks, setMarks] = useState<PhotoMarks>(NO_MARKS);
  const [busy, setBusy] = useState(false);
  const path = `/api/jobs/${job.tag}/photos?board=${active.id}`;
  useEffect(() => {
    let stale = false;
    void fetch(path)
      .then((r) => r.json() as Promise<{ photos: StoredPhoto[]; marks: PhotoMarks }>)
      .then((told) => {
        if (stale) return;
        setPhotos(told.photos);
        setMarks(told.marks);
      })
      .catch(() => {
        if (!stale) setPhotos([]);
      });
    return () => {
      stale = true;
    };
  }, [path]);
  const drop = useCallback(
    async (side: Side, file: File) => {
      setBusy(true);
      try {
        const response = await fetch(`${path}&side=${side}`, { method: 'POST', body: file });
        const told = (await response.json()) as StoredPhoto & { problem?: Problem };
        if (told.problem) setTrouble(told.problem);
        else {
          setTrouble(null);
          setPhotos((kept) => [...(kept ?? []).filter((p) => p.side !== side), told]);
        }
      } catch {
        setTrouble({
          code: 'no-connection',
          sentence: 'The photograph did not arrive.',
          remedy: 'Check that the application runs, then drop it again.',
        });
      }
      setBusy(false);
    },
    [path, setTrouble],
  );
  const mark = useCallback(
    async (change: MarkChange) => {
      const answer = await postJson<PhotoMarks>(`/api/jobs/${job.tag}/marks`, { boardId: active.id, change });
      if (answer.ok) setMarks(answer.value);
      else setTrouble(answer.problem);
    },
    [job.tag, active.id, setTrouble],
  );
  return { photos, marks, busy, drop, mark };
}
