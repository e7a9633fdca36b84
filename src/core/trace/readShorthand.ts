import { BOARD_LIMITS } from '../circuit';
import type { KeyText, PartKind } from '../part';
import { ok, ownValue, refuse } from '../problem';
import { NUMERIC_KEYS, netlistNumber, netlistText } from '../netlist';
import { parseQuantity } from '../quantity';
import { readDatasheet } from './datasheetWords';
import type { Spot } from './fact';
import { LINK, NET, readLink, readSpot } from './readLink';
import { KIND_WORDS, kindOfRef, pinCount } from './partWords';
import { PIN, REF, readRole, readSettled } from './settledWords';
import { at, wrong } from './shorthandProblem';
import type { Read } from './shorthandProblem';
import { tokens } from './tokens';
import type { Token } from './tokens';

/**
 * Reads one line of the bench shorthand; null for a blank or a comment line.
 *
 * strict  a figure that cannot be read is refused too; lines of earlier versions may hold some, which say nothing.
 * The grammar stands in docs/SHORTHAND.md. It needs no knowledge of the board: `R7.2` is always a pin.
 * Refuses with the character where it went wrong, what was expected there and what to write.
 */
export function readShorthand(line: string, strict = false): Read {
  if (line.length > BOARD_LIMITS.textLength)
    return refuse(
      wrong(
        line,
        BOARD_LIMITS.textLength,
        1,
        `A line has at most ${BOARD_LIMITS.textLength} characters.`,
        'Put the rest on a line of its own.',
      ),
    );
  const words = tokens(line);
  if (!words.ok)
    return refuse(
      wrong(line, words.at, line.length - words.at, 'A double quote is not closed.', 'Close it with another ".'),
    );
  const [first, second, ...rest] = words.list;
  if (!first || first.text.startsWith('#')) return ok(null);
  if (second && !second.quoted && LINK.test(second.text)) return readLink(line, words.list);
  switch (first.text.toLowerCase()) {
    case 'net':
      return readRename(line, words.list);
    case 'split':
      return readSplit(line, words.list);
    case 'drop':
    case 'empty':
      return oneRef(line, words.list, first.text.toLowerCase() as 'drop' | 'empty');
    case 'stage':
    case 'topology':
    case 'core':
      return readSettled(line, words.list);
    case 'pin':
      return readRole(line, words.list);
    default:
      break;
  }
  if (first.text.includes('.') && !PIN.test(first.text))
    return refuse(at(line, first, 'This is no designator.', 'Write it like R7 or U1; a net has no point in its name.'));
  if (second && PIN.test(first.text) === false && REF.test(first.text)) {
    const facts = readDatasheet(line, first, [second, ...rest]);
    if (facts) return facts;
  }
  return readPart(line, words.list, strict);
}

function readRename(line: string, [, from, is, to, extra]: readonly Token[]): Read {
  if (!from || !is || !to || is.text.toLowerCase() !== 'is' || extra)
    return refuse(
      at(
        line,
        extra ?? (is && is.text.toLowerCase() !== 'is' ? is : undefined),
        'A net is renamed with “net OLD is NEW”.',
        'Write it like net N3 is VCC.',
      ),
    );
  const bad = [from, to].find((t) => !NET.test(t.text) && !(t === from && PIN.test(t.text)));
  return bad
    ? refuse(
        at(
          line,
          bad,
          `“${bad.text}” cannot name a net.`,
          'Use letters, digits, + - _ without spaces, points or colons.',
        ),
      )
    : ok({ kind: 'rename', from: from.text, to: to.text });
}

function readSplit(line: string, [, net, ...rest]: readonly Token[]): Read {
  const as = rest.findIndex((t) => t.text.toLowerCase() === 'as');
  const to = rest[as + 1];
  if (!net || as < 1 || !to || rest[as + 2])
    return refuse(
      at(
        line,
        rest[as + 2],
        'A net is split with “split NET PIN… as NEW”.',
        'Write it like split VCC R3.2 C5.1 as VCC2.',
      ),
    );
  const pins: Spot[] = [];
  for (const token of rest.slice(0, as)) {
    const spot = readSpot(token);
    if (spot?.kind !== 'pin')
      return refuse(at(line, token, `“${token.text}” is no pin.`, 'Name the pins that leave, like R3.2.'));
    pins.push(spot);
  }
  return NET.test(to.text)
    ? ok({ kind: 'split', net: net.text, pins, to: to.text })
    : refuse(at(line, to, `“${to.text}” cannot name a net.`, 'Use letters, digits, + - _.'));
}

function oneRef(line: string, [verb, ref, extra]: readonly Token[], kind: 'drop' | 'empty'): Read {
  if (!ref || !REF.test(ref.text) || extra)
    return refuse(at(line, extra ?? ref, `“${verb!.text}” wants one designator.`, `Write it like ${kind} R7.`));
  return ok({ kind, ref: ref.text });
}

