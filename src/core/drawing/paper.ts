import type { Drawing } from './drawing';
import { FACE, drawingMarkup, escapeXml } from './svg';

/** Sheets of paper that a drawing is printed on, lying: millimetres. */
export const PAPERS = { A4: [297, 210], A3: [420, 297] } as const;
export type Paper = keyof typeof PAPERS;

/** What stands in a sheet's title block. */
export interface SheetTitle {
  readonly unit: string;
  readonly tag: string;
  readonly board: string;
  /** Who drew it and when, as they are to be read. */
  readonly who: string;
  readonly when: string;
  /** What it rests on: `drawn from 60 traced facts, 0 assumed`. */
  readonly restsOn: string;
}

/** Millimetres: the edge of the paper, the title block's height, what a letter of it takes and its size. */
const EDGE = 8;
const BLOCK = 15;
const LETTER = 1.75;
const SIZE = 3.4;
/** A drawing is not made larger than this for a sheet, millimetres a pixel: letters stay letters. */
const LARGEST = 0.3;

/** A drawing on a sheet of paper, black on white, in its frame over a title block: an SVG document in millimetres. */
export function drawingOnPaper(d: Drawing, title: SheetTitle, paper: Paper): string {
  const [width, height] = PAPERS[paper];
  const [wide, high] = [width - 2 * EDGE, height - 2 * EDGE - BLOCK];
  const scale = Math.min(LARGEST, (wide - 4) / d.width, (high - 4) / d.height);
  const x = EDGE + (wide - d.width * scale) / 2;
  const y = EDGE + (high - d.height * scale) / 2;
  const foot = EDGE + high;
  const cells = [
    { share: 0.36, head: title.tag, lines: [title.unit] },
    { share: 0.34, head: title.board, lines: [title.restsOn] },
    { share: 0.3, head: title.who, lines: [`${title.when} · ${paper}, ${Math.round(100 * scale * MM_PIXELS)} %`] },
  ];
  let left = EDGE;
  const block = cells.flatMap(({ share, head, lines }, i) => {
    const at = left;
    left += share * wide;
    const most = Math.floor((share * wide - 4) / LETTER);
    return [
      ...(i === 0 ? [] : [`<path d="M${at} ${foot}v${BLOCK}"/>`]),
      ...[head, ...lines].map(
        (line, k) =>
          `<text x="${at + 2.5}" y="${foot + 6 + 5.5 * k}" font-size="${SIZE}" stroke="none" fill="#000"${k === 0 ? ' font-weight="700"' : ''}>${escapeXml(short(line, most))}</text>`,
      ),
    ];
  });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}mm" height="${height}mm" ${FACE}>`,
    `<title>${escapeXml(`${title.tag} ${title.board}`)}</title>`,
    `<rect width="${width}" height="${height}" fill="#fff"/>`,
    `<g id="drawing" transform="translate(${x.toFixed(3)} ${y.toFixed(3)}) scale(${scale.toFixed(5)})">`,
    ...drawingMarkup(d),
    '</g>',
    '<g id="title" fill="none" stroke="#000" stroke-width="0.35">',
    `<rect x="${EDGE}" y="${EDGE}" width="${wide}" height="${high + BLOCK}"/>`,
    `<path d="M${EDGE} ${foot}h${wide}"/>`,
    ...block,
    '</g>',
    '</svg>',
  ].join('\n');
}

/** Pixels to a millimetre on a screen of 96 to the inch. */
const MM_PIXELS = 96 / 25.4;

const short = (text: string, most: number): string => (text.length <= most ? text : `${text.slice(0, most - 1)}…`);
