import DownloadIcon from '@mui/icons-material/DownloadOutlined'
import { Button, Menu, MenuItem } from '@mui/material'
import { CHART_COLOURS, tableCsv, type AnswerTable, type ChartOption } from '@flimbo/core/charts'
import { plainName } from '@flimbo/core/tagging'
import { useState } from 'react'
import { drawChart, saveFile, type ChartFile } from '../charts/index.ts'
import { Fault } from '../ui/index.ts'

interface Props {
  readonly title: string
  /** As it stands on paper: in the light scheme's colours. */
  readonly chart: { readonly option: ChartOption; readonly height: number }
  /** Its numbers, once somebody wants them. */
  readonly table: () => Pick<AnswerTable, 'headings' | 'rows'>
}

/** Takes a chart away: as a picture, as a drawing, or as its numbers. */
export function TakeAway({ title, chart: { option, height }, table }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [fault, setFault] = useState<string | null>(null)
  const name = plainName(title) || 'figures'
  async function take(file: ChartFile | 'csv') {
    setAnchor(null)
    try {
      const blob =
        file === 'csv'
          ? new Blob([tableCsv(table())], { type: 'text/csv;charset=utf-8' })
          : await drawChart(option, file, { height, background: CHART_COLOURS.light.sheet })
      saveFile(blob, `${name}.${file}`)
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
