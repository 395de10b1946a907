import { wantedCodeSchema, type DoorCode } from '#core/door/door'
import { makeCode } from '../../door/repository'
import { entrance } from '../../door/entrance'
import { problem } from '../../http/problem'
import { readJson, route } from '../../http/route'

/** A code by which one device comes in; the one before it is void. */
export default route(async (event, db): Promise<DoorCode> => {
  const way = entrance()
  if (way === null) throw problem(409, 'not-listening', 'This server answers this machine alone. Start it with --listen to let phones in (docs/operations.md).')
  const { mayLetIn } = await readJson(event, wantedCodeSchema)
  return { ...await makeCode(db, mayLetIn), entrance: way }
})
