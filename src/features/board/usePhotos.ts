'use client';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { useJob } from '@/features/job/JobContext';
import { postJson } from '@/features/job/postJson';
import { useUpload } from '@/features/job/useUpload';
import type { Sending } from '@/ui/FileDrop';
import { NO_MARKS } from '@/wire/photoMarks';
import type { MarkChange, PhotoMarks, Side, StoredPhoto } from '@/wire/photoMarks';

interface Pictures {
  readonly photos: readonly StoredPhoto[];
  readonly marks: PhotoMarks;
}

const NONE: Pictures = { photos: [], marks: NO_MARKS };

/** The photographs of the board that is worked on, the marks on them, and what changes them. */
export function usePhotos(): {
  /** Null until they are known. */
  readonly photos: readonly StoredPhoto[] | null;
  readonly marks: PhotoMarks;
  readonly sending: (Sending & { readonly side: Side }) | null;
  drop(side: Side, file: File): Promise<void>;
  /** Changes the marks; whether they are kept so. Marks go one after another: a late answer undoes no newer one. */
  mark(change: MarkChange): Promise<boolean>;
} {
  const { job, active, setTrouble } = useJob();
  const path = `/api/jobs/${job.tag}/photos?board=${active.id}`;
  const client = useQueryClient();
  const { data, isError } = useQuery({
    queryKey: ['photos', path],
    queryFn: async ({ signal }) => (await (await fetch(path, { signal })).json()) as Pictures,
    refetchOnWindowFocus: true,
  });
  const change = useCallback(
    (next: (kept: Pictures) => Pictures) =>
      client.setQueryData<Pictures>(['photos', path], (kept) => next(kept ?? NONE)),
    [client, path],
  );
  const [sending, upload] = useUpload<StoredPhoto>();
  const [side, setSide] = useState<Side>('front');
  const drop = useCallback(
    async (of: Side, file: File) => {
      setSide(of);
      const answer = await upload(`${path}&side=${of}`, file);
      if (!answer.ok) return setTrouble(answer.problem);
      setTrouble(null);
      change((kept) => ({ ...kept, photos: [...kept.photos.filter((p) => p.side !== of), answer.value] }));
    },
    [path, upload, change, setTrouble],
  );
  const { mutateAsync: mark } = useMutation({
    scope: { id: path },
    // A lost connection is told by the answer, not waited out.
    networkMode: 'always',
    mutationFn: async (wanted: MarkChange) => {
      const body = { boardId: active.id, change: wanted };
      const answer = await postJson<PhotoMarks>(`/api/jobs/${job.tag}/marks`, body);
      if (answer.ok) change((kept) => ({ ...kept, marks: answer.value }));
      else setTrouble(answer.problem);
      return answer.ok;
    },
  });
  const known = data ?? (isError ? NONE : null);
  return {
    photos: known && known.photos,
    marks: known?.marks ?? NO_MARKS,
    sending: sending && { ...sending, side },
    drop,
    mark,
  };
}
