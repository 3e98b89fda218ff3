import { VECTOR_FORMATS, type FileFormat, type Finish } from '@flimbo/core/symbol'
import { Choice, NumberField, Row } from './rows.tsx'

const FORMATS: readonly { value: FileFormat; words: string }[] = [
  { value: 'pdf', words: 'PDF' },
  { value: 'eps', words: 'EPS' },
  { value: 'svg', words: 'SVG' },
  { value: 'png', words: 'PNG' },
  { value: 'jpeg', words: 'JPEG' },
  { value: 'webp', words: 'WebP' },
]

/** How files are finished: format, colours, resolution, what is on them, bleed and cut marks. */
export function FinishRows({ finish, set }: { finish: Finish; set: (more: Partial<Finish>) => void }) {
  const { format } = finish
  const isVector = VECTOR_FORMATS.includes(format)
  return (
    <>
      <Row name="Format">
        <Choice
          label="Format"
          value={format}
          choices={FORMATS}
          set={(value) => {
            set({ format: value })
          }}
        />
        {(format === 'pdf' || format === 'eps') && (
          <Choice
            label="Colours"
            value={finish.colours}
            choices={[
              { value: 'cmyk', words: 'CMYK, black alone' },
              { value: 'rgb', words: 'RGB' },
            ]}
            set={(colours) => {
              set({ colours })
            }}
          />
        )}
        {!isVector && (
          <NumberField
            label="Resolution"
            value={finish.dpi}
            min={36}
            max={2400}
            step={50}
            unit="dpi"
            set={(dpi) => {
              set({ dpi: Math.round(dpi ?? 300) })
            }}
          />
        )}
      </Row>
      <Row name="Size is of">
        <Choice
          label="What the size is of"
          value={finish.measure}
          choices={[
            { value: 'quiet-zone', words: 'the symbol with its quiet zone' },
            { value: 'modules', words: 'the modules alone' },
          ]}
          set={(measure) => {
            set({ measure })
          }}
        />
      </Row>
      <Row name="Surround">
        <Choice
          label="Surround in files"
          value={finish.surround}
          choices={[
            { value: 'with', words: 'as designed' },
            { value: 'without', words: 'left out' },
          ]}
          set={(surround) => {
            set({ surround })
          }}
        />
        <Choice
          label="Ground in files"
          value={finish.ground}
          choices={[
            { value: 'filled', words: 'ground filled' },
            { value: 'transparent', words: 'ground transparent' },
          ]}
          set={(ground) => {
            set({ ground })
          }}
        />
      </Row>
      <Row name="Bleed">
        <NumberField
          label="Bleed"
          value={finish.bleedMm}
          min={0}
          max={20}
          unit="mm"
          width={48}
          set={(bleedMm) => {
            set({ bleedMm: bleedMm ?? 0 })
          }}
        />
        <Choice
          label="Cut marks"
          value={finish.cutMarks}
          choices={[
            { value: 'no', words: 'no cut marks' },
            { value: 'yes', words: 'cut marks' },
          ]}
          set={(cutMarks) => {
            set({ cutMarks })
          }}
        />
      </Row>
    </>
  )
}
