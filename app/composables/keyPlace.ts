/** What has the focus, as far as keys care. */
export interface FocusPlace {
  /** Something that is typed into, or a list or dialog with keys of its own. */
  typing: boolean
  /** Inside something that is filled in: its buttons included. */
  form: boolean
  /** A button or a link. */
  presses: boolean
}

/**
 * Whether a key of the page acts where the focus is. Letters and signs never do while anything of a form has it: who types a
 * word beside a field means the field ("loose" after opening a note added two outputs). Enter and Space press what they stand on.
 */
export function actsOnPage(name: string, { typing, form, presses }: FocusPlace): boolean {
  if (typing) return false
  if (form && [...name].length === 1) return false
  return !(presses && (name === 'Enter' || name === ' '))
}
