import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Browser } from './browser'

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

export interface Theme { name: string, isNight: boolean, forced: 'none' | 'active' }
export const THEMES: readonly Theme[] = [
  { name: 'day', isNight: false, forced: 'none' }, { name: 'night', isNight: true, forced: 'none' }, { name: 'forced colours', isNight: false, forced: 'active' },
]

/**
 * Names, roles and contrast of the page that stands there (axe-core: WCAG 2.2 AA). Sizes of what can be pressed, and names that do not hold the words seen,
 * are found by reach.ts: axe-core counts what a sheet lies over as small, and joins the words of a drawing without spaces.
 */
export async function axeFinds(browser: Browser, { isNight, forced }: Theme): Promise<string[]> {
  if (!await browser.run<boolean>('return "axe" in window')) await browser.run(AXE)
  // Colours that are on their way from day to night are neither.
  await browser.run('document.head.append(Object.assign(document.createElement("style"), { textContent: "*,*::before,*::after { transition: none !important; animation: none !important }" }))')
  await browser.cdp('Emulation.setEmulatedMedia', { features: [{ name: 'forced-colors', value: forced }] })
  await browser.run('document.documentElement.classList.toggle("night", arguments[0])', isNight)
  const found = await browser.driver.executeAsyncScript<string[]>(`const done = arguments[0]
    axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'], rules: { 'target-size': { enabled: false }, 'label-content-name-mismatch': { enabled: false } } })
      .then(r => done(r.violations.map(v => v.id + ': ' + v.nodes.map(n => n.html.slice(0, 160)).slice(0, 3).join(' | '))))`)
  await browser.cdp('Emulation.setEmulatedMedia', { features: [] })
  return found
}
