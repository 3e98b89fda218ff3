export { idSigner, isSameText, isSigned, shortSigner, signatureOf } from './signature.ts'
export { joinNumbers, splitNumbers } from './numbers.ts'
export { keyFor } from './keyFor.ts'
