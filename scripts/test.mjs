// npm test: installs what is missing, then types, lint, unit and browser tests.
import { spawn } from 'node:child_process'
import { installDebian, installPackages, root, run } from './steps/install.mjs'

const step = async (name, work) => {
  const began = Date.now()
  console.log(`\n── ${name}`)
  await work()
  console.log(`── ${name}: ${((Date.now() - began) / 1000).toFixed(1)} s`)
}

await step('install', async () => {
  installPackages()
  installDebian()
  // What is made once of an installed package is installed with it.
  const { listCities } = await import('./steps/cities.mjs')
  await listCities()
})

/** Runs npm scripts side by side; all of them, or none goes on. */
async function beside(name, scripts) {
  const began = Date.now()
  console.log(`\n── ${name}`)
  const ended = await Promise.all(
    scripts.map(
      (script) =>
        new Promise((resolve) => {
          spawn('npm', ['run', '-s', script], { cwd: root, stdio: 'inherit' }).on('exit', (code) => {
            resolve({ script, code })
          })
        }),
    ),
  )
  const failed = ended.find(({ code }) => code !== 0)
  if (failed) {
    console.error(`npm run ${failed.script} ended with ${String(failed.code)}`)
    process.exit(1)
  }
  console.log(`── ${name}: ${((Date.now() - began) / 1000).toFixed(1)} s`)
}

// The linter checks types as well: what it knows of them for its rules is nearly all of that.
await step('types and lint', () => run('npm', ['run', '-s', 'lint']))
// Unit tests often wait, for the disk above all: the build has time enough meanwhile, and is over before they measure.
await beside('unit tests, format and build', ['unit', 'format:check', 'build:needed'])
await step('browser tests', () => run('npm', ['run', '-s', 'e2e']))
console.log('\nEverything passed.')
