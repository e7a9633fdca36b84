import { NextResponse } from 'next/server';
import { databaseState } from '@/data/health';
import { log } from '@/data/log';
import { pool } from '@/data/pool';
import { version } from '@/data/version';

export const dynamic = 'force-dynamic';

/** For whoever watches over the server: version and state of the database; 503 where that does not answer. */
export async function GET() {
  try {
    return NextResponse.json({ version: version(), database: { state: 'ok', ...(await databaseState(pool())) } });
  } catch (err) {
    log().warn({ err }, 'the database does not answer');
    return NextResponse.json({ version: version(), database: { state: 'silent' } }, { status: 503 });
  }
}
