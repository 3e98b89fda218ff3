import { setPriority } from 'node:os'

const NICE = 10

/** Lets phones come first where both want the processor. The threads that are started after this have it too. */
export function lowerPriority(): void {
  try {
    setPriority(NICE)
  } catch {
    // Not everywhere may a process step back; it works as well without.
  }
}
