import { In, type EntityManager } from 'typeorm'
import {
  addressesOfPage,
  faultInWords,
  fieldsOfPage,
  filesOfPage,
  pagesOfPage,
  pageFaults,
  type PageContent,
  type PageFault,
} from '@flimbo/core/pages'
import { isDeviceAddress } from '@flimbo/core/fields'
import { Refusal, wrongField } from '../api/index.ts'
import { findAmong, tables, type FileRow } from '../database/index.ts'
import { kindOf, KIND_WORDS } from '../files/index.ts'
import { destinationFault } from '../routing/index.ts'
import { campaignsOf } from './leading.ts'

interface Parts {
  readonly read: EntityManager
  readonly domains: { origins(): readonly string[] }
}

/** Looks whether a content can be kept, and whether it can be shown. */
export function contentChecks({ read, domains }: Parts) {
  /** Refuses a content that names files or a style the workspace does not have. @returns its files @throws Refusal */
  async function namedFiles(workspaceId: number, content: PageContent): Promise<FileRow[]> {
    const keys = filesOfPage(content)
    const there = await findAmong(read, tables.files, 'key', keys, { workspaceId })
    if (there.length < keys.length)
      throw wrongField('content', 'A file of this page was deleted meanwhile. Choose another.')
    const { styleId } = content
    if (styleId !== null && !(await read.existsBy(tables.pageStyles, { id: styleId, workspaceId })))
      throw wrongField('content.styleId', 'This style was deleted meanwhile. Choose another.')
    for (const id of pagesOfPage(content))
      if (!(await read.existsBy(tables.pages, { id, campaignId: In(await campaignsOf(read, workspaceId)) })))
        throw wrongField('content', 'A page that this one leads to was deleted meanwhile. Choose another.')
    return there
  }

  /** Refuses files that are not what their fields show: a picture is nothing to be played. @throws Refusal */
  function checkKinds(content: PageContent, rows: readonly FileRow[]): void {
    const kinds = new Map(rows.map(({ key, type }) => [key, kindOf(type)]))
    for (const { partId, path, field, value } of fieldsOfPage(content)) {
      if (field.type !== 'file' || field.takes === 'any') continue
      const wanted = field.takes === 'portrait' ? 'picture' : field.takes
      for (const key of Object.values(value as Readonly<Record<string, string>>)) {
        const found = kinds.get(key)
        if (found !== undefined && found !== wanted)
          throw wrongField(
            `${partId}.${path}`,
            `The file is ${KIND_WORDS[found]}, where ${KIND_WORDS[wanted]} belongs. Choose another.`,
          )
      }
    }
  }

  /** What keeps a content from being shown; the front door's own addresses among it. */
  function faultsOf(content: PageContent): PageFault[] {
    const circles = addressesOfPage(content).flatMap(({ partId, path, address }) => {
      if (isDeviceAddress(address)) return []
      const sentence = destinationFault(address, domains)
      return sentence === null ? [] : [{ partId, path, sentence }]
    })
    const own = pageFaults(content)
    const known = new Set(own.map(({ partId, path }) => `${partId} ${path}`))
    return [...own, ...circles.filter(({ partId, path }) => !known.has(`${partId} ${path}`))]
  }

  /** Refuses a content that phones cannot be shown. @throws Refusal, with all that is wrong */
  async function shown(workspaceId: number, content: PageContent): Promise<void> {
    checkKinds(content, await namedFiles(workspaceId, content))
    const faults = faultsOf(content)
    const [first, ...more] = faults
    if (!first) return
    const rest = more.length === 0 ? '' : ` There is more: ${String(more.length)} in all beside this.`
    throw new Refusal('invalid', `${faultInWords(content, first)}${rest}`, {
      fields: faults.map((fault) => ({
        path: `${fault.partId}.${fault.path}`,
        message: fault.sentence,
      })),
    })
  }

  return { stored: namedFiles, shown }
}
