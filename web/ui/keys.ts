import { useEffect, useRef } from 'react'

type Keys = Readonly<Record<string, (event: KeyboardEvent) => void>>

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  )
}

/** What floats over the page and keeps keys to itself: a list that is part of the page does not. */
const OVER_THE_PAGE =
  '[role="dialog"][aria-modal="true"], [role="menu"], .MuiPopover-root [role="listbox"], .MuiPopper-root [role="listbox"]'

/**
 * Listens for keys on the whole page: single ones ("e", "/") only while nobody types, and "ctrl+k",
 * which is the command key too, always. A dialog that is open keeps single keys to itself.
 */
export function useKeys(keys: Keys): void {
  const current = useRef(keys)
  useEffect(() => {
    current.current = keys
  })
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const control = event.ctrlKey || event.metaKey
      const name = `${control ? 'ctrl+' : ''}${event.key.length === 1 ? event.key.toLowerCase() : event.key}`
      const act = current.current[name]
      // What had the focus took it already.
      if (!act || event.altKey || event.defaultPrevented) return
      if (!control && (isTyping(event.target) || document.querySelector(OVER_THE_PAGE))) return
      event.preventDefault()
      act(event)
    }
    window.addEventListener('keydown', listen)
    return () => {
      window.removeEventListener('keydown', listen)
    }
  }, [])
}
