import { shallowRef } from 'vue'

const KEY = 'plain-match.night'
const night = shallowRef(false)

function show(on: boolean): void {
  night.value = on
  document.documentElement.classList.toggle('night', on)
}

/** Day or night; what was chosen stays, else the system's wish holds. */
export function useTheme() {
  return {
    night,
    begin: () => show((localStorage.getItem(KEY) ?? String(matchMedia('(prefers-color-scheme: dark)').matches)) === 'true'),
    toggle: () => {
      show(!night.value)
      localStorage.setItem(KEY, String(night.value))
    },
  }
}
