// npm run dev: the server from source, started anew on each change, and Vite with a proxy to its API.
import { spawn } from 'node:child_process'
import { installPackages, root } from './steps/install.mjs'

installPackages()
// The browser reaches the office by way of Vite.
const env = {
  FLIMBO_OFFICE_URL: 'http://localhost:4080',
  FLIMBO_STANDINS: 'on',
  FLIMBO_TRUST_PROXY: 'loopback',
  ...process.env,
}
const parts = [
  spawn(
    process.execPath,
    [
      'node_modules/tsx/dist/cli.mjs',
      'watch',
      '--clear-screen=false',
      '--include',
      'server/**/*.ts',
      '--include',
      'core/**/*.ts',
      'server/main.ts',
    ],
    { cwd: root, env, stdio: 'inherit' },
  ),
  spawn(process.execPath, ['node_modules/vite/bin/vite.js', 'web', '--config', 'web/vite.config.ts'], {
    cwd: root,
    env,
    stdio: 'inherit',
  }),
]
const stop = () => {
  for (const part of parts) part.kill('SIGTERM')
}
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, stop)
for (const part of parts) part.on('exit', stop)
