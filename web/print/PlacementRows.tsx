import { Button } from '@mui/material'
import type { Placement } from '@flimbo/core/symbol'
import { FilePick } from './FilePick.tsx'
import { NumberField, Part, Row } from './rows.tsx'

interface Props {
  readonly placement: Placement | null
  readonly set: (placement: Placement | null) => void
}

/** A picture as it is put under a piece: A4 wide, the piece in its middle. */
const newPlacement = (file: string): Placement => ({ file, widthMm: 210, xMm: 105, yMm: 148, turnDeg: 0 })

/** The picture that a piece lies on, such as a poster, and where it lies there. */
export function PlacementRows({ placement, set }: Props) {
  const change = (more: Partial<Placement>) => {
    if (placement) set({ ...placement, ...more })
  }
  return (
    <Part
      title="On a picture"
      aside={
        placement && (
          <Button
            size="small"
            color="inherit"
            onClick={() => {
              set(null)
            }}
          >
            Remove picture
          </Button>
        )
      }
    >
      <Row name="Picture">
        <FilePick
          label="Poster or label"
          sum={placement?.file ?? null}
          take={(file) => {
            set(placement ? { ...placement, file } : newPlacement(file))
          }}
        />
      </Row>
      {placement && (
        <>
          <Row name="Its width">
            <NumberField
              label="Width of the picture"
              value={placement.widthMm}
              min={20}
              max={5000}
              unit="mm"
              set={(widthMm) => {
                if (widthMm !== null) change({ widthMm })
              }}
            />
          </Row>
          <Row name="Symbol at">
            <NumberField
              label="From the left"
              value={placement.xMm}
              min={-5000}
              max={10_000}
              unit="mm left"
              width={56}
              set={(xMm) => {
                if (xMm !== null) change({ xMm })
              }}
            />
            <NumberField
              label="From the top"
              value={placement.yMm}
              min={-5000}
              max={10_000}
              unit="mm top"
              width={56}
              set={(yMm) => {
                if (yMm !== null) change({ yMm })
              }}
            />
          </Row>
          <Row name="Turned by">
            <NumberField
              label="Turned by"
              value={placement.turnDeg}
              min={-180}
              max={180}
              step={5}
              unit="°"
              width={56}
              set={(turnDeg) => {
                if (turnDeg !== null) change({ turnDeg })
              }}
            />
          </Row>
        </>
      )}
    </Part>
  )
}
