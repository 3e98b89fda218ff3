import { spawn, type ChildProcess } from 'node:child_process'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('..', import.meta.url))

/** Starts a server and waits until it answers on a port, which it is told as `PORT`. */
export async function startServer(
  script: string,
  port: number,
  env: NodeJS.ProcessEnv,
): Promise<ChildProcess> {
  const child = spawn(process.execPath, script.endsWith('.ts') ? ['--import', 'tsx', script] : [script], {
    cwd: root,
    env: { ...env, PORT: String(port) },
    stdio: ['ignore', 'inherit', 'inherit'],
  })
  await answers(port, script)
  return child
}

/** Waits until something answers on a port. */
export async function answers(port: number, name: string): Promise<void> {
  for (let i = 0; i < 200; i++) {
    const isThere = await fetch(`http://127.0.0.1:${String(port)}/`, { redirect: 'manual' }).then(
      () => true,
      () => false,
    )
    if (isThere) return
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new Error(`${name} did not start`)
}
