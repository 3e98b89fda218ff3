import same from 'fast-deep-equal'
import { fieldsOfPart, type PageContent } from './content.ts'
import { PART_NAMES, type Part } from './parts.ts'

/** A part as people call it: its kind, with the first words in it. */
function calledIn(part: Part): string {
  const words = fieldsOfPart(part).find(({ field }) => field.type === 'words')?.value as
    Readonly<Record<string, string>> | undefined
  const text = Object.values(words ?? {}).find((each) => each.trim() !== '')
  const name = PART_NAMES[part.kind].toLowerCase()
  return text === undefined
    ? `the ${name}`
    : `the ${name} “${text.length > 40 ? `${text.slice(0, 39)}…` : text}”`
}

const lists = (names: readonly string[]) => names.join(', ')

/** What changed on a page, in sentences; empty where nothing did. `before` is null where it is its first content. */
export function pageChanges(before: PageContent | null, after: PageContent): string[] {
  if (before === null) return ['published it for the first time']
  const was = new Map(before.parts.map((part) => [part.id, part]))
  const is = new Map(after.parts.map((part) => [part.id, part]))
  const changes: string[] = []
  if (!same(before.title, after.title)) changes.push('changed the title')
  if (!same([before.description, before.picture], [after.description, after.picture]))
    changes.push('changed what link previews show')
  if (!same(before.languages, after.languages))
    changes.push(`changed the languages from ${lists(before.languages)} to ${lists(after.languages)}`)
  if (before.isFileItself !== after.isFileItself)
    changes.push(after.isFileItself ? 'made phones open the file itself' : 'showed the file on a page')
  if (before.styleId !== after.styleId) changes.push('changed the style')
  if (before.zone !== after.zone) changes.push(`changed the time zone to ${after.zone}`)
  for (const part of before.parts) if (!is.has(part.id)) changes.push(`removed ${calledIn(part)}`)
  for (const part of after.parts) {
    const former = was.get(part.id)
    if (!former) changes.push(`added ${calledIn(part)}`)
    else if (!same(former, part)) changes.push(partChange(former, part))
  }
  const order = (content: PageContent, other: ReadonlyMap<string, Part>) =>
    content.parts.flatMap(({ id }) => (other.has(id) ? [id] : []))
  if (!same(order(before, is), order(after, was))) changes.push('moved parts')
  return changes
}

function partChange(was: Part, is: Part): string {
  if (same({ ...was, isHidden: is.isHidden }, is)) return `${is.isHidden ? 'hid' : 'showed'} ${calledIn(is)}`
  if (same({ ...was, condition: is.condition }, is)) return `changed whom ${calledIn(is)} is shown to`
  return `changed ${calledIn(is)}`
}
