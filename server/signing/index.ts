export { idSigner, isSameText, isSigned, shortSigner, signatureOf } from './signature.ts'
export { keyFor } from './keyFor.ts'
