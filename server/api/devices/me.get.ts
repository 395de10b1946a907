import { appendResponseHeader, getHeader } from 'h3'
import type { Me } from '#core/door/door'
import { doorRefusal, findAsker } from '../../door/asker'
import { cookieOf, keyIn } from '../../door/keys'
import { ProblemError } from '../../http/problem'
import { route } from '../../http/route'

/** Who this page is here. A device that is in use keeps its key for as long as a browser keeps one. */
export default route(async (event, db): Promise<Me> => {
  const asker = await findAsker(event, () => Promise.resolve(db))
  const refused = doorRefusal('let in', asker)
  if (refused) throw new ProblemError(refused)
  if (asker.is === 'here') return { device: null, mayLetIn: true }
  appendResponseHeader(event, 'set-cookie', cookieOf(keyIn(getHeader(event, 'cookie'))!))
  const { id, name, mayLetIn } = asker.device!
  return { device: { id, name }, mayLetIn }
})
