import { newPart, type PageContent, type Part, type PartKind } from '@flimbo/core/pages'
import { freshKey } from '../ui/index.ts'

/** A key that no part of a page has. */
export const freshId = ({ parts }: PageContent): string =>
  freshKey(
    'p',
    parts.map(({ id }) => id),
  )

/** A page with a new part after another, or at its end. */
export function withPart(
  content: PageContent,
  kind: PartKind,
  after: string | null,
): { content: PageContent; id: string } {
  const id = freshId(content)
  const at = after === null ? -1 : content.parts.findIndex((part) => part.id === after)
  const parts = [...content.parts]
  parts.splice(at < 0 ? parts.length : at + 1, 0, newPart(kind, id) as Part)
  return { content: { ...content, parts }, id }
}

/** A page with a part a second time, after itself. */
export function withCopy(content: PageContent, id: string): { content: PageContent; id: string } {
  const at = content.parts.findIndex((part) => part.id === id)
  const found = content.parts[at]
  if (!found) return { content, id }
  const copy = freshId(content)
  const parts = [...content.parts]
  parts.splice(at + 1, 0, { ...found, id: copy })
  return { content: { ...content, parts }, id: copy }
}

/** A page with a part moved to another place, which is within it. */
export function withMoved(content: PageContent, id: string, to: number): PageContent {
  const from = content.parts.findIndex((part) => part.id === id)
  const found = content.parts[from]
  if (!found) return content
  const parts = content.parts.filter((part) => part.id !== id)
  parts.splice(Math.max(0, Math.min(parts.length, to)), 0, found)
  return { ...content, parts }
}

export const withoutPart = (content: PageContent, id: string): PageContent => ({
  ...content,
  parts: content.parts.filter((part) => part.id !== id),
})

export const withChanged = (content: PageContent, id: string, change: (part: Part) => Part): PageContent => ({
  ...content,
  parts: content.parts.map((part) => (part.id === id ? change(part) : part)),
})
