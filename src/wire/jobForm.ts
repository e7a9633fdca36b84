import { z } from 'zod';
import { COMPLAINTS, COMPLAINT_CODES } from './complaints';
import { NameplateJson } from './boardJson';
import { JOB_TAG, RowId } from './ids';

export { COMPLAINTS, COMPLAINT_CODES };

export const Source = z.strictObject({
  id: z.string().min(1).max(20).optional(),
  name: z.string().trim().min(1).max(80),
  kind: z.enum(['mains', 'battery', 'solar', 'back-feed', 'dc']),
});

/** Where a new job's board comes from. */
export const BoardChoice = z.discriminatedUnion('from', [
  z.strictObject({ from: z.literal('typical'), name: z.string().max(60) }),
  z.strictObject({ from: z.literal('netlist'), text: z.string().max(1_000_000) }),
  z.strictObject({ from: z.literal('json'), text: z.string().max(5_000_000) }),
  z.strictObject({ from: z.literal('job'), tag: z.string().max(20) }),
  z.strictObject({ from: z.literal('empty') }),
]);

export type BoardChoice = z.output<typeof BoardChoice>;

/** A further board of a job, or a wire between two of its boards, as Intake sends them. */
export const BoardsChange = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('add'),
    actor: z.string().trim().min(1).max(60),
    label: z.string().trim().min(1, 'Name the board.').max(60),
    board: BoardChoice,
  }),
  z.strictObject({
    kind: z.literal('join'),
    actor: z.string().trim().min(1).max(60),
    fromBoard: RowId,
    fromPin: z.string().min(1).max(80),
    toBoard: RowId,
    toPin: z.string().min(1).max(80),
  }),
]);
export type BoardsChange = z.output<typeof BoardsChange>;

/** What is taken in of a unit; a correction names some of it. */
const FACTS = {
  unit: z.string().trim().min(1, 'Name the unit.').max(120),
  serial: z.string().trim().max(80),
  nameplate: NameplateJson,
  complaint: z.string().trim().max(2000),
  symptoms: z.array(z.enum(COMPLAINT_CODES as [string, ...string[]])).max(COMPLAINT_CODES.length),
  history: z.string().trim().max(2000),
  accessories: z.string().trim().max(500),
  sources: z.array(Source).min(1, 'Name at least one source of energy.').max(8),
};

/** What a correction says: each thing that was taken in wrongly, as it is. */
export const Correction = z.strictObject(FACTS).partial();

/** A new job as Intake sends it. */
export const NewJob = z.strictObject({
  tag: z.string().trim().toUpperCase().regex(JOB_TAG, 'Use letters, digits and hyphens, at most 20.'),
  ...FACTS,
  serial: FACTS.serial.default(''),
  history: FACTS.history.default(''),
  accessories: FACTS.accessories.default(''),
  board: BoardChoice,
  /** Whose bench it stands on; with nothing connected it comes in isolated by them. */
  bench: z.string().trim().min(1).max(60).default('Bench A'),
  disconnected: z.boolean().default(false),
});
export type NewJob = z.output<typeof NewJob>;
export type NewJobInput = z.input<typeof NewJob>;
