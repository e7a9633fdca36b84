import { ok, refuse } from '../problem';
import { CORE_PURPOSES, PIN_ROLES, STAGE_KINDS, TOPOLOGIES } from '../stages';
import { at } from './shorthandProblem';
import type { Read } from './shorthandProblem';
import type { Token } from './tokens';

export const REF = /^[A-Za-z]{1,5}\d{0,4}[A-Za-z]{0,3}$/u;
export const PIN = /^([A-Za-z]{1,5}\d{0,4}[A-Za-z]{0,3})\.(\w{1,8})$/u;
/** What can be settled of a part by one word. */
export const SETTLED: Readonly<Record<'stage' | 'topology' | 'core', readonly string[]>> = {
  stage: STAGE_KINDS,
  topology: TOPOLOGIES,
  core: CORE_PURPOSES,
};

export function readSettled(line: string, [verb, ref, word]: readonly Token[]): Read {
  const key = verb!.text.toLowerCase() as keyof typeof SETTLED;
  const words = SETTLED[key];
  if (!ref || !REF.test(ref.text)) return refuse(at(line, ref, 'Which part?', `Write it like ${key} R7 ${words[0]}.`));
  const known = words.find((k) => k === word?.text.toLowerCase());
  return known
    ? ok({ kind: 'settled', ref: ref.text, key, value: known })
    : refuse(
        at(line, word, `This is no ${key === 'core' ? 'purpose of a core' : key}.`, `One of ${words.join(', ')}.`),
      );
}

export function readRole(line: string, [, pin, word]: readonly Token[]): Read {
  const spot = pin && PIN.exec(pin.text);
  if (!spot || !/^\d+$/u.test(spot[2]!)) return refuse(at(line, pin, 'Which pin?', 'Write it like pin U1.3 FB.'));
  const role = PIN_ROLES.find((r) => r === word?.text.toUpperCase());
  return role
    ? ok({ kind: 'settled', ref: spot[1]!, key: `role${spot[2]!}`, value: role })
    : refuse(at(line, word, 'This is no role of a pin.', `One of ${PIN_ROLES.join(', ')}.`));
}
