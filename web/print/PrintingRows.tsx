import { Typography } from '@mui/material'
import { SIZE_MM } from '@flimbo/core/codes'
import { LEVELS, RECOVERY, type Level } from '@flimbo/core/symbol'
import { useCampaign } from '../campaigns/index.ts'
import { stylesFor, useStyles } from '../symbol/index.ts'
import { Choice, NumberField, Row } from './rows.tsx'

/** How something is printed, but for what its house style says. */
interface Printing {
  readonly styleId: number | null
  readonly sizeMm: number
  readonly viewingM: number | null
  readonly level: Level
}

/** House style, size, viewing distance and level: lines of every job sheet. `free` is the level it is printed at. */
export function PrintingRows({
  printing,
  free,
  set,
}: {
  printing: Printing
  free: Level
  set: (more: Partial<Printing>, what: string) => void
}) {
  const { clientId } = useCampaign()
  const { styles } = useStyles()
  const { styleId, sizeMm, viewingM, level } = printing
  return (
    <>
      <Row name="House style">
        <Choice
          label="House style"
          value={String(styleId ?? '')}
          choices={[
            { value: '', words: 'Plain' },
            ...stylesFor(styles, clientId, styleId).map(({ id, name }) => ({
              value: String(id),
              words: name,
            })),
          ]}
          set={(value) => {
            set({ styleId: value === '' ? null : Number(value) }, 'house style')
          }}
        />
      </Row>
      <Row name="Size">
        <NumberField
          label="Size"
          value={sizeMm}
          min={SIZE_MM.min}
          max={SIZE_MM.max}
          unit="mm with its quiet zone"
          set={(value) => {
            if (value !== null) set({ sizeMm: value }, 'size')
          }}
        />
      </Row>
      <Row name="Viewed from">
        <NumberField
          label="Viewed from"
          value={viewingM}
          min={0.05}
          max={1000}
          step={0.5}
          unit="m"
          isOptional
          set={(value) => {
            set({ viewingM: value }, 'viewed from')
          }}
        />
        <Typography variant="body2" color="textSecondary">
          {viewingM === null ? 'not said' : ''}
        </Typography>
      </Row>
      <Row name="Level">
        <Choice
          label="Error correction level"
          value={level}
          choices={LEVELS.map((value) => ({
            value,
            words: `${value}, about ${String(Math.round(RECOVERY[value] * 100))} %`,
          }))}
          set={(value) => {
            set({ level: value }, 'level')
          }}
        />
        <Typography variant="body2" color="textSecondary">
          {free === level ? '' : `printed at ${free}, at no cost`}
        </Typography>
      </Row>
    </>
  )
}
