import { problem } from '../http/problem'
import { route } from '../http/route'

/** Whatever else is asked for under /api. */
export default route(async (event) => {
  throw problem(404, 'no-such-address', `There is nothing at ${event.path.slice(0, 200)}.`)
})
