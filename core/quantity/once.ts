/** The same answer for each key, worked out when it is first asked for. */
export function onceEach<K, V>(make: (key: K) => V): (key: K) => V {
  const made = new Map<K, V>()
  return (key) => {
    const known = made.get(key)
    if (known !== undefined) return known
    const value = make(key)
    made.set(key, value)
    return value
  }
}
