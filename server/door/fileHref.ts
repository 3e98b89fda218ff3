import type { ShownFile, Variant } from '@flimbo/core/pages'

/** Where public files are sent from. */
export const FILES_PATH = '/~f/'

const NAME_MAX = 60
const ENDING = /\.[A-Za-z0-9]{1,5}$/

/**
 * The public address of a file, whose name is what it is saved under; with the mark of its bytes, so that it can be kept for
 * ever.
 */
export function fileHref({ key, name, mark }: ShownFile, variant?: Variant): string {
  if (variant) return `${FILES_PATH}${key}/${String(variant.width)}.${variant.format}?v=${mark}`
  const stem = name.replace(ENDING, '').slice(0, NAME_MAX) || 'file'
  return `${FILES_PATH}${key}/${encodeURIComponent(stem + (ENDING.exec(name)?.[0] ?? ''))}?v=${mark}`
}
