import './choices';
import { poweredPlace } from '@/core/job';
import { PoweredReader, alivePoint, alivePoints, railVolts, withReadings, workedVolts } from '@/core/work';
import type { AlivePoint, MeasuredUnit, TakenReading } from '@/core/work';
import { statedUnit } from './statedUnit';
import type { PoweredAnswer, PoweredAsked, PoweredUnit } from './poweredMessages';

/** The unit worked out last, and with what was read on it. */
let sound: PoweredReader | null = null;
let read: readonly TakenReading[] = [];
let measured: MeasuredUnit | null = null;

/** Works out a unit under power away from the page. */
self.onmessage = ({ data }: MessageEvent<PoweredAsked>): void => {
  try {
    self.postMessage(answerTo(data));
  } catch (error) {
    const failed: PoweredAnswer = {
      type: 'failed',
      id: data.id,
      sentence: error instanceof Error ? error.message : String(error),
    };
    self.postMessage(failed);
  }
};

function answerTo(asked: PoweredAsked): PoweredAnswer {
  const { id } = asked;
  switch (asked.type) {
    case 'rails':
      return { type: 'rails', id, volts: workedVolts(asked.board) };
    case 'expected': {
      const reader = PoweredReader.at(asked.board, asked.condition, []);
      const rests = reader.operation.warnings.length === 0;
      const readings = asked.places.map((p) => (rests ? (reader.read(p.mode, p.red, p.black) ?? null) : null));
      return { type: 'expected', id, readings };
    }
    case 'place': {
      const { mode, red, black } = asked;
      return { type: 'place', id, point: pointAt('another place', { mode, red, black }) };
    }
    case 'unit':
      sound = measured = null;
      sound = PoweredReader.at(asked.board, asked.condition, []);
      return { type: 'unit', id, unit: withWhatWasRead(sound, asked.readings) };
    case 'readings':
      if (!sound) throw new Error('No unit was worked out yet.');
      return { type: 'unit', id, unit: withWhatWasRead(sound, asked.readings) };
  }
}

function withWhatWasRead(unit: PoweredReader, readings: readonly TakenReading[]): PoweredUnit {
  [read, measured] = [readings, null];
  measured = withReadings(unit, readings);
  const asSound = alivePoints(unit);
  const points = readings.length === 0 ? asSound : asSound.map((p) => (isRead(p) ? p : (pointAt(p.what, p) ?? p)));
  return { ...statedUnit(measured), points, rails: railVolts(measured.reader) };
}

function isRead(place: Pick<TakenReading, 'mode' | 'red' | 'black'>): boolean {
  const key = poweredPlace(place);
  return read.some((r) => poweredPlace(r) === key);
}

/** What was read is held against the sound unit, everything else is expected after what was read. */
function pointAt(what: string, place: Pick<TakenReading, 'mode' | 'red' | 'black'>): AlivePoint | null {
  const by = isRead(place) ? sound : (measured?.reader ?? sound);
  return (by && alivePoint(by, what, place.mode, place.red, place.black)) ?? null;
}