/** A part: designator, kind word if needed, marking, key=value pairs, nets in pin order or as pin:net. */
function readPart(line: string, [first, ...rest]: readonly Token[], strict: boolean): Read {
  const [refText = '', windingName] = first!.text.split('.');
  if (!REF.test(refText))
    return refuse(
      at(
        line,
        first,
        `“${first!.text}” is no designator I can read.`,
        'Begin with a designator like R7, or with net, split, drop, empty, stage, topology, core or pin.',
      ),
    );
  const words = [...rest];
  let kind: PartKind | null = windingName === undefined ? kindOfRef(refText) : 'inductor';
  const named = words[0] && !words[0].quoted ? ownValue(KIND_WORDS, words[0].text.toLowerCase()) : undefined;
  const kindWord = named ? words.shift()!.text.toLowerCase() : null;
  if (named) kind = named;
  const keys: KeyText[] =
    kindWord === 'pnp' || kindWord === 'igbt' || kindWord === 'led' || kindWord === 'zener'
      ? [{ key: 'type', text: kindWord }]
      : [];
  const plain: Token[] = [];
  const pinned: { pin: string; net: string }[] = [];
  for (const token of words) {
    const pair = token.quoted ? null : /^(\w+)=(.+)$/u.exec(token.text);
    const place = token.quoted ? null : /^(\w{1,8}):([^\s:]+)$/u.exec(token.text);
    if (pair && pair[1]!.length > BOARD_LIMITS.nameLength)
      return refuse(at(line, token, 'This key is too long.', `At most ${BOARD_LIMITS.nameLength} characters.`));
    if (pair) {
      const [, name = '', text = ''] = pair;
      const key = name.toLowerCase();
      const figure = key === 'is' || NUMERIC_KEYS.has(key) ? keyFigure(text) : text;
      if (figure === null && strict)
        return refuse(
          wrong(
            line,
            token.at + name.length + 1,
            text.length,
            `“${text}” is no figure.`,
            'Write it like 4k7, 4,7k or 100n.',
          ),
        );
      keys.push({ key, text: figure ?? text });
    } else if (place) {
      if (!NET.test(place[2]!))
        return refuse(at(line, token, `“${place[2]!}” cannot name a net.`, 'Use letters, digits, + - _.'));
      if (Number(place[1]) > BOARD_LIMITS.pins)
        return refuse(at(line, token, `No part has ${place[1]} pins.`, `At most ${BOARD_LIMITS.pins}.`));
      pinned.push({ pin: place[1]!, net: place[2]! });
    } else plain.push(token);
  }
  if (kind === null)
    return refuse(
      at(
        line,
        first,
        `I cannot tell what kind of part ${refText} is.`,
        `Say it after the designator: ${refText} resistor …`,
      ),
    );
  if (plain.length === 5 && kind === 'diode' && named === undefined) kind = 'bridge';
  const count = pinCount(kind);
  const core = windingName === undefined ? null : refText;
  const ref = core === null ? refText : `${core}${windingName}`;
  const kindSaid = named !== undefined || core !== null;
  const fact = { kind: 'part' as const, ref, partKind: kind, kindSaid, keys, core };
  if (pinned.length > 0) {
    const mark = plain.map((t) => t.text).join(' ') || null;
    return ok({ ...fact, mark, pins: pinned });
  }
  if (count === null) {
    const [mark, ...nets] = plain;
    const beyond = nets[BOARD_LIMITS.pins];
    if (beyond)
      return refuse(at(line, beyond, 'These are more pins than a part has.', `At most ${BOARD_LIMITS.pins}.`));
    const netWrong = nets.find((t) => !NET.test(t.text));
    if (netWrong)
      return refuse(
        at(
          line,
          netWrong,
          `“${netWrong.text}” cannot name a net.`,
          'Use letters, digits, + - _; ? for a pin not followed yet, NC for none.',
        ),
      );
    return ok({
      ...fact,
      mark: mark && mark.text !== '?' ? mark.text : null,
      pins: nets.length > 0 ? nets.map((t, i) => ({ pin: i + 1, net: t.text })) : null,
    });
  }
  if (plain.length === 0) return ok({ ...fact, mark: null, pins: null });
  if (plain.length === 1 || (plain[0]!.quoted && plain.length === 1))
    return ok({ ...fact, mark: plain[0]!.text === '?' ? null : plain[0]!.text, pins: null });
  if (plain.length < count)
    return refuse(
      at(
        line,
        undefined,
        `${ref} has ${count} pins; ${plain.length - 1} ${plain.length === 2 ? 'net is' : 'nets are'} named after the marking.`,
        `Name ${count} nets, ? for one not followed yet.`,
      ),
    );
  if (count === 2 && plain.length === 2 && isValue(plain[0]!))
    return refuse(
      at(
        line,
        undefined,
        `${ref} has two pins; one net is named after ${plain[0]!.text}.`,
        'Name two nets, ? for one not followed yet.',
      ),
    );
  const markWords = plain.slice(0, plain.length - count);
  const nets = plain.slice(plain.length - count);
  const bad = nets.find((t) => t.quoted || !NET.test(t.text));
  if (bad)
    return refuse(
      at(
        line,
        bad,
        `“${bad.text}” cannot name a net.`,
        `The last ${count} words are nets; put the marking before them.`,
      ),
    );
  const mark = markWords.map((t) => t.text).join(' ');
  return ok({
    ...fact,
    mark: mark === '' || mark === '?' ? null : mark,
    pins: nets.map((t, i) => ({ pin: i + 1, net: t.text })),
  });
}

/**
 * A figure behind a key, as a board file writes it; null where it is none. It may be typed as on the bench (`4k7`, `4,7k`, `2M2`)
 * or as in a board file (`4.7k`, `10meg`); a capital M is mega here, whatever it is there.
 */
function keyFigure(text: string): string | null {
  const percent = text.endsWith('%');
  const body = percent ? text.slice(0, -1) : text;
  const mega = /^[\d.,]*M(?!eg|il)/iu.test(body) && body.includes('M');
  if (!mega && netlistNumber(body) !== null) return text;
  const read = parseQuantity(body);
  return read.ok ? `${netlistText(read.value.value)}${percent ? '%' : ''}` : null;
}

/** A value written out, such as 4k7 or 10uF, as against a net such as 5V. */
function isValue(token: Token): boolean {
  const read = /[A-Za-z]/u.test(token.text) ? parseQuantity(token.text) : null;
  return read?.ok === true && (read.value.unit === null || ['ohm', 'F', 'H'].includes(read.value.unit));
}
