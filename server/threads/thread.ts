import { pathToFileURL } from 'node:url'
import { Worker, type ResourceLimits } from 'node:worker_threads'

/**
 * Starts a thread. Built, the thread lies beside the bundle as a
 * script; from source it is TypeScript, which a thread reads only once tsx is registered in it,
 * unless `BUILT_THREADS` says where the same source has just been bundled, as the tests do.
 *
 * @param name the thread's file without its ending, beside the caller's
 * @param caller the caller's `import.meta.url`
 * @param workerData what it is given, such as the database file
 */
export function startThread(
  name: string,
  caller: string,
  workerData: object,
  resourceLimits: ResourceLimits = {},
): Worker {
  const { BUILT_THREADS: bundle } = process.env
  const built = caller.endsWith('.ts') ? bundle && pathToFileURL(bundle) : caller
  if (built) return new Worker(new URL(`./${name}.js`, built), { workerData, resourceLimits })
  const source = JSON.stringify(new URL(`./${name}.ts`, caller).href)
  return new Worker(
    `import('tsx/esm/api').then(({ register }) => { register(); return import(${source}) })`,
    { eval: true, workerData, resourceLimits },
  )
}
