import { Button, Typography } from '@mui/material'
import type { Look } from '@flimbo/core/symbol'
import { FilePick } from './FilePick.tsx'
import type { LookProps } from './LookParts.tsx'
import { Choice, NumberField, Part, Row } from './rows.tsx'
import { TintField } from './TintField.tsx'

type Logo = NonNullable<Look['logo']>

const WHITE = { rgb: '#ffffff', cmyk: null }
/** A logo as it is put in: on a white plate, small enough for the usual level. */
const newLogo = (file: string): Logo => ({
  file,
  share: 0.2,
  margin: 1,
  plate: 'square',
  plateTint: WHITE,
  cleared: true,
})

/** The logo of a look: which picture, how large, and what is under it. */
export function LogoRows({ look: { logo }, set }: LookProps) {
  const change = (more: Partial<Logo>, what: string) => {
    if (logo) set({ logo: { ...logo, ...more } }, what)
  }
  return (
    <Part
      title="Logo"
      aside={
        logo && (
          <Button
            size="small"
            color="inherit"
            onClick={() => {
              set({ logo: null }, 'logo')
            }}
          >
            Remove logo
          </Button>
        )
      }
    >
      <Row name="Picture">
        <FilePick
          label="Logo"
          sum={logo?.file ?? null}
          take={(file) => {
            set({ logo: logo ? { ...logo, file } : newLogo(file) }, 'logo')
          }}
        />
        {!logo && (
          <Typography variant="body2" color="textSecondary">
            PNG, JPEG, WebP or SVG
          </Typography>
        )}
      </Row>
      {logo && (
        <>
          <Row name="Size">
            <NumberField
              label="Size of the logo"
              value={Math.round(logo.share * 100)}
              min={5}
              max={40}
              unit="% of the side"
              width={48}
              set={(size) => {
                change({ share: (size ?? 20) / 100 }, 'size of the logo')
              }}
            />
          </Row>
          <Row name="Margin">
            <NumberField
              label="Margin of the logo"
              value={logo.margin}
              min={0}
              max={4}
              step={0.5}
              unit="modules"
              width={48}
              set={(margin) => {
                change({ margin: margin ?? 0 }, 'margin')
              }}
            />
          </Row>
          <Row name="Plate">
            <Choice
              label="Plate under the logo"
              value={logo.plate}
              choices={[
                { value: 'none', words: 'none' },
                { value: 'square', words: 'square' },
                { value: 'round', words: 'round' },
              ]}
              set={(plate) => {
                change({ plate }, 'plate')
              }}
            />
            {logo.plate !== 'none' && (
              <TintField
                label="Colour of the plate"
                tint={logo.plateTint}
                set={(plateTint) => {
                  change({ plateTint }, 'colour of the plate')
                }}
              />
            )}
          </Row>
          <Row name="Under it">
            <Choice
              label="Modules under the logo"
              value={logo.cleared ? 'cleared' : 'kept'}
              choices={[
                { value: 'cleared', words: 'modules left out' },
                { value: 'kept', words: 'modules kept' },
              ]}
              set={(under) => {
                change({ cleared: under === 'cleared' }, 'under the logo')
              }}
            />
          </Row>
        </>
      )}
    </Part>
  )
}
