/** What was made of a thing under a key, made once and kept as long as the thing is. */
export function kept<K extends object, V>(all: WeakMap<K, Map<string, V>>, of: K, key: string, make: () => V): V {
  const known = all.get(of) ?? new Map<string, V>();
  all.set(of, known);
  const made = known.get(key) ?? make();
  known.set(key, made);
  return made;
}
