import { appendResponseHeader } from 'h3'
import { letInSchema, type Me } from '#core/door/door'
import { isHere } from '../../door/asker'
import { cookieOf } from '../../door/keys'
import { letIn } from '../../door/repository'
import { problem } from '../../http/problem'
import { readJson, route } from '../../http/route'

const MOST_BYTES = 2000

/** Takes a device in by the code that a desk shows. */
export default route(async (event, db): Promise<Me> => {
  const { code, name } = await readJson(event, letInSchema, MOST_BYTES)
  if (isHere(event)) throw problem(409, 'is-here', 'This is the machine that serves: nothing is asked of it.')
  const answer = await letIn(db, code, name)
  switch (answer.is) {
    case 'no-code': throw problem(403, 'no-code', 'No code is shown just now, or its time or tries are over. Have one shown at the desk: list of jobs, “phones”.')
    case 'wrong': throw problem(403, 'wrong-code', answer.triesLeft === 0
      ? 'That is not the code, and its tries are over. Have another shown at the desk.'
      : `That is not the code that the desk shows. ${answer.triesLeft} ${answer.triesLeft === 1 ? 'try is' : 'tries are'} left.`)
    case 'name-taken': throw problem(409, 'name-taken', `“${name}” is already let in. Give this device a name of its own, or have that one taken back first.`)
    case 'in': {
      appendResponseHeader(event, 'set-cookie', cookieOf(answer.key))
      return { device: { id: answer.device.id, name: answer.device.name }, mayLetIn: answer.device.mayLetIn }
    }
  }
})
