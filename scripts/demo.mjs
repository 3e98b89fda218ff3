// npm run demo: installs, builds, fills a database with the sample scenario, and starts.
import { spawn } from 'node:child_process'
import { buildIfNeeded, installPackages, root, run } from './steps/install.mjs'

installPackages()
buildIfNeeded()
// The crowd's own setting is none of the server's, which refuses what it does not know.
const { FLIMBO_DEMO_CROWD: crowd = 'on', ...others } = process.env
const env = {
  FLIMBO_DATA_DIR: `${root}/data/demo`,
  FLIMBO_STANDINS: 'on',
  FLIMBO_TRUST_PROXY: 'loopback',
  FLIMBO_LOG_LEVEL: 'warn',
  ...others,
}
run(process.execPath, ['--import', 'tsx', 'demo/fill/main.ts'], { env })

const port = (name, usual) => env[name] || usual
const server = spawn(process.execPath, ['--enable-source-maps', 'server/dist/main.js'], {
  cwd: root,
  env,
  stdio: 'inherit',
})
let people
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
server.on('exit', (code) => {
  people?.kill()
  process.exit(code ?? 1)
})

const office = `http://localhost:${port('FLIMBO_OFFICE_PORT', '4000')}`
const door = `http://localhost:${port('FLIMBO_DOOR_PORT', '4001')}`
for (;;) {
  if (
    await fetch(`${office}/api/session`).then(
      (answer) => answer.ok,
      () => false,
    )
  )
    break
  await new Promise((resolve) => setTimeout(resolve, 200))
}
// A gentle crowd keeps the sample alive: somebody scans every few seconds.
if (crowd !== 'off')
  people = spawn(
    process.execPath,
    ['--import', 'tsx', 'demo/crowd/main.ts', '--gentle', '4', '--door', door],
    {
      cwd: root,
      env,
      stdio: 'inherit',
    },
  )

console.log(`
  Flimbo is running with the sample scenario.

  Office            ${office}
  Sign in as        anna@saltmarsh.example  with  low tide at noon
  Front door        ${door}            for example ${door}/PIERWEST
  Destination site  http://localhost:${port('FLIMBO_STANDIN_PORT', '4002')}/at/saltmarsh.example/

  People scan every few seconds; FLIMBO_DEMO_CROWD=off leaves the sample alone.
  More scans: npm run crowd -- --scans 1000        Stop: Ctrl C
`)
