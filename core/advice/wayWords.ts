import type { Kind } from '#core/job/schema'

/** How a ceiling holds what hangs in it, as a checklist at its place. Common practice, no source; lifting and fixing are the local code's. */
export function wayWords(kind: Kind | null): string[] {
  const name = kind?.model.name.toLowerCase() ?? ''
  if (/ceiling|tile/.test(name)) return ['a bridge or rails bear it, never the tile', 'safety line on its hang point']
  return /pendant|horn|surface/.test(name) ? ['held twice: fixing and safety line'] : []
}
