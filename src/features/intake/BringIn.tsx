'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Problem } from '@/core/problem';
import { useSettings } from '@/features/job/SettingsContext';
import { useUpload } from '@/features/job/useUpload';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import { FileDrop } from '@/ui/FileDrop';
import { Select } from '@/ui/Select';
import { Notice } from '@/ui/Notice';

const MOST_BYTES = 64_000_000;
/** Problems that another tag or bench does away with. */
const OTHERWISE: ReadonlySet<string> = new Set(['tag-taken', 'bench-live', 'bad-input']);

/** Brings in a whole job from the zip file that another workshop, or this one, has saved of it. */
export function BringIn() {
  const router = useRouter();
  const [sending, upload] = useUpload<{ tag: string }>();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [file, setFile] = useState<File | null>(null);
  const [tag, setTag] = useState('');
  const { benches } = useSettings();
  const [bench, setBench] = useState('');
  const take = async (chosen: File): Promise<void> => {
    setFile(chosen);
    setProblem(null);
    const others = Object.entries({ tag: tag.trim(), bench }).filter(([, value]) => value !== '');
    const path = `/api/jobs/import?${new URLSearchParams(others)}`;
    const answer = await upload(path, chosen);
    if (answer.ok) router.push(`/jobs/${answer.value.tag}/safe`);
    else setProblem(answer.problem);
  };
  return (
    <section
      aria-label="A whole job from a file"
      className="mb-5 flex flex-wrap items-center gap-3 border-b border-line pb-4"
    >
      <span>
        Traced and logged before? <span className="text-faint">A whole job, log and photographs with it:</span>
      </span>
      <FileDrop
        label="Job file"
        kinds=".zip,application/zip"
        mostBytes={MOST_BYTES}
        sending={sending}
        onFile={(chosen) => void take(chosen)}
      >
        Bring in a job (.zip)
      </FileDrop>
      {problem && (
        <Notice kind="trouble" className="w-full">
          <strong>{problem.sentence}</strong> {problem.remedy}
          {file && OTHERWISE.has(problem.code) && (
            <span className="mt-2 flex items-end gap-3">
              <TextField
                label="Other tag"
                value={tag}
                placeholder="as in the file"
                onChange={(e) => setTag(e.target.value)}
                className="w-40"
                onKeyDown={(e) => {
                  if (e.key !== 'Enter') return;
                  e.preventDefault();
                  void take(file);
                }}
              />
              <Select
                label="Bench it stands on"
                className="w-48"
                value={bench}
                options={[{ value: '', words: 'as in the file' }, ...benches.map((b) => b.name)]}
                onChoose={setBench}
              />
              <Button disabled={tag.trim() === '' && bench === ''} onClick={() => void take(file)}>
                Bring it in so
              </Button>
            </span>
          )}
        </Notice>
      )}
    </section>
  );
}
