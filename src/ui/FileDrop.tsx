'use client';
import { Camera } from 'lucide-react';
import { useRef, useState } from 'react';
import type { ReactNode } from 'react';
import { useDropzone } from 'react-dropzone';
import { Button } from './Button';
import { Progress } from './Progress';

/** What is on its way: the share that has gone, null while nobody knows; and how it is stopped. */
export interface Sending {
  readonly share: number | null;
  stop(): void;
}

/**
 * Takes one file: dropped here, chosen, or on a phone taken with its camera. One that is too long is refused here and said.
 *
 * label    of the field, for who cannot see the button. kinds: what the chooser offers, as `accept` of an input.
 * sending  the file on its way: how far it is, and a way to stop it.
 */
export function FileDrop({
  label,
  children,
  kinds,
  mostBytes,
  camera = false,
  sending = null,
  onFile,
}: {
  label: string;
  children: ReactNode;
  kinds: string;
  mostBytes: number;
  camera?: boolean;
  sending?: Sending | null;
  onFile(file: File): void;
}) {
  const [refused, setRefused] = useState('');
  const lens = useRef<HTMLInputElement>(null);
  const take = (file: File | undefined): void => {
    setRefused('');
    if (!file) return;
    if (file.size <= mostBytes) return onFile(file);
    setRefused(`${file.name} is larger than ${mostBytes / 1e6} MB; nothing was taken.`);
  };
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    multiple: false,
    noClick: true,
    noKeyboard: true,
    disabled: sending !== null,
    onDrop: ([file]) => take(file),
  });
  return (
    <span
      {...getRootProps({ role: 'presentation' })}
      className={`inline-flex flex-wrap items-center gap-2 ${isDragActive ? 'outline-2 outline-offset-2 outline-brass outline-dashed' : ''}`}
    >
      <input {...getInputProps({ 'aria-label': label, accept: kinds })} />
      {sending ? (
        <>
          <Progress className="w-32" value={sending.share} label={`${label}: on its way`} />
          <Button onClick={() => sending.stop()}>Stop</Button>
        </>
      ) : (
        <Button onClick={open}>{children}</Button>
      )}
      {camera && !sending && (
        <>
          <input
            ref={lens}
            type="file"
            accept="image/*"
            capture="environment"
            tabIndex={-1}
            aria-hidden
            className="hidden"
            onChange={(e) => {
              take(e.target.files?.[0]);
              e.target.value = '';
            }}
          />
          <Button
            className="hidden min-h-[44px] min-w-[44px] items-center justify-center pointer-coarse:inline-flex"
            aria-label={`${label}: with the camera`}
            onClick={() => lens.current?.click()}
          >
            <Camera aria-hidden className="size-5" />
          </Button>
        </>
      )}
      {refused !== '' && (
        <span role="alert" className="text-sm text-oxide">
          {refused}
        </span>
      )}
    </span>
  );
}
