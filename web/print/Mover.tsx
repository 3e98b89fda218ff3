import { Box } from '@mui/material'
import type { Placement } from '@flimbo/core/symbol'
import { useRef, type KeyboardEvent, type PointerEvent } from 'react'

interface Props {
  readonly placement: Placement
  /** Sides of the piece and of the picture, in millimetres. */
  readonly piece: { readonly width: number; readonly height: number }
  readonly picture: { readonly width: number; readonly height: number }
  readonly move: (placement: Placement) => void
}

const STEP_MM = 1
const LONG_STEP_MM = 10
const STEP_DEG = 5

const rounded = (value: number) => Math.round(value * 10) / 10

/** Lies over a piece on its picture: dragged, or moved by the arrow keys, by ten with Shift, and turned with Alt. */
export function Mover({ placement, piece, picture, move }: Props) {
  const held = useRef<{ x: number; y: number; from: Placement } | null>(null)
  const percent = (part: number, whole: number) => `${String((part / whole) * 100)}%`

  const onPointerDown = (event: PointerEvent<HTMLButtonElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId)
    held.current = { x: event.clientX, y: event.clientY, from: placement }
  }
  const onPointerMove = (event: PointerEvent<HTMLButtonElement>) => {
    const start = held.current
    const shown = event.currentTarget.parentElement?.getBoundingClientRect().width ?? 0
    if (!start || shown === 0) return
    const mm = picture.width / shown
    move({
      ...start.from,
      xMm: rounded(start.from.xMm + (event.clientX - start.x) * mm),
      yMm: rounded(start.from.yMm + (event.clientY - start.y) * mm),
    })
  }
  const onPointerUp = () => {
    held.current = null
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const arrows: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    }
    const arrow = arrows[event.key]
    if (!arrow) return
    event.preventDefault()
    const [dx, dy] = arrow
    if (event.altKey) {
      const turned = placement.turnDeg + (dx + dy) * STEP_DEG
      // Half a turn further is half a turn back.
      move({
        ...placement,
        turnDeg: turned > 180 || turned < -180 ? turned - Math.sign(turned) * 360 : turned,
      })
      return
    }
    const step = event.shiftKey ? LONG_STEP_MM : STEP_MM
    move({ ...placement, xMm: rounded(placement.xMm + dx * step), yMm: rounded(placement.yMm + dy * step) })
  }
  return (
    <Box
      component="button"
      type="button"
      aria-label="Symbol on the picture: drag it, or move it by the arrow keys, by ten with Shift; Alt with an arrow turns it"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={onPointerUp}
      onKeyDown={onKeyDown}
      sx={{
        position: 'absolute',
        left: percent(placement.xMm - piece.width / 2, picture.width),
        top: percent(placement.yMm - piece.height / 2, picture.height),
        width: percent(piece.width, picture.width),
        height: percent(piece.height, picture.height),
        minWidth: 24,
        minHeight: 24,
        transform: `rotate(${String(placement.turnDeg)}deg)`,
        border: '1px dashed',
        borderColor: 'primary.main',
        bgcolor: 'transparent',
        cursor: 'move',
        touchAction: 'none',
        p: 0,
      }}
    />
  )
}
