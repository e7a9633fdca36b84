import type { NewJobInput } from '@/wire/jobForm';
import { DOCK_MODULE } from './boards/dockModule';
import { HARBOUR_LAMP } from './boards/harbourLamp';
import { MAST_WEATHER } from './boards/mastWeather';
import { PUMP_CONTROL } from './boards/pumpControl';

/**
 * One demo job of the Skerry Point workshop. `hidden` is the fault that its readings were made under; nothing of it
 * is stored. `readings` is how many of the plan's readings have been taken so far.
 */
export interface DemoJob {
  readonly intake: NewJobInput & { readonly tag: string };
  readonly actor: string;
  readonly minutesAgo: number;
  readonly isolated: boolean;
  readonly proved: boolean;
  readonly hidden?: string;
  readonly readings: number;
  readonly seed: number;
  readonly waitingFor?: string;
  /** Lines of the shorthand that were typed on it. */
  readonly traced?: readonly string[];
  /** Photographs of both sides come with it. */
  readonly photographs?: boolean;
  readonly findings?: readonly { place: string; severity: 'note' | 'doubt' | 'fault' | 'danger'; words: string }[];
  /** Readings taken besides the plan's, to see the named fault with one's own eyes. */
  readonly confirm?: readonly { readonly mode: 'diode' | 'ohms'; readonly red: string; readonly black: string }[];
  /** A load sweep taken after the repair. */
  readonly sweep?: {
    readonly title: string;
    readonly claimed: number;
    readonly efficiency: number;
    readonly rows: readonly (readonly [iout: number, vin: number, iin: number, vout: number])[];
  };
  readonly repair?: {
    readonly fault: string;
    readonly words: string;
    readonly fitted: readonly {
      readonly ref: string;
      readonly was: string;
      readonly words: string;
      readonly fitted: { source: 'new' | 'salvaged'; samePart: boolean; ratedVolts?: number; ratedAmps?: number };
    }[];
  };
}

/** A charger half traced: pins still to be followed are written with a question mark. */
const DOCK_CHARGER = [
  'J1 "AC IN" L N',
  'F1 T2AL250V L LF',
  'RV1 10D471K LF N',
  'CX1 ".1uF X2 310~" LF N',
  'BD1 KBL406 LF N HV+ HV-',
  'C1 "47uF 400V" HV+ HV-',
  'R1 474 HV+ ?',
  'R2 474 ? ?',
  'R1.2 -- R2.1',
  'U1 GW-12 HV- ? ? ? ? ?',
  'M1 4N65 DRAIN ? SRC',
  'R3 220 ? ?',
  'R4 1R5 SRC HV-',
  'R5 471 SRC ?',
  'T1.P 90t HV+ DRAIN',
  'T1.S 14t OUT- SEC',
  'T1.A 13t HV- AUX',
  'D1 FR107 DRAIN CL',
  'R6 104 HV+ CL',
  'C2 102 HV+ CL',
  'D2 UF4003 AUX ?',
  'C3 "22uF 35V" ? HV-',
  'D3 SR3100 SEC OUT+',
  'C4 "1000uF 25V" OUT+ OUT-',
  'R7 102 OUT+ ?',
  'LED1 led ? OUT-',
  'J2 "BATTERY" OUT+ OUT-',
  'R3.2 -- M1.g',
  'R7.2 -- LED1.a',
  'U1.3 -/- M1.g',
] as const;

