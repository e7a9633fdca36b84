'use client';
import { useMemo } from 'react';
import { placesOnNet } from '@/core/circuit';
import type { LimiterStep } from '@/core/diagnose';
import { limiterWatts } from '@/core/diagnose';
import { formatQuantity } from '@/core/quantity';
import { recogniseStages } from '@/core/stages';
import type { IslandHazard } from '@/core/stages';
import { useJob } from '@/features/job/JobContext';
import { useSettings } from '@/features/job/SettingsContext';
import { useSuspects } from '@/features/job/SuspectsContext';
import { Notice } from '@/ui/Notice';
import type { WorkingUnit } from '@/workers/workingMessages';

const CLIPS: Readonly<Record<IslandHazard, string>> = {
  mains:
    'Never clip an earthed instrument here: it shorts the rectifier. Meter on its own, or the unit behind an isolating transformer.',
  hv: 'Earthed instruments only once its reference is proved isolated from the mains; probes rated for it.',
  battery: 'An earthed instrument may be clipped only while no charger ties the battery to the mains.',
  elv: 'Isolated low voltage: an earthed instrument may be clipped here once the barrier is read above 1 MΩ.',
};

const LAMP_INKS: Readonly<Record<LimiterStep['lamp'], string>> = {
  bright: 'text-oxide font-semibold',
  pulses: 'text-brass',
  dim: '',
  dark: 'text-faint',
};

/** The first power, as far as expectation goes: the limiter, what it shows sound and under each suspect, where to clip. */
export function PowerUpView({
  steps,
  unit,
  source,
}: {
  steps: readonly LimiterStep[] | null;
  unit: WorkingUnit | null;
  source: number | null;
}) {
  const { active } = useJob();
  const { board } = active;
  const { weighed, share } = useSuspects();
  const mains = board.nameplate?.source === 'mains';
  const islands = useMemo(() => recogniseStages(board).islands.filter((i) => i.nets.length > 1), [board]);
  const full = Math.max(0, ...(steps ?? []).filter((s) => s.fault === 'none').map((s) => s.watts));
  const permit = weighed?.permit;
  const { instruments } = useSettings();
  const has = (code: string): boolean => instruments.includes(code);
  return (
    <div className="flex flex-col gap-4">
      {permit && !permit.allowed && (
        <Notice kind="trouble">
          <strong>Do not power this yet.</strong> {permit.reasons.join(' ')} The readings that earn it stand under
          Probe.
        </Notice>
      )}
      {!permit && (
        <Notice kind="note">
          {share < 1 ? 'What may be wrong is still being worked out: ' : ''}whether it may be powered is not known yet.
        </Notice>
      )}
      {mains ? (
        <p>
          Through a filament lamp of{' '}
          <strong className="figure">{formatQuantity(limiterWatts(unitWatts(board) || full), 'W')}</strong> in series,
          no load connected, straight to {source === null ? 'its source' : formatQuantity(source, 'V')}; switch off
          after 3 s if it stays bright. An LED lamp limits nothing.
          {has('isolation') && ' The isolating transformer comes first, then the lamp.'}
          {has('variac') &&
            ' The variable transformer comes before the lamp: raise it past where the unit starts without waiting, for a switched supply draws more at a low mains, not less.'}
        </p>
      ) : (
        <p>
          From a supply with a current limit set to{' '}
          <strong className="figure">
            {source ? formatQuantity(Math.max((1.5 * full) / source, 0.1), 'A', 2) : 'a little above its idle current'}
          </strong>
          , no load connected; switch off if it stays in its limit.
        </p>
      )}
      {steps === null ? (
        <p role="status" className="text-faint">
          Working out what would be seen under each suspect …
        </p>
      ) : (
        <table className="w-full" aria-label="What the first power shows">
          <thead className="text-left text-sm text-faint">
            <tr>
              <th className="font-normal">Were it</th>
              <th className="w-16 pr-4 text-right font-normal">Odds</th>
              <th className="w-64 font-normal">{mains ? 'the lamp' : 'the supply'}</th>
              <th className="w-20 pr-4 text-right font-normal">takes</th>
              <th className="font-normal">the outputs</th>
            </tr>
          </thead>
          <tbody>
            {steps.map((s) => (
              <tr
                key={s.fault}
                className={`border-t border-line align-baseline ${s.fault === 'none' ? 'font-semibold' : ''}`}
              >
                <td className="py-1">{s.words}</td>
                <td className="figure pr-4 text-right">
                  {Number.isNaN(s.share) ? '' : `${Math.round(100 * s.share)} %`}
                </td>
                <td className={LAMP_INKS[s.lamp]}>{mains ? s.shows : SUPPLY[s.lamp]}</td>
                <td className="figure pr-4 text-right">{formatQuantity(s.watts, 'W', 2)}</td>
                <td className="figure">
                  {s.rails.map((r) => (
                    <span key={r.net} className="mr-4 whitespace-nowrap">
                      {r.net} {r.volts === null ? 'nothing' : formatQuantity(r.volts, 'V', 3)}
                    </span>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <section aria-label="Where the black lead goes">
        <h2 className="text-sm text-faint">Where the black lead goes</h2>
        <ul>
          {islands.map((i) => (
            <li key={i.reference} className="border-t border-line py-1">
              <strong>{placesOnNet(board, i.reference)[0]?.words ?? i.reference}</strong>{' '}
              <span className="figure text-sm text-faint">{i.reference}</span>
              <span className="block text-sm">
                {unit?.rails.length ? highest(unit, i.nets) : ''} {CLIPS[i.hazard]}
                {i.hazard === 'mains' && !has('isolation') && ' There is none among the instruments.'}
              </span>
            </li>
          ))}
        </ul>
      </section>
      <p className="text-sm text-faint">
        Local rules and licensed practice come first. The order of the readings follows the start of the unit: source,
        rectified rail, supply pins, outputs.
      </p>
    </div>
  );
}

const SUPPLY: Readonly<Record<LimiterStep['lamp'], string>> = {
  bright: 'stays in its limit: switch off',
  dim: 'a steady current',
  dark: 'next to nothing',
  pulses: 'a current that pulses',
};

function unitWatts(board: Parameters<typeof recogniseStages>[0]): number {
  return (board.nameplate?.outputs ?? []).reduce((sum, o) => sum + (o.kind === 'pulse' ? 0 : o.volts * o.amps), 0);
}

/** What a meter or probe must bear on an island. */
function highest({ rails }: WorkingUnit, nets: readonly string[]): string {
  const own = new Set(nets.map((n) => n.toLowerCase()));
  const most = Math.max(0, ...rails.filter((r) => own.has(r.net.toLowerCase())).map((r) => Math.abs(r.volts)));
  return most > 0 ? `Rails up to ${formatQuantity(most, 'V')}.` : '';
}
