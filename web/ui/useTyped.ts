import { useState } from 'react'

/** What a field is given so that nobody acts on half of what is being typed. */
export interface Typed {
  readonly value: string
  readonly onChange: (event: { target: { value: string } }) => void
  readonly onBlur: () => void
}

/**
 * Holds what is being typed until it is whole, such as a year whose first digits make another one; what is left
 * unfinished gives way to the last whole value.
 */
export function useTyped(
  value: string,
  change: (value: string) => void,
  isWhole: (text: string) => boolean,
): Typed {
  const [typed, setTyped] = useState<string | null>(null)
  return {
    value: typed ?? value,
    onChange({ target }) {
      setTyped(target.value)
      if (isWhole(target.value) && target.value !== value) change(target.value)
    },
    onBlur() {
      setTyped(null)
    },
  }
}
