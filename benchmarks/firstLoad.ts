import { demoGear } from '../demo/gear'
import { demoJobs } from '../demo'
import { World } from '../tests/support/world'

/**
 * Script and style of a page, as sent (gzip), kB: a fresh browser, each page as the first one. What is asked for before the other pages are fetched behind it
 * (app/app.vue marks when).
 */
export async function firstLoads(): Promise<{ page: string, kilobytes: number }[]> {
  const world = await World.open()
  try {
    await world.post('/gear', { models: demoGear })
    const id = await world.putJob(demoJobs[0]!.job)
    const pages: [page: string, path: string, css: string][] = [
      ['jobs', '/', '.row'], ['quick match', '/quick?line=8', '.answer'], ['run sheet', `/jobs/${id}`, '.rail-row'], ['spaces', `/jobs/${id}/space`, '.plan'],
      ['checks', `/jobs/${id}/check`, '.reading'], ['suspects', `/jobs/${id}/trace`, '.suspect'], ['gear', '/gear', '.body .line'], ['a model', `/gear/${demoGear[6]!.id}`, '.fields'],
      ['a table in', '/gear/in', '.source'],
    ]
    const found: { page: string, kilobytes: number }[] = []
    for (const [page, path, css] of pages) {
      await world.browser.cdp('Network.clearBrowserCache')
      await world.browser.cdp('Network.setCacheDisabled', { cacheDisabled: true })
      await world.go(path)
      await world.browser.see(css)
      // What is asked for ahead is named twice where no cache joins the two: each name counts once.
      const bytes = await world.browser.run<number>(`const sizes = new Map(performance.getEntriesByType('resource')
        .filter(e => e.startTime <= performance.getEntriesByName('others')[0].startTime && /\\.(js|mjs|css)(\\?|$)/.test(e.name)).map(e => [e.name, e.encodedBodySize]))
        return [...sizes.values()].reduce((sum, size) => sum + size, 0)`)
      found.push({ page, kilobytes: bytes / 1000 })
    }
    return found
  }
  finally {
    await world.close()
  }
}
