// npm test: installs what is missing, then types, lint, unit and browser tests.
import { buildIfNeeded, installChromium, installPackages, run } from './steps/install.mjs'

const step = (name, work) => {
  const began = Date.now()
  console.log(`\n── ${name}`)
  work()
  console.log(`── ${name}: ${((Date.now() - began) / 1000).toFixed(1)} s`)
}

step('install', () => { installPackages(); installChromium() })
step('types', () => run('npm', ['run', '-s', 'types']))
step('lint', () => run('npm', ['run', '-s', 'lint']))
step('unit tests', () => run('npm', ['run', '-s', 'unit']))
step('build', buildIfNeeded)
step('browser tests', () => run('npm', ['run', '-s', 'e2e']))
console.log('\nEverything passed.')
