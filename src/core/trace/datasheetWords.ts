import { parseQuantity } from '../quantity';
import { ok, ownValue, refuse } from '../problem';
import type { Fact } from './fact';
import { at } from './shorthandProblem';
import type { Read } from './shorthandProblem';
import type { Token } from './tokens';

/** What a role and a word after it mean: the fact key of facts.md. */
const WORDS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  vcc: { on: 'vccStart', off: 'vccStop', out: 'vccOut' },
  fb: { ref: 'fbRef', pullup: 'fbPullup', rail: 'fbRail', offset: 'fbOffset', divide: 'fbDivide' },
  cs: { max: 'csMax' },
  en: { on: 'enableOn', off: 'enableOff' },
  uv: { on: 'uvOn', off: 'uvOff' },
  coil: { on: 'coilOn', off: 'coilOff' },
  draws: { start: 'iStart', run: 'iRun' },
  switch: { at: 'fSwitch', ron: 'switchRon', vr: 'switchVr', limit: 'iLimit', duty: 'dutyMax' },
  ref: { out: 'vRef' },
  out: { volts: 'vOut' },
  ctr: { is: 'ctr' },
  fires: { at: 'breakover', from: 'iTrigger' },
  lit: { at: 'vLit' },
};
const UNITS = new Set(['v', 'a', 'hz', 'ohm', 's', 'khz', 'ma', 'ua']);

/** `U1 VCC on 16 V off 9 V`: data-sheet facts in words; null when the line is none. */
export function readDatasheet(line: string, ref: Token, rest: readonly Token[]): Read | null {
  const role = ownValue(WORDS, rest[0]!.text.toLowerCase());
  if (!role || rest.length < 2 || ownValue(role, rest[1]!.text.toLowerCase()) === undefined) return null;
  const values: Record<string, number> = {};
  let i = 1;
  while (i < rest.length) {
    const word = rest[i]!;
    const key = ownValue(role, word.text.toLowerCase());
    if (key === undefined)
      return refuse(
        at(line, word, `“${word.text}” is no word for ${rest[0]!.text}.`, `Use ${Object.keys(role).join(', ')}.`),
      );
    const figure = rest[i + 1];
    const unit = rest[i + 2] && UNITS.has(rest[i + 2]!.text.toLowerCase()) ? rest[i + 2]!.text : '';
    const read = figure ? parseQuantity(`${figure.text}${unit === '' ? '' : ` ${unit}`}`) : null;
    if (!read?.ok)
      return refuse(at(line, figure, `A figure is wanted after “${word.text}”.`, 'Write it like 16 V or 65 kHz.'));
    values[key] = read.value.value;
    i += unit === '' ? 2 : 3;
  }
  const fact: Fact = { kind: 'datasheet', ref: ref.text, values };
  return ok(fact);
}
