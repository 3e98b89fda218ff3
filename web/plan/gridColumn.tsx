import type { Code, CODE_SORTS } from '@flimbo/core/codes'
import type { PlanColumn } from '@flimbo/core/plan'
import type { ReactNode } from 'react'

/** A column as the grid shows it. */
export interface GridColumn {
  readonly id: string
  readonly title: string
  readonly width: number
  /** How its cells are edited; null where they are only shown. */
  readonly plan: PlanColumn | null
  readonly sort: (typeof CODE_SORTS)[number] | null
  readonly right?: boolean
  /** Values people choose from while they type. */
  readonly offers?: 'medium' | 'source' | 'content' | 'term' | 'route' | 'style'
  /** What is read out and copied. */
  readonly text: (row: Code) => string
  readonly render?: (row: Code) => ReactNode
}

/** A value people copy. */
export const mono = (value: string) => <span className="mono">{value}</span>
