import { pinNames } from '../circuit';
import type { Part } from '../part';
import type { StageMap } from '../stages';

/** What is written at the pins of a part: at those of an IC their role where it is known, else their number. */
export function pinLabels(part: Part, map: StageMap): readonly string[] {
  return pinNames(part).map((name, i) => {
    const role = part.kind === 'ic' ? map.pins[part.ref]?.[i]?.role : undefined;
    return role === undefined || role === 'UNKNOWN' || role === 'NC' ? name : `${role} ${i + 1}`;
  });
}
