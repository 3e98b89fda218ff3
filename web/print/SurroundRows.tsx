import { Typography } from '@mui/material'
import type { Look, Tint } from '@flimbo/core/symbol'
import { useLetters } from '../symbol/index.ts'
import type { LookProps } from './LookParts.tsx'
import { Choice, NumberField, Part, Row, TextCell } from './rows.tsx'
import { TintField } from './TintField.tsx'

type Surround = NonNullable<Look['surround']>

const BLACK: Tint = { rgb: '#000000', cmyk: [0, 0, 0, 100] }
const NEW_SURROUND: Surround = {
  line: 0.6,
  corner: 2,
  padding: 0,
  tint: BLACK,
  textTint: BLACK,
  caption: '',
  captionAt: 'below',
  link: false,
}
const CAPTION_MAX = 60

/** What stands about the symbol: a line, a caption, the short link in letters. */
export function SurroundRows({ look: { surround }, set }: LookProps) {
  const letters = useLetters()
  const missing = surround ? letters.missing(surround.caption, 'caption') : []
  const change = (more: Partial<Surround>, what: string) => {
    if (surround) set({ surround: { ...surround, ...more } }, what)
  }
  return (
    <Part title="Surround">
      <Row name="Surround">
        <Choice
          label="Surround"
          value={surround ? 'yes' : 'no'}
          choices={[
            { value: 'no', words: 'None' },
            { value: 'yes', words: 'Line, caption, link' },
          ]}
          set={(wanted) => {
            set({ surround: wanted === 'yes' ? NEW_SURROUND : null }, 'surround')
          }}
        />
      </Row>
      {surround && (
        <>
          <Row name="Caption">
            <TextCell
              label="Caption"
              value={surround.caption}
              max={CAPTION_MAX}
              set={(caption) => {
                change({ caption }, 'caption')
              }}
            />
            {missing.length > 0 && (
              <Typography variant="caption" color="warning" role="status">
                Flimbo’s letters have no {missing.join(' ')}: left out in print.
              </Typography>
            )}
          </Row>
          <Row name="Stands">
            <Choice
              label="Where the caption stands"
              value={surround.captionAt}
              choices={[
                { value: 'above', words: 'above' },
                { value: 'below', words: 'below' },
              ]}
              set={(captionAt) => {
                change({ captionAt }, 'caption at')
              }}
            />
            <TintField
              label="Colour of the caption"
              tint={surround.textTint}
              set={(textTint) => {
                change({ textTint }, 'colour of the caption')
              }}
            />
          </Row>
          <Row name="Short link">
            <Choice
              label="Short link in letters"
              value={surround.link ? 'yes' : 'no'}
              choices={[
                { value: 'yes', words: 'in letters below' },
                { value: 'no', words: 'not shown' },
              ]}
              set={(link) => {
                change({ link: link === 'yes' }, 'link')
              }}
            />
          </Row>
          <Row name="Line">
            <NumberField
              label="Width of the line"
              value={surround.line}
              min={0}
              max={4}
              step={0.2}
              unit="modules"
              width={48}
              set={(line) => {
                change({ line: line ?? 0 }, 'line')
              }}
            />
            <TintField
              label="Colour of the line"
              tint={surround.tint}
              set={(tint) => {
                change({ tint }, 'colour of the line')
              }}
            />
          </Row>
          <Row name="Corner">
            <NumberField
              label="Rounding of the corners"
              value={surround.corner}
              min={0}
              max={12}
              unit="modules"
              width={48}
              set={(corner) => {
                change({ corner: corner ?? 0 }, 'corner')
              }}
            />
          </Row>
          <Row name="Padding">
            <NumberField
              label="Padding"
              value={surround.padding}
              min={0}
              max={12}
              unit="modules"
              width={48}
              set={(padding) => {
                change({ padding: padding ?? 0 }, 'padding')
              }}
            />
          </Row>
        </>
      )}
    </Part>
  )
}
