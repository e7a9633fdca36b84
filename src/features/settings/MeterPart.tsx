'use client';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import type { Control, UseFormSetValue } from 'react-hook-form';
import { learnMeter } from '@/core/meter';
import type { LearnedMeter } from '@/core/meter';
import { FigureField } from '@/features/frame/FigureField';
import { typedFigure } from '@/features/frame/typedFigure';
import { Button } from '@/ui/Button';
import { MODAL_MIDDLE, Modal } from '@/ui/Modal';
import { Reveal } from '@/ui/Reveal';
import type { Settings } from '@/wire/settings';
import { FigureSetting } from './FigureSetting';

/** The workshop's meter: what its readings are expected and weighed by, figure by figure, or learned in three touches. */
export function MeterPart({ control, setValue }: { control: Control<Settings>; setValue: UseFormSetValue<Settings> }) {
  const meter = useWatch({ control, name: 'meter' });
  const [open, setOpen] = useState(false);
  const learned = ({ profile }: LearnedMeter): void => {
    setValue('meter', { ...profile, ohmsAmps: [...profile.ohmsAmps] }, { shouldDirty: true, shouldValidate: true });
    setOpen(false);
  };
  return (
    <>
      <div className="grid grid-cols-3 items-end gap-3 max-sm:grid-cols-2">
        <FigureSetting control={control} name="meter.diodeAmps" label="Diode test current" unit="A" />
        <FigureSetting control={control} name="meter.diodeLimitVolts" label="drives up to" unit="V" />
        <FigureSetting control={control} name="meter.diodeOverloadVolts" label="shows OL from" unit="V" />
        <FigureSetting control={control} name="meter.beepOhms" label="Beeps below" unit="ohm" />
        <FigureSetting control={control} name="meter.ohmsOverload" label="Ohms show OL above" unit="ohm" />
        <FigureSetting control={control} name="meter.lowRangeFloorOhms" label="Lowest range, floor" unit="ohm" />
      </div>
      <Reveal words="The rest of it">
        <div className="mt-2 grid grid-cols-3 items-end gap-3 max-sm:grid-cols-2">
          <FigureSetting control={control} name="meter.diodeFraction" label="Diode test, ± %" unit="1" scale={100} />
          <FigureSetting control={control} name="meter.diodeFloorVolts" label="and at least" unit="V" />
          <FigureSetting control={control} name="meter.ohmsFraction" label="Ohms, ± %" unit="1" scale={100} />
          <FigureSetting control={control} name="meter.lowRangeOhms" label="Lowest range ends at" unit="ohm" />
          <FigureSetting control={control} name="meter.ohmsRangeVolts" label="Volts at a range's end" unit="V" />
        </div>
        <p className="mt-3 mb-1 text-sm text-faint">Test current of each resistance range, the lowest first</p>
        <div className="grid grid-cols-6 gap-2 max-sm:grid-cols-3">
          {meter.ohmsAmps.map((_, i) => (
            <FigureSetting key={i} control={control} name={`meter.ohmsAmps.${i}`} label={`Range ${i + 1}`} unit="A" />
          ))}
        </div>
      </Reveal>
      <Button className="self-start" onClick={() => setOpen(true)}>
        Learn my meter in three touches
      </Button>
      <Modal
        open={open}
        onOpenChange={setOpen}
        title="Learn my meter in three touches"
        heading="mb-1 text-lg font-semibold"
        note="Touch each with the meter's own leads and type what it shows. On an overload leave the field empty."
        look={`${MODAL_MIDDLE} w-[34rem] border border-line`}
      >
        <Learn known={meter} onLearned={learned} />
      </Modal>
    </>
  );
}

function Learn({ known, onLearned }: { known: Settings['meter']; onLearned(learned: LearnedMeter): void }) {
  const [short, setShort] = useState('');
  const [rectifier, setRectifier] = useState('');
  const [resistor, setResistor] = useState('');
  const [volts, setVolts] = useState('');
  const read = {
    short: typedFigure(short, 'ohm', true),
    rectifier: typedFigure(rectifier, 'V'),
    resistor: typedFigure(resistor, 'ohm'),
    resistorVolts: typedFigure(volts, 'V'),
  };
  const { short: s, rectifier: d, resistor: r } = read;
  const sound = s !== null && d !== null && r !== null && s < 10 && d > 0.2 && d < 1 && r > 5e3 && r < 20e3;
  const learned = sound
    ? learnMeter({ short: s, rectifier: d, resistor: r, resistorVolts: read.resistorVolts }, known)
    : null;
  return (
    <div className="flex flex-col gap-3">
      <FigureField
        label="1. Leads on each other, ohms"
        unit="ohm"
        zero
        autoFocus
        value={short}
        onChange={(e) => setShort(e.target.value)}
        placeholder="0.2"
      />
      <FigureField
        label="2. A rectifier diode of the 1 A class, forward, diode test"
        unit="V"
        value={rectifier}
        onChange={(e) => setRectifier(e.target.value)}
        placeholder="0.57"
      />
      <div className="grid grid-cols-2 gap-3">
        <FigureField
          label="3. A 10 kΩ resistor, ohms"
          unit="ohm"
          value={resistor}
          onChange={(e) => setResistor(e.target.value)}
          placeholder="9.98k"
        />
        <FigureField
          label="and in the diode test"
          unit="V"
          value={volts}
          onChange={(e) => setVolts(e.target.value)}
          placeholder="overload"
        />
      </div>
      <ul role="status" className="min-h-24 list-inside list-disc text-sm text-faint">
        {learned
          ? learned.why.map((w) => <li key={w}>{w}</li>)
          : short &&
            rectifier &&
            resistor && <li>These are not three such touches: 0 to 10 Ω, 0.2 to 1 V, about 10 kΩ.</li>}
      </ul>
      <Button kind="primary" className="self-end" disabled={!learned} onClick={() => learned && onLearned(learned)}>
        Take these
      </Button>
    </div>
  );
}
