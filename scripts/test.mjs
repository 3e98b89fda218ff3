// npm test: installs what is missing, then types, lint, unit and browser tests.
import { spawn } from 'node:child_process'
import { buildIfNeeded, installChromium, installPackages, root, run } from './steps/install.mjs'

const step = (name, work) => {
  const began = Date.now()
  console.log(`\n── ${name}`)
  work()
  console.log(`── ${name}: ${((Date.now() - began) / 1000).toFixed(1)} s`)
}

step('install', () => {
  installPackages()
  installChromium()
})

// Types and lint need a core each and nothing of each other, and the check of the format little; there are two cores.
const began = Date.now()
const beside = (name) =>
  new Promise((resolve) => {
    spawn('npm', ['run', '-s', name], { cwd: root, stdio: 'inherit' }).on('exit', (code) => {
      resolve({ name, code })
    })
  })
const checks = Promise.all([beside('types'), beside('lint'), beside('format:check')])
for (const { name, code } of await checks) {
  if (code === 0) continue
  console.error(`npm run ${name} ended with ${String(code)}`)
  process.exit(1)
}
console.log(`── types and lint: ${((Date.now() - began) / 1000).toFixed(1)} s`)

step('unit tests', () => run('npm', ['run', '-s', 'unit']))
step('build', buildIfNeeded)
step('browser tests', () => run('npm', ['run', '-s', 'e2e']))
console.log('\nEverything passed.')
