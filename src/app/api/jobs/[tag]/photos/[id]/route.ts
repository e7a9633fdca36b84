import { pool } from '@/data/pool';
import { photoOf } from '@/usecases/takePhoto';
import { answerWith } from '../../../../handle';

/** A photograph, of this job only. */
export async function GET(_request: Request, { params }: { params: Promise<{ tag: string; id: string }> }) {
  const { tag, id } = await params;
  return answerWith(async () => {
    const image = await photoOf(pool(), tag, id);
    return new Response(new Uint8Array(image), {
      headers: { 'Content-Type': 'image/webp', 'Cache-Control': 'private, max-age=31536000, immutable' },
    });
  });
}
