import { BENCH_ID } from '#core/job/bench'
import { randomUUID } from 'node:crypto'
import { FORMAT_VERSION, type Job, type JobDocument } from '#core/job/schema'
import { writeJobFile } from '#core/format/plainMatch'
import { Browser } from './browser'
import { makeDatabase, startServer, type RunningServer, type TestDatabase } from './server'

/** A server, its database and a browser, for one file of browser tests. */
export class World {
  private constructor(readonly database: TestDatabase, public server: RunningServer, readonly browser: Browser) {}

  static async open(env: Record<string, string> = {}): Promise<World> {
    const database = await makeDatabase()
    return new World(database, await startServer(database.url, undefined, undefined, env), await Browser.open())
  }

  async close(): Promise<void> {
    await this.browser.close()
    await this.server.stop()
    await this.database.drop()
  }

  get url(): string {
    return this.server.url
  }

  async killServer(): Promise<void> {
    await this.browser.fetched()
    await this.server.stop('SIGKILL')
  }

  async startAgain(): Promise<void> {
    await this.server.stop('SIGKILL')
    this.server = await startServer(this.database.url, Number(new URL(this.server.url).port))
  }

  /** Something done by way of another server on the same database, which is gone again then. */
  async beside(path: string, body: unknown): Promise<void> {
    const other = await startServer(this.database.url)
    await fetch(`${other.url}/api${path}`, { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })
    await other.stop()
  }

  async putJob(job: Job): Promise<string> {
    const id = randomUUID()
    await this.post('/jobs', { id, from: 'file', text: writeJobFile(job) })
    return id
  }

  /** Writes on the bench, which is there from the start. */
  async putBench(job: Pick<Job, 'tickets' | 'drawer'>): Promise<void> {
    const edits = [...job.drawer.map((item, index) => ({ kind: 'drawer.add', index, item })), ...[...job.tickets].map(entry => ({ kind: 'ticket.write', entry }))]
    const stamped = { id: randomUUID(), by: 'world', who: null, undoes: null, edit: { kind: 'batch', edits } }
    await this.post(`/jobs/${BENCH_ID}/sync`, { since: 0, version: FORMAT_VERSION, edits: [stamped] })
  }

  async post(path: string, body: unknown): Promise<unknown> {
    const response = await fetch(`${this.url}/api${path}`, { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })
    if (!response.ok) throw new Error(await response.text())
    return response.json()
  }

  async readJob(id: string): Promise<{ job: JobDocument, revision: number }> {
    return await (await fetch(`${this.url}/api/jobs/${id}`)).json() as { job: JobDocument, revision: number }
  }

  go(path: string): Promise<void> {
    return this.browser.go(this.url + path)
  }
}
