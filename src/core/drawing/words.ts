/** A stage's name as it is written. */
export function stageWords(kind: string): string {
  const words = kind === 'unplaced' ? 'no stage yet' : kind.replaceAll('-', ' ');
  return words.replace('emi', 'EMI').replace('pfc', 'power factor');
}
