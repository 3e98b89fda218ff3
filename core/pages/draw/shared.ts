import {
  isDeviceAddress,
  html,
  trusted,
  type Markup,
  type Localised,
  textMarkup,
  type RichText,
  said,
  saidRich,
} from '../../fields/index.ts'
import { isRightToLeft } from '../../words/index.ts'
import { fullHref, type ShownFile, type Surroundings } from './surroundings.ts'

/** Says in which language something is that is in another than the page around it (WCAG 2.2, 3.1.2). */
export function langOf(lang: string): Markup | null {
  if (lang === '') return null
  return html` lang="${lang}" dir="${isRightToLeft(lang) ? 'rtl' : 'ltr'}"`
}

/** Words of a field; nothing where no language has any. */
export function wordsIn(around: Surroundings, value: Localised<string>): Markup | null {
  const { text, lang } = said(around, value)
  if (text === '') return null
  const lines = text.split('\n').map((line, i) => (i === 0 ? html`${line}` : html`<br />${line}`))
  return lang === '' ? html`${lines}` : html`<span${langOf(lang)}>${lines}</span>`
}

/** A text with looks; nothing where no language has any. */
export function richIn(around: Surroundings, partId: string, value: Localised<RichText>): Markup | null {
  const { blocks, lang } = saidRich(around, value)
  if (blocks.length === 0) return null
  let n = 0
  const markup = trusted(textMarkup(blocks, (address) => around.linkHref(partId, `t${String(n++)}`, address)))
  return html`<div class="text" ${langOf(lang)}>${markup}</div>`
}

/**
 * The attributes of a link. What is for the phone itself, such as a telephone number, is there at once: a way round by the
 * front door is not followed by every phone. Where there is script, it tells that it was followed.
 */
export function linkTo(around: Surroundings, partId: string, item: string, address: string): Markup {
  return isDeviceAddress(address)
    ? deviceLinkTo(around, partId, item, address)
    : html` href="${around.linkHref(partId, item, address)}"`
}

/** The same of what the phone opens itself, as a number that it dials: nobody but the page sees it followed. */
export const deviceLinkTo = (around: Surroundings, partId: string, item: string, address: string): Markup =>
  html` href="${around.linkHref(partId, item, address)}" data-link="${partId} ${item}"`

/** What a picture is called where it cannot be seen. */
export const altOf = (around: Surroundings, value: Localised<string>): string => said(around, value).text

const SIZES = '(max-width:34rem) 94vw, 32rem'
const FORMATS = [
  ['avif', 'image/avif'],
  ['webp', 'image/webp'],
] as const

/** A picture in the sizes and formats that phones choose from; its place is kept while it loads. */
export function pictureOf(
  around: Surroundings,
  file: ShownFile,
  alt: string,
  { isFirst = false, sizes = SIZES }: { isFirst?: boolean; sizes?: string } = {},
): Markup {
  const set = (format: 'avif' | 'webp') =>
    file.widths.map((width) => `${around.fileHref(file, { width, format })} ${String(width)}w`).join(', ')
  const loading = isFirst ? html` fetchpriority="high"` : html` loading="lazy" decoding="async"`
  const sized = html` width="${Math.round(file.width)}" height="${Math.round(file.height)}"`
  const image = html`<img src="${fullHref(around, file, 'jpg')}" alt="${alt}" ${sized}${loading} />`
  if (file.widths.length === 0) return image
  const sources = FORMATS.map(
    ([format, type]) => html`<source type="${type}" srcset="${set(format)}" sizes="${sizes}" />`,
  )
  return html`<picture>${sources}${image}</picture>`
}

const KB = 1000
const TYPE_NAMES: Readonly<Record<string, string>> = {
  'application/pdf': 'PDF',
  'image/jpeg': 'JPEG',
  'image/png': 'PNG',
  'image/webp': 'WebP',
  'image/svg+xml': 'SVG',
  'audio/mpeg': 'MP3',
  'audio/mp4': 'M4A',
  'audio/wav': 'WAV',
  'audio/ogg': 'OGG',
  'video/mp4': 'MP4',
  'video/webm': 'WebM',
  'text/vtt': 'WebVTT',
}

/** What a file is and how much it is to load: “PDF, 1.2 MB”, as the language writes it. */
export function fileFacts({ type, bytes }: ShownFile, language: string): string {
  const isLarge = bytes >= KB * KB
  const size = new Intl.NumberFormat(language, {
    style: 'unit',
    unit: isLarge ? 'megabyte' : 'kilobyte',
    maximumFractionDigits: isLarge ? 1 : 0,
  }).format(isLarge ? bytes / KB / KB : Math.max(1, bytes / KB))
  return `${TYPE_NAMES[type] ?? type}, ${size}`
}
