import { saveFile } from '@/ui/saveFile';
import type { SchematicLayout } from './elkLayout';

/** Saves the whole drawing as an SVG file of its own, in black on white. */
export function saveSvg(svg: SVGSVGElement | null, layout: SchematicLayout, title: string): void {
  if (!svg) return;
  const copy = svg.cloneNode(true) as SVGSVGElement;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('viewBox', `-10 ${layout.top - 10} ${layout.width + 20} ${layout.height + 20}`);
  copy.setAttribute('width', String(layout.width + 20));
  copy.setAttribute('height', String(layout.height + 20));
  copy.setAttribute('font-family', 'sans-serif');
  copy.querySelector('g')?.setAttribute('transform', '');
  const plain: Readonly<Record<string, string>> = {
    ink: '#000',
    faint: '#444',
    line: '#999',
    raised: '#fff',
    slate: '#000',
    oxide: '#000',
    brass: '#000',
  };
  const text = new XMLSerializer()
    .serializeToString(copy)
    .replace(/var\(--(\w+)\)/gu, (_, name: string) => plain[name] ?? '#000');
  saveFile(`${title.replace(/[^\w-]+/gu, '-').slice(0, 60) || 'schematic'}.svg`, 'image/svg+xml', text);
}
