import type { Board } from '../circuit';
import { artOf } from './art';
import { STEP_TO } from './drawing';
import type { Box, DrawnName, Drawing } from './drawing';
import { joints } from './joints';
import { stageWords } from './words';

/** Text as it may stand in a document. */
export const escapeXml = (text: string): string =>
  text.replace(/[&<>"]/gu, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/** What stands below a drawing: of what it is, and what it rests on. */
export function titleLines(board: Board, more: readonly string[] = []): readonly string[] {
  return [[board.title, ...more].join(' · '), restsOn(board)];
}

/** What a drawing rests on, in words. */
export function restsOn(board: Board): string {
  const assumed = board.parts.filter((p) => p.basis === 'assumed').length;
  return `drawn from ${board.parts.length - assumed} traced facts, ${assumed} assumed`;
}

const FOOT = 54;
/** The face that everything is written in. */
export const FACE = 'font-family="Atkinson Hyperlegible Next Variable, Atkinson Hyperlegible Next, sans-serif"';

/** A drawing as an SVG document of its own, black on white, clean enough to be worked on elsewhere. below: lines under it. */
export function drawingSvg(d: Drawing, title: string, below: readonly string[] = []): string {
  const height = d.height + (below.length > 0 ? FOOT : 0);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${d.width} ${height}" width="${d.width}" height="${height}" ${FACE}>`,
    `<title>${escapeXml(title)}</title>`,
    `<rect width="${d.width}" height="${height}" fill="#fff"/>`,
    ...drawingMarkup(d),
    ...below.map((line, i) => `<text x="20" y="${d.height + 14 + 16 * i}" font-size="12">${escapeXml(line)}</text>`),
    '</svg>',
  ].join('\n');
}

/** What is drawn, black on white, as SVG without what is around it: pixels. */
export function drawingMarkup(d: Drawing): readonly string[] {
  const out: string[] = [
    '<g id="stages" fill="#f3f3f3">',
    ...d.stages.flatMap((s) =>
      s.bands.map(
        (b) =>
          `<rect x="${b.x}" y="${b.y}" width="${b.width}" height="${b.height}" rx="10"><title>${escapeXml(stageWords(s.kind))}</title></rect>`,
      ),
    ),
    '</g>',
    '<g id="barrier" fill="none" stroke="#555" stroke-width="2.4" stroke-dasharray="12 6">',
    ...d.barriers.map((b) => `<polyline points="${b.points.map((p) => p.join(',')).join(' ')}"/>`),
    '</g>',
    '<g id="wires" fill="none" stroke="#000" stroke-width="1.2">',
    ...d.wires.map(
      (w) => `<polyline data-net="${escapeXml(w.net)}" points="${w.points.map((p) => p.join(',')).join(' ')}"/>`,
    ),
    '</g>',
    '<g id="joints" fill="#000">',
    ...joints(d).map(([x, y]) => `<circle cx="${x}" cy="${y}" r="2.6"/>`),
    '</g>',
    '<g id="symbols" fill="none" stroke="#000" stroke-width="1.5" stroke-linejoin="round">',
  ];
  for (const s of d.symbols) {
    const art = artOf(s);
    out.push(`<g data-refs="${escapeXml(s.refs.join(' '))}">`, `<g transform="${art.transform}">`);
    for (const k of art.strokes)
      out.push(
        `<path d="${k.d}"${k.filled ? ' fill="#000" stroke="none"' : ''}${k.bold ? ' stroke-width="2.6"' : ''}${k.dashed ? ' stroke-dasharray="4 3" stroke-width="1"' : ''}/>`,
      );
    out.push('</g>');
    for (const m of art.marks)
      out.push(
        `<text x="${m.x}" y="${m.y + 3}" font-size="8.5" text-anchor="${m.anchor}" fill="#000" stroke="none">${escapeXml(m.text)}</text>`,
      );
    out.push('</g>');
  }
  out.push('</g>', '<g id="names" font-size="9" fill="#000">', ...d.names.map(nameSvg), '</g>');
  out.push('<g id="rails" font-size="10" font-weight="700" fill="#000" text-anchor="middle">');
  for (const r of d.rails)
    out.push(`<text x="${r.x + r.width / 2}" y="${r.y + r.height - 1.5}">${escapeXml(r.text)}</text>`);
  out.push('</g>', '<g id="texts" fill="#000">');
  for (const t of d.texts) {
    const own = t.text === t.of || d.symbols.some((s) => s.refs.length > 1 && s.refs[0] === t.of);
    out.push(
      `<text x="${t.x}" y="${t.y + 10}" font-size="10.5"${own ? ' font-weight="700"' : ''}${onBarrier(d, t) ? ' stroke="#fff" stroke-width="4" paint-order="stroke"' : ''}>${escapeXml(t.text)}</text>`,
    );
  }
  out.push('</g>');
  return out;
}

/** Whether the barrier runs behind a text: it is interrupted there. */
export function onBarrier({ barriers }: Drawing, text: Box): boolean {
  return barriers.some(({ points: [[x] = [0]] }) => x! > text.x && x! < text.x + text.width);
}

/** A net's name, or the sign of its reference. */
function nameSvg(n: DrawnName): string {
  if (n.sign === null)
    return `<text x="${n.x + n.width / 2}" y="${n.y + 9}" text-anchor="middle">${escapeXml(n.net)}</text>`;
  return `<path d="${signPath(n)}" fill="none" stroke="#000" stroke-width="1.5"><title>${escapeXml(n.net)}</title></path>`;
}

/** The sign of a reference at its pin, a shape of its own for each island. */
export function signPath({ at: [x, y], side, sign }: DrawnName): string {
  const [dx, dy] = STEP_TO[side];
  const to = (along: number, across: number): string =>
    `${x + dx * along - dy * across} ${y + dy * along + dx * across}`;
  const stem = `M${to(0, 0)}L${to(7, 0)}`;
  switch ((sign ?? 0) % 3) {
    case 0:
      return `${stem}M${to(7, -8)}L${to(7, 8)}M${to(10.5, -5)}L${to(10.5, 5)}M${to(14, -2)}L${to(14, 2)}`;
    case 1:
      return `${stem}M${to(7, -8)}L${to(7, 8)}L${to(15, 0)}L${to(7, -8)}`;
    default:
      return `${stem}M${to(7, -8)}L${to(7, 8)}M${to(7, -6)}L${to(14, -8)}M${to(7, 0)}L${to(14, -2)}M${to(7, 6)}L${to(14, 4)}`;
  }
}
