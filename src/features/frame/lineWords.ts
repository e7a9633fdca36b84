import type { LedgerBodies } from '@/core/ledger';
import type { ExpectedReading } from '@/core/expect';
import { MODE_UNITS } from '@/core/meter';
import type { UnpoweredMode } from '@/core/meter';
import { formatQuantity, formatVolts } from '@/core/quantity';
import { UNTRACED } from '@/core/safety';
import { SUM_TITLES } from '@/core/sums';
import { SWEEP_COLUMNS } from '@/core/sweep';
import type { PoweredMode } from '@/core/work';
import type { StoredEntry } from '@/wire/ledger';
import { plateWords } from './plateWords';

type Correction = LedgerBodies['correction'];

/** A reading's figure as a meter shows it. */
export function seenWords(
  mode: UnpoweredMode,
  seen: { kind: string; value?: number; unsteady?: boolean | undefined },
): string {
  if (seen.kind === 'overload') return 'OL';
  if (seen.kind === 'agrees') return 'agrees';
  const value = seen.value ?? 0;
  return `${seen.unsteady ? '~' : ''}${figureWords(mode, value)}`;
}

/** A figure of a reading in its unit. */
export function figureWords(mode: UnpoweredMode, value: number, digits?: number): string {
  return mode === 'diode' ? formatVolts(value) : formatQuantity(value, MODE_UNITS[mode], digits);
}

/** What an unpowered board is read with, by name. */
export const MODE_NAMES = {
  diode: 'Diode test',
  ohms: 'Ohms',
  continuity: 'Continuity',
  esr: 'ESR meter',
  cap: 'Capacitance',
  ring: 'Ring tester',
} as const satisfies Record<UnpoweredMode, string>;

/** Meters on a unit under power, by name. */
export const POWERED_NAMES = { dcv: 'DC volts', acv: 'AC volts', ripple: 'Ripple', freq: 'Frequency' } as const;

/** How much of the load was connected. */
export const LOAD_CHOICES = { none: 'No load', half: 'Half', full: 'Full' } as const;
export const LOAD_WORDS = { none: 'no load', half: 'half load', full: 'full load' } as const;

/** What such a meter shows. */
export const poweredWords = (mode: PoweredMode, value: number): string =>
  mode === 'freq' ? formatQuantity(value, 'Hz', 4) : formatQuantity(value, 'V', 4);

/** The same within a line. */
export const MODE_WORDS = {
  diode: 'diode test',
  ohms: 'ohms',
  continuity: 'continuity',
  esr: 'ESR',
  cap: 'capacitance',
  ring: 'ring test',
} as const satisfies Record<UnpoweredMode, string>;

/** One ledger line in words. */
export function lineWords(entry: StoredEntry): { readonly head: string; readonly text: string } {
  switch (entry.kind) {
    case 'reading':
      return {
        head: `${MODE_WORDS[entry.body.mode]} ${seenWords(entry.body.mode, entry.body.seen)}`,
        text: `red ${entry.body.red}, black ${entry.body.black}${entry.body.purpose === 'probe' ? '' : `, ${entry.body.purpose.replace('-', ' ')}`}`,
      };
    case 'powered-reading': {
      const { mode, red, black, value, unsteady, source, load } = entry.body;
      return {
        head: `${POWERED_NAMES[mode]} ${unsteady ? '~' : ''}${poweredWords(mode, value)}`,
        text: `red ${red}, black ${black}, fed ${formatQuantity(source, 'V')}, ${LOAD_WORDS[load]}`,
      };
    }
    case 'finding':
      return { head: `seen: ${entry.body.words}`, text: entry.body.place };
    case 'isolation':
      return { head: 'isolated', text: entry.body.source };
    case 'discharge-proof':
      return {
        head: `${entry.body.refs[0] === UNTRACED ? 'what is not traced' : entry.body.refs[0]} read ${formatVolts(entry.body.volts)}`,
        text: entry.body.meterProved ? 'meter proved before and after' : 'meter not proved',
      };
    case 'recharged':
      return { head: 'proofs ended', text: entry.body.why };
    case 'site':
      return { head: entry.body.wet ? 'the place is wet' : 'the place is dry', text: '' };
    case 'trace':
      return { head: entry.body.text, text: 'traced' };
    case 'action':
      return { head: entry.body.words, text: '' };
    case 'override':
      return { head: `went on without ${entry.body.what}`, text: entry.body.reason };
    case 'fault':
      return { head: `fault called: ${entry.body.fault}`, text: entry.body.words };
    case 'check-skipped':
      return { head: `${entry.body.ref} not checked`, text: entry.body.reason };
    case 'step-closed':
      return { head: `${entry.body.step} closed`, text: '' };
    case 'replacement':
      return { head: `${entry.body.ref} replaced (${entry.body.fitted.source})`, text: entry.body.words };
    case 'safety-test':
      return { head: `${entry.body.test}: ${entry.body.result}`, text: '' };
    case 'sum':
      return {
        head: `sum: ${SUM_TITLES[entry.body.name] ?? entry.body.name}`,
        text: entry.body.words,
      };
    case 'modification':
      return { head: `modified: ${entry.body.title}`, text: entry.body.why };
    case 'modification-verdict':
      return {
        head: entry.body.verified ? 'modification verified' : 'modification not verified',
        text: entry.body.words,
      };
    case 'sweep':
      return { head: `sweep: ${entry.body.title}`, text: `set by ${SWEEP_COLUMNS[entry.body.setBy].words}` };
    case 'sweep-rows':
      // What a single row says is read where it is shown (`SweepRowWords`).
      return { head: entry.body.count === 1 ? 'a row of a sweep' : `${entry.body.count} rows of a sweep`, text: '' };
    case 'job-state': {
      const { outcome, waitingFor, archived } = entry.body;
      return {
        head: archived
          ? 'job put away'
          : outcome === 'open'
            ? 'job open'
            : `job closed: ${outcome.replaceAll('-', ' ')}`,
        text: waitingFor && `waiting for ${waitingFor}`,
      };
    }
    case 'correction':
      return { head: `corrected: ${Object.keys(entry.body).join(', ')}`, text: correctionWords(entry.body) };
    case 'damaged':
      return {
        head: `damaged: a ${entry.body.kind} line that cannot be read`,
        text: 'kept as it is; the export holds it',
      };
    case 'reversal':
      return { head: 'undone', text: entry.body.reason };
  }
}

/** What a correction says, as far as it is in words; what it was before stands in what came before it. */
function correctionWords({ unit, serial, nameplate, complaint, history, accessories, sources }: Correction): string {
  const said = [unit, serial, nameplate && plateWords(nameplate), complaint, history, accessories];
  return [...said, sources?.map((s) => s.name).join(', ')].filter(Boolean).join('; ');
}

/** An expected reading as a band. */
export function expectedWords(e: ExpectedReading): string {
  const show = (v: number): string => figureWords(e.mode, v);
  if (e.unit === 'cycles') return e.judged && e.low !== null ? `${show(Math.ceil(e.low))} or more` : 'not told';
  if (e.nominal === null) return 'OL';
  return e.low !== null && e.high !== null ? `${show(e.low)} to ${show(e.high)}` : show(e.nominal);
}
