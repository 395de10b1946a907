import { run } from './run'

/** The core from a terminal: one verb per engine, one JSON document out. */
const { code, out, remarks } = await run(process.argv.slice(2))
for (const remark of remarks) process.stderr.write(`${remark}\n`)
process.stdout.write(out)
process.exitCode = code
