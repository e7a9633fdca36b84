import sharp from 'sharp';
import { photosOf } from '@/data/photo/photoTable';
import { testDatabase } from '@/data/testDatabase';
import { NewJob } from '@/wire/jobForm';
import { createJob } from './createJob';
import { findBoards } from '@/data/board/findBoards';
import { markPhoto, photoOf, photosOfBoard, readPicture, takePhoto } from './takePhoto';

const NOW = new Date('2026-11-25T10:00:00Z');
let db: Awaited<ReturnType<typeof testDatabase>>;
let boardId: string;

const intake = (tag: string, board: object) =>
  NewJob.parse({
    tag,
    unit: tag === 'P-1' ? 'Skerry test supply' : 'Another unit',
    nameplate: {},
    complaint: '',
    symptoms: [],
    sources: [{ name: 'Mains lead', kind: 'mains' }],
    board,
    disconnected: true,
  });

beforeAll(async () => {
  db = await testDatabase();
  const job = intake('P-1', { from: 'typical', name: 'flyback-opto' });
  boardId = (await createJob(db.pool, job, NOW)).boardId;
});
afterAll(() => db.close());

const canvas = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#224433' } });
const codeOf = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: { problem?: { code: string } }) => error.problem?.code ?? String(error),
  );

test('a photograph is turned upright, made no larger than needed, and stripped of what it says about itself', async () => {
  const raw = await canvas(3000, 1500)
    .withExif({ IFD0: { Copyright: 'someone', Software: 'a camera' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer();
  expect((await sharp(raw).metadata()).exif).toBeDefined();
  const kept = await readPicture(raw);
  expect([kept.width, kept.height]).toEqual([1200, 2400]);
  const seen = await sharp(kept.image).metadata();
  expect(seen.format).toBe('webp');
  expect([seen.exif, seen.xmp, seen.icc, seen.orientation]).toEqual([undefined, undefined, undefined, undefined]);
});

test.each(['png', 'jpeg', 'webp'] as const)('%s is taken', async (kind) => {
  expect(await readPicture(await canvas(40, 30)[kind]().toBuffer())).toMatchObject({ width: 40, height: 30 });
});

test('what is no picture, is cut short or far too large is refused by its own reason', async () => {
  const png = await canvas(300, 200).png().toBuffer();
  const huge = Buffer.from(png);
  huge.writeUInt32BE(60_000, 16);
  huge.writeUInt32BE(60_000, 20);
  expect(
    await codeOf(readPicture(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'))),
  ).toBe('not-a-picture');
  expect(await codeOf(readPicture(Buffer.from('GIF89a......')))).toBe('not-a-picture');
  expect(await codeOf(readPicture(Buffer.alloc(0)))).toBe('not-a-picture');
  expect(await codeOf(readPicture(png.subarray(0, 60)))).toBe('broken-picture');
  expect(await codeOf(readPicture(png.subarray(0, png.length - 30)))).toBe('broken-picture');
  expect(['too-many-pixels', 'broken-picture']).toContain(await codeOf(readPicture(huge)));
  const disguised = Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    Buffer.from('<svg/>'),
  ]);
  expect(await codeOf(readPicture(disguised))).toBe('broken-picture');
  expect(await photosOf(db.pool, boardId)).toEqual([]);
});

test('the newest picture of a side counts, the older one stays', async () => {
  const first = await takePhoto(db.pool, 'P-1', boardId, 'front', await canvas(50, 40).png().toBuffer(), NOW);
  const second = await takePhoto(db.pool, 'P-1', boardId, 'front', await canvas(70, 40).png().toBuffer(), NOW);
  await takePhoto(db.pool, 'P-1', boardId, 'back', await canvas(60, 40).png().toBuffer(), NOW);
  expect((await photosOf(db.pool, boardId)).map((p) => [p.side, p.width])).toEqual([
    ['back', 60],
    ['front', 70],
  ]);
  expect((await sharp(await photoOf(db.pool, 'P-1', first.id)).metadata()).width).toBe(50);
  expect(second.id).not.toBe(first.id);
  // Only under its own job, whoever knows its number.
  await createJob(db.pool, intake('P-2', { from: 'typical', name: 'buck-module' }), NOW);
  for (const [tag, id] of [
    ['P-2', first.id],
    ['P-1', '999999'],
    ['P-1', 'constructor'],
  ] as const)
    expect(await codeOf(photoOf(db.pool, tag, id))).toBe('no-such-photo');
  expect(await codeOf(photosOfBoard(db.pool, 'P-2', boardId))).toBe('board-gone');
  expect((await photosOfBoard(db.pool, 'P-1', boardId)).photos).toHaveLength(2);
  expect(await codeOf(takePhoto(db.pool, 'P-1', '999999', 'front', await canvas(5, 5).png().toBuffer(), NOW))).toBe(
    'board-gone',
  );
});

test('marks of two people at once are all kept', async () => {
  const at = (i: number) => ({ x: i, y: i });
  await Promise.all(
    Array.from({ length: 8 }, (_, i) =>
      markPhoto(db.pool, 'P-1', boardId, { kind: 'pair', front: at(i), back: at(10 + i) }, NOW),
    ),
  );
  await Promise.all(
    ['R1', 'R2', 'C1'].map((ref, i) =>
      markPhoto(db.pool, 'P-1', boardId, { kind: 'pin', pinned: { ref, pin: null, side: 'front', at: at(i) } }, NOW),
    ),
  );
  const marks = await markPhoto(
    db.pool,
    'P-1',
    boardId,
    { kind: 'pin', pinned: { ref: 'R1', pin: null, side: 'front', at: at(99) } },
    NOW,
  );
  expect(marks.pairs).toHaveLength(8);
  expect(marks.pinned.map((p) => p.ref).sort()).toEqual(['C1', 'R1', 'R2']);
  expect(marks.pinned.find((p) => p.ref === 'R1')!.at).toEqual(at(99));
  const swapped = await markPhoto(db.pool, 'P-1', boardId, { kind: 'swap-pairs', first: 0, second: 1 }, NOW);
  expect([swapped.pairs[0]!.front, swapped.pairs[1]!.front]).toEqual([marks.pairs[1]!.front, marks.pairs[0]!.front]);
  expect((await markPhoto(db.pool, 'P-1', boardId, { kind: 'drop-pair', index: 0 }, NOW)).pairs).toHaveLength(7);
  expect(
    (await markPhoto(db.pool, 'P-1', boardId, { kind: 'unpin', ref: 'C1', pin: null, side: 'front' }, NOW)).pinned,
  ).toHaveLength(2);
});

test('a board is found by its unit, its title or any marking; signs of the pattern are plain signs', async () => {
  const refs = async (words: string): Promise<string[]> => (await findBoards(db.pool, words)).map((f) => f.tag);
  expect(await refs('skerry test')).toEqual(['P-1']);
  expect(await refs('kbl406')).toEqual(['P-1']);
  expect(await refs('%')).toEqual([]);
  expect(await refs('nothing like it')).toEqual([]);
  // Found through what is kept beside the boards, not by reading each.
  const plan = await db.pool.query(
    `begin; set local enable_seqscan = off; explain select id from board where printed ilike '%kbl406%'; rollback`,
  );
  expect(JSON.stringify(plan)).toContain('board_printed');
});
