import { ARCHETYPES, archetypeBoard } from '@/core/archetype';
import { pool } from '@/data/pool';
import { jobByTag } from '@/data/job/jobTable';
import { NewJobScreen } from '@/features/intake/NewJobScreen';
import type { IntakeForm } from '@/features/intake/useIntakeForm';

export const dynamic = 'force-dynamic';

export default async function NewJobPage({ searchParams }: { searchParams: Promise<{ from?: string }> }) {
  const { from } = await searchParams;
  const other = from === undefined ? null : await jobByTag(pool(), from);
  const circuits = ARCHETYPES.map(({ name, title, describes, nameplate }) => ({
    name,
    title,
    describes,
    nameplate,
    parts: archetypeBoard(name)?.parts.length ?? 0,
  }));
  return <NewJobScreen circuits={circuits} from={other?.tag ?? null} first={other ? sameAs(other) : {}} />;
}

/** A "same as" job keeps the unit and its nameplate, never the tag, the serial or the complaint. */
function sameAs(other: NonNullable<Awaited<ReturnType<typeof jobByTag>>>): Partial<IntakeForm> {
  const text = (value: number | undefined): string => (value === undefined ? '' : String(value));
  const [output] = other.nameplate.outputs ?? [];
  return {
    unit: other.unit,
    input: other.nameplate.input ?? '',
    sourceKind: other.nameplate.source ?? 'mains',
    inputMin: text(other.nameplate.inputMin),
    inputMax: text(other.nameplate.inputMax),
    outputVolts: text(output?.volts),
    outputAmps: text(output?.amps),
  };
}
