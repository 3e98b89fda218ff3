import { Worker } from 'node:worker_threads'

/**
 * Starts a thread that works on the database file. Built, the thread lies beside the bundle as a
 * script; from source it is TypeScript, which a thread reads only once tsx is registered in it.
 *
 * @param name the thread's file without its ending, beside the caller's
 * @param caller the caller's `import.meta.url`
 */
export function startThread(name: string, caller: string, file: string): Worker {
  const workerData = { file }
  if (!caller.endsWith('.ts')) return new Worker(new URL(`./${name}.js`, caller), { workerData })
  const source = JSON.stringify(new URL(`./${name}.ts`, caller).href)
  return new Worker(`import('tsx/esm/api').then(({ register }) => { register(); return import(${source}) })`, { eval: true, workerData })
}
