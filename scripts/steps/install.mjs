// Installs what is missing: packages, and what tests need of Debian.
import { execFileSync, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

export const root = fileURLToPath(new URL('../..', import.meta.url))
export const CHROMIUM = '/usr/bin/chromium'

export function run(command, args, options = {}) {
  const { status, signal } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options })
  if (status !== 0) {
    console.error(`${command} ${args.join(' ')} ended with ${signal ?? String(status)}`)
    process.exit(status ?? 1)
  }
}

function loads(module) {
  return (
    spawnSync(process.execPath, ['-e', `new (require(${JSON.stringify(module)}))(':memory:').close()`], {
      cwd: root,
      stdio: 'ignore',
    }).status === 0
  )
}

export function installPackages() {
  const stamp = `${root}/node_modules/.flimbo-installed`
  const wanted = createHash('sha256')
    .update(readFileSync(`${root}/package-lock.json`))
    .update(process.version)
    .digest('hex')
  if (!existsSync(stamp) || readFileSync(stamp, 'utf8') !== wanted) {
    console.log('Installing packages; the database driver compiles for about two minutes the first time.')
    // "ci" begins by removing what is there, the compiled driver too; a later change of the lock file only needs what it adds.
    run('npm', [existsSync(`${root}/node_modules`) ? 'install' : 'ci', '--no-audit', '--no-fund'])
    writeFileSync(stamp, wanted)
  }
  // Where npm skipped the driver's install script, or left it half built.
  if (!loads('better-sqlite3')) run('npm', ['rebuild', 'better-sqlite3', '--foreground-scripts'])
}

/** Debian's packages that tests need, each by a file it brings: a browser, and what renders print files. */
const DEBIAN = { chromium: CHROMIUM, ghostscript: '/usr/bin/gs', openssl: '/usr/bin/openssl' }

export function installDebian() {
  const missing = Object.keys(DEBIAN).filter((name) => !existsSync(DEBIAN[name]))
  if (missing.length === 0) return
  console.log(`Installing from Debian: ${missing.join(', ')}.`)
  const options = { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }
  run('apt-get', ['update', '-q'], options)
  run('apt-get', ['install', '-y', '-q', '--no-install-recommends', ...missing], options)
}

/** Builds when a source file is newer than the last build. */
export function buildIfNeeded() {
  const stamp = `${root}/server/dist/.built`
  const files = execFileSync(
    'git',
    ['ls-files', '-co', '--exclude-standard', 'core', 'server', 'web', 'scripts', 'package-lock.json'],
    { cwd: root, encoding: 'utf8' },
  )
    .split('\n')
    .filter((file) => file && existsSync(`${root}/${file}`))
  const digest = createHash('sha256')
  for (const file of files) digest.update(file).update(readFileSync(`${root}/${file}`))
  const wanted = digest.digest('hex')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  console.log('Building.')
  run(process.execPath, ['scripts/build.mjs'])
  writeFileSync(stamp, wanted)
}
