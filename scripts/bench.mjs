// npm run bench -- NAME: runs bench/NAME/main.ts. Benchmarks print figures and assert nothing.
import { existsSync, readdirSync } from 'node:fs'
import { buildIfNeeded, installPackages, root, run } from './steps/install.mjs'

const [name, ...rest] = process.argv.slice(2)
const known = readdirSync(`${root}/bench`).filter((each) => existsSync(`${root}/bench/${each}/main.ts`))
if (!known.includes(name)) {
  console.error(`Which benchmark? One of: ${known.join(', ')}`)
  process.exit(2)
}
installPackages()
buildIfNeeded()
run(process.execPath, ['--import', 'tsx', `bench/${name}/main.ts`, ...rest])
