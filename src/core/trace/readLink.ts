import { ok, refuse } from '../problem';
import { parseQuantity } from '../quantity';
import type { Spot } from './fact';
import { PIN } from './settledWords';
import { at } from './shorthandProblem';
import type { Read } from './shorthandProblem';
import type { Token } from './tokens';

/** What may name a net, and what may stand between two places. */
export const NET = /^[^\s."=;:]{1,40}$/u;
export const LINK = /^-(-|\/-|~-|[^\s]+-)$/u;

/** A place of a board: a pin or a net; null for what is neither. */
export function readSpot(token: Token): Spot | null {
  const pin = PIN.exec(token.text);
  if (pin) return { kind: 'pin', ref: pin[1]!, pin: pin[2]! };
  return NET.test(token.text) ? { kind: 'net', net: token.text } : null;
}

/** No meter shows more by diode test, volts. */
const MOST_DROP = 10;

/** `A -- B`, `A -/- B`, `A -~- B`, `A -4k7- B`, `A -0.62V- B`, `A -OL- B`, and chains of `--`. */
export function readLink(line: string, list: readonly Token[]): Read {
  const spots: Spot[] = [];
  const links: Token[] = [];
  for (const [i, token] of list.entries()) {
    if (i % 2 === 1) {
      if (!LINK.test(token.text))
        return refuse(
          at(
            line,
            token,
            `“${token.text}” does not link two places.`,
            'Write -- joined, -/- not joined, -~- a beep, -4k7- for ohms, or -0.62V- for a diode test, red lead first.',
          ),
        );
      links.push(token);
      continue;
    }
    const spot = readSpot(token);
    if (!spot)
      return refuse(
        at(line, token, `“${token.text}” is neither a pin nor a net.`, 'Write a pin as R7.2 and a net as VCC.'),
      );
    spots.push(spot);
  }
  const [link, ...more] = links;
  if (spots.length !== links.length + 1 || !link)
    return refuse(at(line, undefined, 'The second place is missing.', 'Write it like R7.2 -- U1.5.'));
  if (link.text === '--') {
    const odd = more.find((m) => m.text !== '--');
    return odd
      ? refuse(at(line, odd, 'A chain is of -- alone.', 'Put the other fact on a line of its own.'))
      : ok({ kind: 'joined', spots });
  }
  if (more.length > 0)
    return refuse(at(line, more[0], 'One such fact a line.', 'Put the second on a line of its own.'));
  const pair = spots as [Spot, Spot];
  if (link.text === '-/-') return ok({ kind: 'not-joined', spots: pair });
  if (link.text === '-~-') return ok({ kind: 'low-path', spots: pair });
  const written = link.text.slice(1, -1);
  if (written.toUpperCase() === 'OL') return ok({ kind: 'drops', spots: pair, volts: null });
  const figure = parseQuantity(written);
  const unit = figure.ok ? figure.value.unit : null;
  if (figure.ok && unit === 'V' && figure.value.value >= 0 && figure.value.value <= MOST_DROP)
    return ok({ kind: 'drops', spots: pair, volts: figure.value.value });
  if (!figure.ok || figure.value.value < 0 || (unit !== null && unit !== 'ohm'))
    return refuse(
      at(
        line,
        link,
        `“${written}” is no figure in ohms, nor volts of a diode test.`,
        'Write it like -4k7- or -0.62V-.',
      ),
    );
  return ok({ kind: 'reads', spots: pair, ohms: figure.value.value });
}
