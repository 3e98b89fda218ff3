import { PLAIN_LOOK, type Look, type Tint } from '@flimbo/core/symbol'

/** A small boat over two waves: the mark of the sample company, drawn for it. */
export const BOAT_MARK = `<svg xmlns="http://www.w3.org/2000/svg" width="64" height="64" viewBox="0 0 64 64">
<circle cx="32" cy="32" r="32" fill="#0c5a66"/>
<path d="M30 10v26H14zM34 16l14 20H34z" fill="#ffffff"/>
<path d="M12 40h40l-7 9H19z" fill="#c4881c"/>
<path d="M8 54q6-5 12 0t12 0 12 0 12 0" fill="none" stroke="#ffffff" stroke-width="3" stroke-linecap="round"/>
</svg>
`

const petrol: Tint = { rgb: '#0c5a66', cmyk: [90, 40, 45, 30] }
const plum: Tint = { rgb: '#5a2548', cmyk: [45, 90, 35, 45] }
const brick: Tint = { rgb: '#8e2f1d', cmyk: [25, 90, 95, 25] }
const paper: Tint = { rgb: '#faf8f3', cmyk: [1, 2, 5, 0] }
const white: Tint = { rgb: '#ffffff', cmyk: [0, 0, 0, 0] }

/** A house style of the sample company, and the sources whose pieces are printed in it. */
export interface SampleStyle {
  readonly name: string
  readonly sources: readonly string[]
  /** `logo` is the sum of the uploaded mark. */
  readonly look: (logo: string) => Look
}

export const STYLES: readonly SampleStyle[] = [
  {
    name: 'Saltmarsh petrol',
    sources: ['coaster', 'desk-card', 'card', 'ticket-wallet', 'pass-card', 'counter', 'cup'],
    look: (logo) => ({
      ...PLAIN_LOOK,
      modules: { shape: 'rounded', size: 1 },
      finder: { ring: 'rounded', centre: 'rounded', ringTint: null, centreTint: null },
      alignment: 'rounded',
      ink: { kind: 'solid', tint: petrol },
      logo: { file: logo, share: 0.22, margin: 0.5, plate: 'round', plateTint: white, cleared: true },
    }),
  },
  {
    name: 'Saltmarsh dusk',
    sources: ['poster', 'programme', 'flyer', 'banner', 'bakery-bag'],
    look: () => ({
      ...PLAIN_LOOK,
      modules: { shape: 'dot', size: 0.9 },
      finder: { ring: 'rounded', centre: 'circle', ringTint: null, centreTint: brick },
      alignment: 'rounded',
      ink: { kind: 'linear', from: plum, to: brick, angle: 60 },
      ground: { kind: 'solid', tint: paper },
    }),
  },
  {
    name: 'Saltmarsh landing sign',
    sources: ['landing-sign', 'pier-poster', 'bus-back', 'tide-leaflet'],
    look: () => ({
      ...PLAIN_LOOK,
      ink: { kind: 'solid', tint: petrol },
      surround: {
        line: 0.8,
        corner: 2.5,
        padding: 0.5,
        tint: petrol,
        textTint: petrol,
        caption: 'Today’s boats',
        captionAt: 'above',
        link: true,
      },
    }),
  },
]
