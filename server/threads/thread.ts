import { Worker, type ResourceLimits } from 'node:worker_threads'

/**
 * Starts a thread. Built, the thread lies beside the bundle as a
 * script; from source it is TypeScript, which a thread reads only once tsx is registered in it.
 *
 * @param name the thread's file without its ending, beside the caller's
 * @param caller the caller's `import.meta.url`
 * @param workerData what it is given, such as the database file
 */
export function startThread(name: string, caller: string, workerData: object, resourceLimits: ResourceLimits = {}): Worker {
  if (!caller.endsWith('.ts')) return new Worker(new URL(`./${name}.js`, caller), { workerData, resourceLimits })
  const source = JSON.stringify(new URL(`./${name}.ts`, caller).href)
  return new Worker(`import('tsx/esm/api').then(({ register }) => { register(); return import(${source}) })`, { eval: true, workerData, resourceLimits })
}
