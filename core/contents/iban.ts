/** An account number as machines write it: without spaces, in capitals. */
export function ibanDigits(iban: string): string {
  return iban.replace(/\s/g, '').toUpperCase()
}

/** Whether an account number has its form and its check digits right (ISO 13616; ISO 7064, mod 97-10). */
export function isIban(iban: string): boolean {
  const digits = ibanDigits(iban)
  if (!/^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(digits)) return false
  return mod97(digits.slice(4) + digits.slice(0, 4)) === 1
}

/** Whether a creditor reference has its check digits right: RF, two digits, up to 21 signs (ISO 11649). */
export function isCreditorReference(reference: string): boolean {
  const digits = ibanDigits(reference)
  return /^RF\d{2}[A-Z0-9]{1,21}$/.test(digits) && mod97(digits.slice(4) + digits.slice(0, 4)) === 1
}

/** The rest of a division by 97, letters read as numbers from 10 (A) to 35 (Z). */
function mod97(text: string): number {
  let rest = 0
  for (const sign of text) {
    const value = parseInt(sign, 36)
    rest = (rest * (value > 9 ? 100 : 10) + value) % 97
  }
  return rest
}
