import { filesApi } from '@flimbo/core/files'
import { pathData, type Ink, type Scene, type Solid } from '@flimbo/core/symbol'
import { useId, useMemo } from 'react'
import { hrefOf } from '../api/index.ts'

/** A scene on the screen: the same marks that files are made of. */
export function SceneDrawing({
  scene,
  label,
  width,
  height,
}: {
  scene: Scene
  label: string
  width: number | string
  height?: number | string
}) {
  const id = useId()
  const marks = useMemo(
    () =>
      scene.marks.map((mark) => (mark.kind === 'area' ? { ...mark, path: pathData(mark.outlines) } : mark)),
    [scene],
  )
  return (
    <svg
      {...(label === '' ? { 'aria-hidden': true } : { role: 'img', 'aria-label': label })}
      viewBox={`0 0 ${String(scene.width)} ${String(scene.height)}`}
      style={{ width, height: height ?? width, display: 'block', flexShrink: 0 }}
    >
      {marks.map((mark, i) => {
        if (mark.kind === 'picture') {
          const { file, kind: _kind, turnDeg = 0, ...box } = mark
          const middle = `${String(box.x + box.width / 2)} ${String(box.y + box.height / 2)}`
          const href = hrefOf(filesApi.content, { params: { sum: file }, query: { preview: 'yes' } })
          return (
            <image
              key={i}
              href={href}
              {...box}
              transform={turnDeg === 0 ? undefined : `rotate(${String(turnDeg)} ${middle})`}
              preserveAspectRatio="none"
            />
          )
        }
        const name = `${id}-${String(i)}`
        return (
          <g key={i}>
            <Gradient ink={mark.ink} id={name} />
            <path d={mark.path} fillRule="evenodd" fill={fillOf(mark.ink, name)} />
          </g>
        )
      })}
    </svg>
  )
}

const fillOf = (ink: Ink, name: string) => (ink.kind === 'solid' ? ink.colour : `url(#${name})`)

function Gradient({ ink, id }: { ink: Ink; id: string }) {
  if (ink.kind === 'solid') return null
  const stops = ink.stops.map(({ colour }: Solid, i: number) => (
    <stop key={i} offset={i} stopColor={colour} />
  ))
  const common = { id, gradientUnits: 'userSpaceOnUse' }
  if (ink.kind === 'linear')
    return (
      <linearGradient {...common} x1={ink.from[0]} y1={ink.from[1]} x2={ink.to[0]} y2={ink.to[1]}>
        {stops}
      </linearGradient>
    )
  return (
    <radialGradient {...common} cx={ink.centre[0]} cy={ink.centre[1]} r={ink.radius}>
      {stops}
    </radialGradient>
  )
}
