import { pool } from '@/data/pool';
import { benchPulse } from '@/usecases/pulse';
import { answer } from '../handle';

export const dynamic = 'force-dynamic';

export function GET() {
  return answer(() => benchPulse(pool()));
}