export const DEMO_JOBS: readonly DemoJob[] = [
  {
    intake: {
      tag: 'SP-115',
      unit: 'Tidewell PC-5 pump control supply',
      serial: 'PC5-0217',
      nameplate: {
        input: '18-32 Vdc',
        source: 'dc',
        inputRail: 'VIN+',
        inputReturn: 'GND',
        inputMin: 18,
        inputNominal: 24,
        inputMax: 32,
        hertz: 0,
        outputs: [{ rail: 'OUT+', return: 'GND', volts: 5, amps: 2, kind: 'dc' }],
      },
      complaint: 'Bilge pump panel dead since the battery was changed.',
      symptoms: ['dead'],
      history: 'Battery was put in the wrong way round for a moment.',
      sources: [{ name: '24 V boat battery', kind: 'battery' }],
      board: { from: 'netlist', text: PUMP_CONTROL },
    },
    actor: 'Bench B',
    minutesAgo: 3 * 24 * 60,
    isolated: true,
    proved: true,
    hidden: 'D2:short',
    readings: 20,
    seed: 31,
    confirm: [{ mode: 'ohms', red: 'GND', black: 'SW' }],
    findings: [{ place: 'D2, by the choke', severity: 'doubt', words: 'Board slightly brown under D2.' }],
    sweep: {
      title: 'Load up to 2.2 A after the repair',
      claimed: 5,
      efficiency: 0.92,
      rows: [
        [0, 24.05, 0.0079, 4.995],
        [0.25, 24.04, 0.0611, 4.987],
        [0.5, 24.04, 0.1143, 4.973],
        [0.75, 24.03, 0.1677, 4.965],
        [1.0, 24.02, 0.2211, 4.954],
        [1.25, 24.01, 0.2746, 4.942],
        [1.5, 24.0, 0.3284, 4.935],
        [1.75, 24.0, 0.3821, 4.923],
        [2.0, 23.99, 0.4359, 4.912],
        [2.2, 23.98, 0.4774, 4.885],
      ],
    },
    repair: {
      fault: 'D2:short',
      words: 'Freewheel diode shorted when the battery was reversed.',
      fitted: [
        {
          ref: 'D2',
          was: 'SS36',
          words: 'Same type, new stock.',
          fitted: { source: 'new', samePart: true, ratedVolts: 60, ratedAmps: 3 },
        },
      ],
    },
  },
  {
    photographs: true,
    intake: {
      tag: 'SP-118',
      unit: 'Brightwater HL-24 harbour lamp supply',
      serial: 'HL24-1093',
      nameplate: {
        input: '100-240 Vac 50/60 Hz',
        source: 'mains',
        inputRail: 'L',
        inputReturn: 'N',
        inputMin: 90,
        inputNominal: 230,
        inputMax: 264,
        hertz: 50,
        outputs: [{ rail: 'OUT+', return: 'OUT-', volts: 24, amps: 2.5, kind: 'dc' }],
      },
      complaint: 'Went off with a bang during the storm, lamp at the pier head has been dark since.',
      symptoms: ['dead', 'after-surge'],
      sources: [{ name: 'Mains lead', kind: 'mains' }],
      accessories: 'Mains lead, mounting plate',
      board: { from: 'netlist', text: HARBOUR_LAMP },
    },
    actor: 'Bench A',
    minutesAgo: 6,
    isolated: true,
    proved: true,
    hidden: 'M1:short(d,s)+F1:open',
    readings: 2,
    seed: 5,
    findings: [{ place: 'F1', severity: 'fault', words: 'Fuse glass blackened inside.' }],
  },
  {
    intake: {
      tag: 'SP-119',
      unit: 'Mastwright WS-5 weather station supply',
      serial: 'WS5-0040',
      nameplate: {
        input: '9-30 Vdc, cell 3.7 V',
        source: 'dc',
        inputRail: 'VIN+',
        inputReturn: 'GND',
        inputMin: 9,
        inputNominal: 12,
        inputMax: 30,
        hertz: 0,
        outputs: [
          { rail: '5V', return: 'GND', volts: 5, amps: 3, kind: 'dc' },
          { rail: '12V', return: 'GND', volts: 12, amps: 0.3, kind: 'dc' },
        ],
        auxInputs: [{ rail: 'CELL+', return: 'GND', volts: 3.7, source: 'battery' }],
      },
      complaint: 'Wind readings stop at night; the 5 V is said to be low.',
      symptoms: ['low-output', 'intermittent'],
      sources: [
        { name: '12 V solar battery', kind: 'battery' },
        { name: 'Lithium cell', kind: 'battery' },
      ],
      board: { from: 'netlist', text: MAST_WEATHER },
    },
    actor: 'Bench B',
    minutesAgo: 50,
    isolated: false,
    proved: false,
    readings: 0,
    seed: 11,
    waitingFor: 'the owner, to say when the cell was last changed',
  },
  {
    intake: {
      tag: 'SP-120',
      unit: 'Quayline DC-24 dock charger',
      serial: 'QL-77/3',
      nameplate: {
        input: '220-240 Vac',
        source: 'mains',
        inputMin: 198,
        inputNominal: 230,
        inputMax: 264,
        hertz: 50,
        outputs: [{ volts: 24, amps: 2.5, kind: 'dc' }],
      },
      complaint: 'Ticks about twice a second, does not charge.',
      symptoms: ['hiccup', 'ticks', 'no-charge'],
      sources: [
        { name: 'Mains lead', kind: 'mains' },
        { name: 'Battery on the output', kind: 'back-feed' },
      ],
      board: { from: 'typical', name: 'flyback-opto' },
    },
    actor: 'Bench A',
    minutesAgo: 130,
    isolated: true,
    proved: false,
    readings: 0,
    seed: 17,
    findings: [{ place: 'C6, by the output', severity: 'doubt', words: 'Top slightly bulged.' }],
  },
  {
    intake: {
      tag: 'SP-121',
      unit: 'Gullwing DC-5 dock charger',
      serial: 'GW-0417',
      nameplate: {
        input: '100-240 Vac 50/60 Hz',
        source: 'mains',
        inputMin: 90,
        inputNominal: 230,
        inputMax: 264,
        hertz: 50,
        outputs: [{ volts: 14.4, amps: 2, kind: 'dc' }],
      },
      complaint: 'No charge since the pontoon lost power; nobody has a diagram.',
      symptoms: ['dead', 'no-charge'],
      sources: [{ name: 'Mains lead', kind: 'mains' }],
      board: { from: 'empty' },
    },
    actor: 'Bench A',
    minutesAgo: 40,
    seed: 21,
    readings: 0,
    isolated: true,
    proved: true,
    traced: DOCK_CHARGER,
  },
  {
    intake: {
      tag: 'SP-122',
      unit: 'Brightwater DM-5 cradle module',
      serial: 'DM5-0046',
      nameplate: {
        input: '10-15 Vdc',
        source: 'dc',
        inputRail: 'VIN+',
        inputReturn: 'GND',
        inputMin: 10,
        inputNominal: 12,
        inputMax: 15,
        hertz: 0,
        outputs: [{ rail: 'OUT+', return: 'GND', volts: 5, amps: 2, kind: 'dc' }],
      },
      complaint: 'Works. The new handheld radios want 6.2 V in their dock cradles.',
      symptoms: [],
      sources: [{ name: '12 V dock battery', kind: 'battery' }],
      board: { from: 'netlist', text: DOCK_MODULE },
    },
    actor: 'Bench A',
    minutesAgo: 9,
    isolated: true,
    proved: true,
    traced: ['U1 FB ref 1.22 V', 'U1 EN on 1.2 V off 1.1 V'],
    readings: 0,
    seed: 22,
  },
];
