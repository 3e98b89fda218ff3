import DownloadIcon from '@mui/icons-material/DownloadOutlined'
import { Button, Menu, MenuItem } from '@mui/material'
import { CHART_COLOURS, tableCsv, type AnswerTable, type ChartOption } from '@flimbo/core/charts'
import { plainName } from '@flimbo/core/tagging'
import { useState } from 'react'
import { drawChart, saveFile, type ChartFile } from '../charts/index.ts'
import { Fault } from '../ui/index.ts'

/** A chart as it stands on paper: in the light scheme's colours. */
export interface OnPaper {
  readonly option: ChartOption
  readonly height: number
}

interface Props {
  readonly title: string
  /** Draws it, once somebody wants it. */
  readonly chart: () => OnPaper | Promise<OnPaper>
  /** Its numbers, once somebody wants them. */
  readonly table: () => Pick<AnswerTable, 'headings' | 'rows'>
}

/** Takes a chart away: as a picture, as a drawing, or as its numbers. */
export function TakeAway({ title, chart, table }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [fault, setFault] = useState<string | null>(null)
  const name = plainName(title) || 'figures'
  async function take(file: ChartFile | 'csv') {
    setAnchor(null)
    try {
      saveFile(file === 'csv' ? numbersOf(table()) : await drawingOf(chart, file), `${name}.${file}`)
      setFault(null)
    } catch (error) {
      setFault(error instanceof Error ? error.message : 'The file could not be made. Try again.')
    }
  }
  return (
    <>
      <Button
        startIcon={<DownloadIcon />}
        aria-haspopup="menu"
        aria-label={`Download: ${title}`}
        onClick={({ currentTarget }) => {
          setAnchor(currentTarget)
        }}
      >
        Download
      </Button>
      <Fault sentence={fault} />
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => {
          setAnchor(null)
        }}
      >
        <MenuItem onClick={() => void take('png')}>Picture (PNG)</MenuItem>
        <MenuItem onClick={() => void take('svg')}>Drawing (SVG)</MenuItem>
        <MenuItem onClick={() => void take('csv')}>Its numbers (CSV)</MenuItem>
      </Menu>
    </>
  )
}

const numbersOf = (table: ReturnType<Props['table']>) =>
  new Blob([tableCsv(table)], { type: 'text/csv;charset=utf-8' })

async function drawingOf(chart: Props['chart'], file: ChartFile): Promise<Blob> {
  const { option, height } = await chart()
  return drawChart(option, file, { height, background: CHART_COLOURS.light.sheet })
}
