import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { SUMS, sumsDocument } from '.';

test('the published page of sums is the one made from the catalogue', () => {
  const path = join(__dirname, '../../../docs/SUMS.md');
  if (process.env['WRITE_SCHEMA']) writeFileSync(path, sumsDocument());
  expect(readFileSync(path, 'utf8')).toBe(sumsDocument());
});

test('it tells every sum, every input and every result', () => {
  const page = sumsDocument();
  for (const sum of SUMS) {
    const from = page.indexOf(`\`${sum.name}\``);
    expect([sum.name, from > 0]).toEqual([sum.name, true]);
    const section = page.slice(from, page.indexOf('Source:', from));
    for (const { key } of sum.inputs) expect(section).toContain(`\`${key}\``);
    for (const key of Object.keys(sum.resultWords)) expect(section).toContain(`\`${key}\``);
  }
});
