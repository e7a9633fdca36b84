import type { Pool } from 'pg';
import type { Board } from '@/core/circuit';
import { markPhoto, takePhoto } from '@/usecases/takePhoto';
import { boardPicture } from './boardPicture';

/** Parts whose pads the demo has pinned. */
const PINNED = ['J1', 'F1', 'BD1', 'C1', 'M1', 'R7', 'U1', 'D1', 'C8', 'J2'];

/** Gives a demo job its two photographs, registered, with some parts pinned. */
export async function seedPhotos(pool: Pool, tag: string, boardId: string, board: Board, now: Date): Promise<void> {
  const picture = await boardPicture(board);
  await takePhoto(pool, tag, boardId, 'front', picture.front, now);
  await takePhoto(pool, tag, boardId, 'back', picture.back, now);
  // A hand marks within a pixel or two.
  const corners = ['J1 0', 'C1 0', 'R10 0', 'C6 1', 'R16 0', 'J2 1'].flatMap((key) => picture.pads.get(key) ?? []);
  for (const [i, front] of corners.entries()) {
    const back = picture.onBack(front);
    await markPhoto(
      pool,
      tag,
      boardId,
      { kind: 'pair', front, back: { x: back.x + (i % 3) - 1, y: back.y + ((i + 1) % 3) - 1 } },
      now,
    );
  }
  for (const ref of PINNED) {
    const at = picture.parts.get(ref);
    if (at) await markPhoto(pool, tag, boardId, { kind: 'pin', pinned: { ref, pin: null, side: 'front', at } }, now);
    const part = board.parts.find((p) => p.ref === ref);
    for (const pin of part && part.nets.length <= 3 ? part.nets.keys() : []) {
      const pad = picture.pads.get(`${ref} ${pin}`);
      if (pad)
        await markPhoto(
          pool,
          tag,
          boardId,
          { kind: 'pin', pinned: { ref, pin, side: 'back', at: picture.onBack(pad) } },
          now,
        );
    }
  }
}
