export { StaticBench } from './StaticBench.tsx'
