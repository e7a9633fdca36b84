/** The own value of a table under a name: `constructor` and the like name nothing. */
export function ownValue<T>(table: Readonly<Record<string, T>>, name: string): T | undefined {
  return Object.hasOwn(table, name) ? table[name] : undefined;
}
