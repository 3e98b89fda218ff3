import { PLAIN_LOOK, type Look } from './look.ts'

/** A look under a name, as it ships with Flimbo. */
export interface NamedLook {
  readonly name: string
  readonly look: Look
}

const soft = { ring: 'rounded', centre: 'rounded', ringTint: null, centreTint: null } as const

/** Six looks to begin with: black as black ink alone on white, in shapes that read well. */
export const NEUTRAL_LOOKS: readonly NamedLook[] = [
  { name: 'Plain', look: PLAIN_LOOK },
  {
    name: 'Rounded',
    look: { ...PLAIN_LOOK, modules: { shape: 'rounded', size: 1 }, finder: soft, alignment: 'rounded' },
  },
  {
    name: 'Dots',
    look: {
      ...PLAIN_LOOK,
      modules: { shape: 'dot', size: 0.9 },
      finder: { ...soft, centre: 'circle' },
      alignment: 'rounded',
    },
  },
  {
    name: 'Flowing',
    look: { ...PLAIN_LOOK, modules: { shape: 'flowing', size: 1 }, finder: soft, alignment: 'rounded' },
  },
  {
    name: 'Upright bars',
    look: { ...PLAIN_LOOK, modules: { shape: 'upright', size: 0.85 }, finder: soft, alignment: 'rounded' },
  },
  {
    name: 'Framed, with its link',
    look: {
      ...PLAIN_LOOK,
      surround: {
        line: 0.6,
        corner: 2,
        padding: 0,
        tint: { rgb: '#000000', cmyk: [0, 0, 0, 100] },
        textTint: { rgb: '#000000', cmyk: [0, 0, 0, 100] },
        caption: '',
        captionAt: 'above',
        link: true,
      },
    },
  },
]
