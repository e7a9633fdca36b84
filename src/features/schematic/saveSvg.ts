import { saveFile } from '@/ui/saveFile';
import type { SchematicLayout } from './elkLayout';

const PLAIN: Readonly<Record<string, string>> = {
  ink: '#000',
  faint: '#444',
  line: '#999',
  raised: '#fff',
  slate: '#000',
  oxide: '#000',
  brass: '#000',
};

/** A drawing as an SVG document of its own, in black on white. markup: of the `svg` element with all that is in it. */
export function plainSvg(markup: string, layout: SchematicLayout): string {
  const read = new DOMParser().parseFromString(markup, 'text/html').querySelector('svg');
  if (!read) return '';
  read.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  read.setAttribute('viewBox', `-10 ${layout.top - 10} ${layout.width + 20} ${layout.height + 20}`);
  read.setAttribute('width', String(layout.width + 20));
  read.setAttribute('height', String(layout.height + 20));
  read.setAttribute('font-family', 'sans-serif');
  return new XMLSerializer()
    .serializeToString(read)
    .replace(/var\(--(\w+)\)/gu, (_, name: string) => PLAIN[name] ?? '#000');
}

/** Saves the whole drawing as an SVG file. */
export function saveSvg(svg: SVGSVGElement | null, layout: SchematicLayout, title: string): void {
  if (!svg) return;
  const copy = svg.cloneNode(true) as SVGSVGElement;
  // Where it was looked at is of no account.
  copy.querySelector('g')?.setAttribute('transform', '');
  const name = title.replace(/[^\w-]+/gu, '-').slice(0, 60) || 'schematic';
  saveFile(`${name}.svg`, 'image/svg+xml', plainSvg(copy.outerHTML, layout));
}
