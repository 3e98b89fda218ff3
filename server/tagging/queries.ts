import {
  reviewPieces,
  tagContext,
  tagCounts,
  type ChannelRule,
  type Finding,
  type HouseRules,
  type ReviewedPieces,
} from '@flimbo/core/tagging'
import type { TagRows } from '../results/index.ts'

/** What the linter looks a campaign over with; `edition` tells when what was found is stale. */
export interface TagQuestion {
  readonly workspaceId: number
  readonly campaignId: number
  readonly campaign: string
  readonly rules: HouseRules
  readonly channels: readonly ChannelRule[]
  readonly edition: number
}

/** So many campaigns that were looked over are kept. */
const LOOKS_MAX = 4

/** Looks whole campaigns over, on the reading thread; the same one is not looked over twice. */
export function campaignLooks({ tagValues, sameTags, taggedPieces }: TagRows) {
  const looks = new Map<string, { question: string; found: ReviewedPieces }>()
  let before: { readonly text: string; readonly rules: HouseRules } | null = null

  /** What the linter finds out under some rules it keeps by their object: equal ones are to be the same one. */
  function sameRules(rules: HouseRules): HouseRules {
    const text = JSON.stringify(rules)
    if (before?.text !== text) before = { text, rules }
    return before.rules
  }

  function lookOver(question: TagQuestion): ReviewedPieces {
    const context = tagContext({
      rules: sameRules(question.rules),
      campaign: question.campaign,
      counts: tagCounts(tagValues(question.workspaceId), sameTags(question)),
      counted: true,
    })
    return reviewPieces(taggedPieces(question), context, question.channels)
  }

  function look(question: TagQuestion): ReviewedPieces {
    const asked = JSON.stringify(question)
    const key = String(question.campaignId)
    const known = looks.get(key)
    const found = known?.question === asked ? known.found : lookOver(question)
    looks.delete(key)
    looks.set(key, { question: asked, found })
    const [oldest] = looks.keys()
    if (looks.size > LOOKS_MAX && oldest !== undefined) looks.delete(oldest)
    return found
  }

  return {
    tagContext: (question: TagQuestion) => ({
      values: tagValues(question.workspaceId),
      sameTags: sameTags(question),
    }),
    review: (question: TagQuestion) => look(question).review,
    withFinding: (question: TagQuestion, kind: Finding['kind']) => [
      ...(look(question).byFinding.get(kind) ?? []),
    ],
    withChannel: (question: TagQuestion, channel: string) => [
      ...(look(question).byChannel.get(channel) ?? []),
    ],
    fixes: (question: TagQuestion, kind: Finding['kind'], field: string) => [
      ...(look(question).fixes.get(`${kind} ${field}`) ?? []),
    ],
  }
}
