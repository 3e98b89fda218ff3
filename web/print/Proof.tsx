import { Typography } from '@mui/material'
import { number } from '@flimbo/core/formats'
import type { Scene } from '@flimbo/core/symbol'
import type { ReactNode } from 'react'
import { SceneDrawing } from '../symbol/index.ts'
import { Sheet } from '../ui/index.ts'
import { Ruler } from './Ruler.tsx'

const said = (mm: number) => number(Math.round(mm * 10) / 10)

/** A piece beside its rulers, as large as it prints. */
export function Proof({
  name,
  scene,
  mm,
  mover = null,
}: {
  name: string
  scene: Scene
  mm: number
  /** What moves the piece on the picture that it lies on. */
  mover?: ReactNode
}) {
  const [widthMm, heightMm] = [scene.width * scene.unitMm, scene.height * scene.unitMm]
  return (
    <Sheet
      title={name}
      aside={
        <Typography variant="body2" color="textSecondary" noWrap>
          {said(widthMm)} × {said(heightMm)} mm in all, symbol {said(mm)} mm with its quiet zone
        </Typography>
      }
      pad={false}
    >
      <Ruler widthMm={widthMm} heightMm={heightMm}>
        <SceneDrawing
          scene={scene}
          label={`Symbol of ${name} at ${String(mm)} mm`}
          width="100%"
          height="100%"
        />
        {mover}
      </Ruler>
    </Sheet>
  )
}
