import { PLAIN_STYLE, type ShownFile, type Surroundings } from '../pages/index.ts'
import { wordsFor } from '../words/index.ts'

export const SHOWN_FILE: ShownFile = {
  key: 'AAAAAAAAAAAAAAAAAAAAA',
  mark: '0123abcd',
  name: 'stop “1”.mp3',
  type: 'audio/mpeg',
  bytes: 1_234_567,
  width: 1200,
  height: 800,
  widths: [540, 1080],
}

/** What pages are drawn into in tests. */
export const pageSurroundings = (language: string, more: Partial<Surroundings> = {}): Surroundings => ({
  language,
  languages: [language],
  spoken: wordsFor([language]),
  now: Date.parse('2026-07-02T12:00Z'),
  zone: 'Europe/Berlin',
  style: PLAIN_STYLE,
  shows: () => true,
  system: 'iOS',
  file: () => SHOWN_FILE,
  fileHref: ({ key }, variant) =>
    `/~f/${key}/${variant ? `${String(variant.width)}.${variant.format}` : 'file'}`,
  linkHref: (_part, _item, address) => address,
  takeHref: (part) => `/x/~t/t/${part}`,
  passHref: null,
  languageHref: (tag) => `/x/~t/in/${tag}`,
  mapOf: () => '',
  tellHref: '/x/~t',
  nonce: 'n',
  origin: 'https://go.saltmarsh.example',
  ...more,
})
