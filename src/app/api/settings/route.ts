import { pool } from '@/data/pool';
import { changeSettings } from '@/usecases/settings';
import { Settings } from '@/wire/settings';
import { handleChange } from '../handle';

export async function PUT(request: Request) {
  return handleChange(request, Settings, 20_000, (settings) => changeSettings(pool(), settings, new Date()));
}
