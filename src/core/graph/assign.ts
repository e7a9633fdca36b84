/**
 * The assignment of rows to columns with the greatest sum of scores, each column used once.
 *
 * Hungarian method with potentials, after Kuhn 1955 in the O(n² m) form of Jonker and Volgenant 1987.
 *
 * @param scores one row per item, all of the same length and not longer than the number of columns.
 * @returns the column of each row.
 */
export function assign(scores: readonly (readonly number[])[]): number[] {
  const rows = scores.length;
  const columns = scores[0]?.length ?? 0;
  if (rows > columns) throw new RangeError('more rows than columns');
  const rowPotential = new Float64Array(rows + 1);
  const columnPotential = new Float64Array(columns + 1);
  const rowOf = new Int32Array(columns + 1);
  const previous = new Int32Array(columns + 1);
  for (let row = 1; row <= rows; row++) {
    rowOf[0] = row;
    let column = 0;
    const slack = new Float64Array(columns + 1).fill(Infinity);
    const used = new Uint8Array(columns + 1);
    do {
      used[column] = 1;
      const here = rowOf[column]!;
      let delta = Infinity;
      let nextColumn = 0;
      for (let j = 1; j <= columns; j++) {
        if (used[j]) continue;
        const cost = -scores[here - 1]![j - 1]! - rowPotential[here]! - columnPotential[j]!;
        if (cost < slack[j]!) {
          slack[j] = cost;
          previous[j] = column;
        }
        if (slack[j]! < delta) {
          delta = slack[j]!;
          nextColumn = j;
        }
      }
      for (let j = 0; j <= columns; j++) {
        if (used[j]) {
          rowPotential[rowOf[j]!]! += delta;
          columnPotential[j]! -= delta;
        } else slack[j]! -= delta;
      }
      column = nextColumn;
    } while (rowOf[column] !== 0);
    for (; column !== 0; column = previous[column]!) rowOf[column] = rowOf[previous[column]!]!;
  }
  const columnOf = new Array<number>(rows).fill(-1);
  for (let j = 1; j <= columns; j++) if (rowOf[j]! > 0) columnOf[rowOf[j]! - 1] = j - 1;
  return columnOf;
}
