import { photoImage } from '@/data/photo/photoTable';
import { pool } from '@/data/pool';

export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const image = /^\d{1,18}$/u.test(id) ? await photoImage(pool(), id) : null;
  if (!image) return new Response('There is no such photograph.', { status: 404 });
  return new Response(new Uint8Array(image), {
    headers: {
      'Content-Type': 'image/webp',
      'Cache-Control': 'private, max-age=31536000, immutable',
      'Content-Security-Policy': "default-src 'none'",
    },
  });
}
