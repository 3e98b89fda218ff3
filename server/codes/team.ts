import { newCode } from '@flimbo/core/codes'
import { EVERY_SCAN } from '@flimbo/core/conditions'
import { memberContent, memberName, pageFaults, teamApi } from '@flimbo/core/pages'
import { NO_RULES } from '@flimbo/core/routing'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import { domainFor } from '../domains/index.ts'
import { insertLivePage } from '../pages/index.ts'
import { forgetCodes } from '../line/index.ts'
import { checkDestination } from '../routing/index.ts'
import { refuseOffList } from './change.ts'
import { issueCodes, pieceToIssue, type PieceToIssue } from './issue.ts'
import { slugLengthOf, type CodesParts } from './parts.ts'

/** The key of the lane that leads every scan of a person's code to their card. */
const CARD_LANE = 'card'

/** A whole team at once: a card and a code for each person. */
export function teamEndpoints(mounts: Mounts, { database, doors, live, domains, tagging }: CodesParts): void {
  mount(mounts, teamApi.create, async ({ body, who, campaign }) => {
    const { members, language, medium, source, destination } = body
    const workspaceId = who.workspace.id
    checkDestination(destination, domains)
    refuseOffList(await tagging.rulesOf(workspaceId), medium)
    const cards = members.map((member, i) => {
      const content = memberContent(member, language, campaign.zone)
      const [fault] = pageFaults(content)
      if (fault) throw wrongField(`members.${String(i)}`, fault.sentence)
      return { name: memberName(member), content }
    })
    const domainId = await domainFor(database.read, campaign)
    const slugLength = await slugLengthOf(database, workspaceId)
    const by = { personId: who.person.id, at: Date.now() }
    const ids = await database.writeInTurns(async (manager, turns) => {
      const pieces: PieceToIssue[] = []
      await turns.begin()
      for (const { name, content } of cards) {
        const pageId = await insertLivePage(manager, campaign.id, name, content, by)
        const given = newCode.parse({ campaignId: campaign.id, name, medium, source, destination })
        pieces.push({
          ...(await pieceToIssue(manager, campaign, given, domainId)),
          route: {
            name,
            destination,
            rules: {
              ...NO_RULES,
              lanes: [
                {
                  id: CARD_LANE,
                  name: '',
                  condition: EVERY_SCAN,
                  outcome: { kind: 'page', pageId },
                  resting: false,
                },
              ],
            },
          },
        })
        await turns.pause()
      }
      return issueCodes(manager, pieces, by, slugLength, { turns })
    })
    await forgetCodes(database, doors, ids)
    live.tell(workspaceId, { type: 'change', of: 'campaign', id: campaign.id })
    return { pages: cards.length, codes: ids.length }
  })
}
