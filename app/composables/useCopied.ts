import { useJobStore } from '~/stores/job'

/** Puts a text on the clipboard, and says so, or why not. */
export function useCopied(): (text: string, what: string) => Promise<void> {
  const store = useJobStore()
  return async (text, what) => {
    try {
      await navigator.clipboard.writeText(text)
      store.say(`The ${what} is copied: paste it into a spreadsheet.`)
    }
    catch {
      store.sayNot(`This browser does not give the clipboard: choose the ${what} and copy it by hand.`)
    }
  }
}
