import { demoGear } from '../demo/gear'
import { demoJobs } from '../demo'
import { World } from '../tests/support/world'

/** Names and sizes of the script and style that were asked for before the other pages are fetched behind the first one (app/app.vue marks when), and of all. */
const FETCHED = `const all = new Map(performance.getEntriesByType('resource').filter(e => /\\.(js|mjs|css)(\\?|$)/.test(e.name)).map(e => [e.name, e]))
  const until = performance.getEntriesByName('others')[0].startTime
  return [...all.values()].map(e => ({ name: e.name, isFirst: e.startTime <= until, bytes: e.encodedBodySize }))`

/**
 * Script and style of a page, as sent (gzip), kB: a fresh browser, each page as the first one. That these are enough is tried: with nothing else to be had
 * the page shows what it is for all the same.
 */
export async function firstLoads(): Promise<{ page: string, kilobytes: number }[]> {
  const world = await World.open()
  try {
    await world.post('/gear', { models: demoGear })
    const id = await world.putJob(demoJobs[0]!.job)
    const pages: [page: string, path: string, css: string][] = [
      ['jobs', '/', '.row'], ['quick match', '/quick?line=8', '.answer'], ['run sheet', `/jobs/${id}`, '.rail-row'], ['spaces', `/jobs/${id}/space`, '.plan'],
      ['checks', `/jobs/${id}/check`, '.reading'], ['suspects', `/jobs/${id}/trace`, '.rail-row'], ['gear', '/gear', '.body .line'], ['a model', `/gear/${demoGear[6]!.id}`, '.fields'],
      ['a table in', '/gear/in', '.source'],
    ]
    await world.browser.cdp('Network.enable')
    // Whoever comes for the first time has nothing on the device.
    await world.browser.cdp('Network.setBypassServiceWorker', { bypass: true })
    const open = async (path: string, css: string, without: string[]) => {
      await world.browser.cdp('Network.clearBrowserCache')
      await world.browser.cdp('Network.setCacheDisabled', { cacheDisabled: true })
      await world.browser.cdp('Network.setBlockedURLs', { urls: without })
      await world.go(path)
      await world.browser.see(css)
    }
    const found: { page: string, kilobytes: number }[] = []
    for (const [page, path, css] of pages) {
      await open(path, css, [])
      // All that is fetched behind it has been asked for by then.
      await new Promise(resolve => setTimeout(resolve, 2500))
      const fetched = await world.browser.run<{ name: string, isFirst: boolean, bytes: number }[]>(FETCHED)
      await open(path, css, fetched.filter(f => !f.isFirst).map(f => f.name))
      found.push({ page, kilobytes: fetched.filter(f => f.isFirst).reduce((sum, f) => sum + f.bytes, 0) / 1000 })
    }
    return found
  }
  finally {
    await world.close()
  }
}
