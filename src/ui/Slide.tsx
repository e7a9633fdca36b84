'use client';
import { Slider } from 'radix-ui';

/** A value set by sliding, 0..1; least and most: the words at its ends. */
export function Slide({
  label,
  least,
  most,
  value,
  onSlide,
}: {
  label: string;
  least: string;
  most: string;
  value: number;
  onSlide(value: number): void;
}) {
  return (
    <span className="flex items-center gap-2 text-sm">
      {least}
      <Slider.Root
        value={[value]}
        min={0}
        max={1}
        step={0.05}
        onValueChange={([now]) => onSlide(now!)}
        className="relative flex h-6 w-28 touch-none items-center pointer-coarse:h-[44px]"
      >
        <Slider.Track className="relative h-1 grow rounded-full bg-line">
          <Slider.Range className="absolute h-full rounded-full bg-slate" />
        </Slider.Track>
        <Slider.Thumb aria-label={label} className="block size-4 rounded-full bg-slate pointer-coarse:size-6" />
      </Slider.Root>
      {most}
    </span>
  );
}
