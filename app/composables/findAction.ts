import { GROUP_WORDS, type Action, type ActionTarget } from './action'

/** What can be done, found by a few letters of what it does. Pure. */

/** Something of the list that was found: `why` it cannot be done just now; null where it can. */
export interface FoundAction { action: Action, why: string | null }

const TARGET_WORDS: Record<ActionTarget, string> = {
  speaker: 'a speaker', many: 'several speakers', rail: 'a rail', control: 'a control', model: 'a model', space: 'a space', place: 'a place', places: 'several places',
}

/** Why an action cannot be done to what is chosen; null where it can. */
export function whyNot(action: Action, target: ActionTarget | null): string | null {
  if (action.to && target !== null && !action.to.includes(target) && action.isOnlyTo) return `First choose ${listed(action.to.map(to => TARGET_WORDS[to]))}.`
  return action.cannot?.() ?? null
}

const listed = (words: readonly string[]) => words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} or ${words.at(-1)}`

/**
 * Actions whose words begin with every piece that was typed, best first: those whose own word it is, then what can be done to what is
 * chosen, then the rest in the order of the list. Nothing typed is everything, what is about the chosen first.
 */
export function findActions(actions: readonly Action[], typed: string, target: ActionTarget | null): FoundAction[] {
  const pieces = wordsOf(typed)
  const isAbout = (action: Action) => target !== null && (action.to?.includes(target) ?? false)
  return actions
    .map((action) => {
      const said = target !== null && action.as?.[target] ? { ...action, ...action.as[target] } : action
      const words = [...wordsOf(said.row ?? ''), ...wordsOf(said.says)]
      const all = [...words, ...wordsOf(said.also ?? ''), ...wordsOf(GROUP_WORDS[said.group])]
      const fits = pieces.every(piece => all.some(word => word.startsWith(piece)))
      const isOwn = pieces.length > 0 && (words[0]?.startsWith(pieces[0]!) ?? false)
      return { found: { action: said, why: whyNot(action, target) }, fits, rank: (isOwn ? 0 : 2) + (isAbout(action) ? 0 : 1) }
    })
    .filter(({ fits }) => fits)
    .sort((a, b) => a.rank - b.rank)
    .map(({ found }) => found)
}

function wordsOf(text: string): string[] {
  return text.toLowerCase().normalize('NFKD').replace(/\p{M}/gu, '').split(/[^\p{L}\p{N}−+]+/u).filter(Boolean)
}
