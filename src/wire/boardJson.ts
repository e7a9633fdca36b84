import { z } from 'zod';
import { BOARD_LIMITS, DESIGNATOR, pinNames } from '@/core/circuit';
import { BLOCK_KINDS } from '@/core/part';
import type { Part } from '@/core/part';

import { BASES } from '@/core/quantity';

const NAME = z.string().min(1).max(BOARD_LIMITS.nameLength);
const KeyText = z.strictObject({ key: NAME, text: z.string().max(BOARD_LIMITS.textLength) });
const NetName = NAME;
/** A figure that a part may have, either sign. */
const Figure = z.number().min(-BOARD_LIMITS.value).max(BOARD_LIMITS.value);

const common = {
  ref: NAME.regex(DESIGNATOR, 'A designator holds no space, point, colon, comma, plus, equals sign or bracket.'),
  nets: z.array(NetName).min(1).max(BOARD_LIMITS.pins),
  keys: z.array(KeyText).max(BOARD_LIMITS.keys),
  numbers: z.record(z.string(), Figure),
  fitted: z.boolean(),
  basis: z.enum(BASES),
};

export const PartJson = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.enum(['resistor', 'capacitor', 'inductor']),
    ...common,
    value: z.number().min(0).max(BOARD_LIMITS.value),
    valueText: z.string(),
  }),
  z.strictObject({
    kind: z.enum(['voltage-source', 'current-source']),
    ...common,
    value: Figure,
    valueText: z.string(),
  }),
  z.strictObject({ kind: z.enum(['diode', 'bjt', 'mosfet']), ...common, model: z.string().min(1) }),
  z.strictObject({ kind: z.enum(BLOCK_KINDS), ...common }),
  z.strictObject({ kind: z.literal('ic'), ...common, subcircuit: z.string().min(1) }),
]);

/** A part with as many nets as its kind has pins. */
export type PartJson = z.output<typeof PartJson>;
const WholePart = PartJson.refine(
  (part) => part.kind === 'ic' || part.kind === 'connector' || part.nets.length === pinNames(part as Part).length,
  { message: 'This part has not as many nets as pins.' },
);

const CouplingJson = z.strictObject({ name: z.string(), first: z.string(), second: z.string(), factor: z.number() });

const ModelJson = z.strictObject({
  name: z.string().min(1),
  type: z.enum(['D', 'NPN', 'PNP', 'NMOS', 'PMOS']),
  numbers: z.record(z.string(), z.number()),
  written: z.string(),
});

const SubcircuitJson = z.strictObject({
  name: z.string().min(1),
  pins: z.array(NetName).min(1),
  parts: z.array(WholePart),
  couplings: z.array(CouplingJson),
  written: z.array(z.string()),
});

const LayoutJson = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('verbatim'), written: z.string() }),
  z.strictObject({
    kind: z.enum(['part', 'coupling']),
    name: z.string(),
    written: z.string(),
    canonical: z.string(),
  }),
  z.strictObject({ kind: z.enum(['model', 'subcircuit']), name: z.string() }),
]);

/** The nameplate of `facts.md`; unknown keys are kept. */
export const NameplateJson = z.looseObject({
  input: z.string().max(200).optional(),
  source: z.enum(['mains', 'dc', 'battery']).optional(),
  inputRail: NetName.optional(),
  inputReturn: NetName.optional(),
  inputMin: z.number().min(0).max(2000).optional(),
  inputNominal: z.number().min(0).max(2000).optional(),
  inputMax: z.number().min(0).max(2000).optional(),
  hertz: z.number().min(0).optional(),
  outputs: z
    .array(
      z.looseObject({
        rail: NetName.optional(),
        return: NetName.optional(),
        volts: z.number(),
        amps: z.number().min(0),
        kind: z.enum(['dc', 'ac', 'pulse']),
        voltsMax: z.number().optional(),
        rails: z.array(NetName).max(12).optional(),
      }),
    )
    .optional(),
  auxInputs: z
    .array(
      z.looseObject({
        rail: NetName,
        return: NetName,
        volts: z.number(),
        voltsMin: z.number().optional(),
        voltsMax: z.number().optional(),
        source: z.string().optional(),
      }),
    )
    .optional(),
});

const FactsJson = z.record(z.string(), z.record(z.string(), z.number()));

/** A facts file: `{"nameplate": …, "facts": …}`, other keys ignored (an example board's labels hold more). */
export const FactsFile = z.object({ nameplate: NameplateJson.optional(), facts: FactsJson.optional() });

/** The application's own board format, published as docs/board.schema.json. */
export const BoardJson = z.strictObject({
  format: z.literal('rough-lantern-board'),
  version: z.literal(1),
  title: z.string().max(BOARD_LIMITS.titleLength),
  parts: z.array(WholePart).max(BOARD_LIMITS.parts),
  couplings: z.array(CouplingJson).max(BOARD_LIMITS.couplings),
  models: z.array(ModelJson).max(BOARD_LIMITS.models),
  subcircuits: z.array(SubcircuitJson).max(BOARD_LIMITS.subcircuits),
  layout: z.array(LayoutJson).max(BOARD_LIMITS.lines),
  nameplate: NameplateJson.optional(),
  facts: FactsJson.optional(),
});
export type BoardJson = z.output<typeof BoardJson>;

/** Why a board cannot be kept, in words; null when it can be read again as it is written. */
export function boardTrouble(json: unknown): string | null {
  const parsed = BoardJson.safeParse(json);
  if (parsed.success) return null;
  const [issue] = parsed.error.issues;
  const [list, at] = issue?.path ?? [];
  const parts = (json as { readonly parts?: readonly { readonly ref?: unknown }[] }).parts;
  const ref = list === 'parts' && typeof at === 'number' ? parts?.[at]?.ref : undefined;
  const where =
    typeof ref === 'string' ? `${ref.slice(0, 40)} (${issue!.path.slice(2).join('.')})` : issue?.path.join('.');
  return `${where}: ${issue?.message ?? 'it does not fit the schema'}`;
}
