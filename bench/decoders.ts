// The decoders that pieces are proofed with, as tests and benchmarks ask them.
export { jsqr, zxing } from '../server/print/decoders.ts'
