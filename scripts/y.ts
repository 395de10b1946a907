import { World } from '../tests/support/world'
import { openView, viewsOf } from '../tests/support/views'
import { readFileSync, writeFileSync } from 'node:fs'

const taken: string[] = []
const world = await World.open()
try {
  const views = await viewsOf(world)
  for (const shot of process.env.SHOT!.split('\n').filter(Boolean)) {
    const [name, w, h, mobile, keys = ''] = shot.split('|')
    const view = views.find(v => v.name === name)
    if (!view) { console.log('no view', name); continue }
    await world.browser.size(Number(w), Number(h), mobile === 'm')
    try { await openView(world, view) }
    catch (e) { console.log(String(e).slice(0, 200)) }
    for (const step of keys.split(';').filter(Boolean)) {
      if (step.startsWith('js:')) await world.browser.run(step.slice(3))
      else if (step.startsWith('click:')) { const [css, text] = step.slice(6).split('~'); await world.browser.click(css!, text) }
      else await world.browser.press(step)
      await new Promise(r => setTimeout(r, 250))
    }
    await new Promise(r => setTimeout(r, 600))
    const file = `/tmp/shots/p${taken.length}.png`
    await world.browser.picture(file)
    taken.push(file)
  }
  const html = '<body style="margin:0;background:#888;display:flex;gap:8px;align-items:flex-start;flex-wrap:wrap">' + taken.map(f => `<img src="data:image/png;base64,${readFileSync(f).toString('base64')}">`).join('')
  writeFileSync('/tmp/shots/sheet.html', html)
  await world.browser.size(Number(process.env.WIDE ?? 1700), Number(process.env.HIGH ?? 860))
  await world.browser.go('file:///tmp/shots/sheet.html')
  await new Promise(r => setTimeout(r, 500))
  await world.browser.picture('/tmp/shots/sheet.png')
}
finally { await world.close() }
