/**
 * What the insulation of a conductor looks like. Its name stands beside it always: who sees no colours reads that, and the bands of a stripe. A colour that is
 * not in the list is drawn hatched, never as another.
 */
const COLOURS: Readonly<Record<string, string>> = {
  black: '#1b1d22', white: '#fdfcf8', grey: '#9c9a92', gray: '#9c9a92', red: '#b3242f', orange: '#e0862a', yellow: '#e5c52f', green: '#3c8046',
  blue: '#2f63a8', violet: '#7a58a6', purple: '#7a58a6', brown: '#7a4f2c', pink: '#dd93a9', tan: '#c4a37a', beige: '#d8c7a3', turquoise: '#3c9c9b', silver: '#bfc1c4',
  clear: '#e7dfcb', copper: '#b8683a', gold: '#c49a3c',
}

/** Null where it has no colour of that name. */
export function colourOf(name: string): string | null {
  const words = name.trim().toLowerCase().split(/[\s-]+/)
  return COLOURS[words.join(' ')] ?? COLOURS[words.at(-1) ?? ''] ?? null
}
