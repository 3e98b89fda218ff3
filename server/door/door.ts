import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { slugOfPath } from '@flimbo/core/codes'
import type { Domains, Doorway } from '../domains/index.ts'
import type { Lookup, Posting } from '../routing/index.ts'
import { answer, refuse, type AnswerParts } from './answer.ts'
import { addressOf } from './readArrival.ts'
import { readForm, type Given } from './forms.ts'
import { continueAfterPage } from './onTheWay.ts'
import { takePass } from './passes.ts'
import { CONFIRM_PATH } from '../leads/index.ts'
import { GOALS_PATH } from '../goals/index.ts'
import { answerGoals, type GoalParts } from './goalRequests.ts'
import { answerConfirmation, type ConfirmParts } from './confirmRequests.ts'
import { FILES_PATH } from './fileHref.ts'
import { sendPublicFile, type FileParts } from './fileRequests.ts'
import { answerFromPage, pagePath } from './pageRequests.ts'
import { enterPassword, type PasswordParts } from './password.ts'
import { voiceFor } from './voice.ts'
import { refuseMethod, send, sendOn, sendPage, sendRobots, sendUnknown } from './respond.ts'

export interface DoorParts extends AnswerParts, PasswordParts, FileParts, ConfirmParts, GoalParts {
  readonly writer: AnswerParts['writer'] & GoalParts['writer']
  readonly shelf: AnswerParts['shelf']
  readonly domains: Pick<Domains, 'of'>
  readonly lookup: Lookup
}

/** One request for a short link, and what it is answered by. */
interface Call {
  readonly request: IncomingMessage
  readonly response: ServerResponse
  readonly doorway: Doorway
  readonly path: string
  readonly query: string
}

/**
 * The front door: what phones reach. It is a bare HTTP server because every printed code waits for it;
 * it sets no cookie and shares nothing with the office but the database and a line of messages.
 */
export function frontDoor(parts: DoorParts): Server {
  return createServer(
    { maxHeaderSize: 16_384, requestTimeout: 15_000, headersTimeout: 10_000 },
    (request, response) => {
      receive(parts, request, response)
    },
  )
}

/** Sorts out what is no short link, then looks the slug up: in memory, or else in the database. */
function receive(parts: DoorParts, request: IncomingMessage, response: ServerResponse): void {
  const { method = '', url = '' } = request
  const mark = url.indexOf('?')
  const path = mark < 0 ? url : url.slice(0, mark)
  const query = mark < 0 ? '' : url.slice(mark + 1)
  if (path.startsWith(GOALS_PATH)) {
    answerGoals(parts, request, response, path, query).catch((error: unknown) => {
      refuse(parts, response, error)
    })
    return
  }
  if (method !== 'GET' && method !== 'HEAD' && method !== 'POST') {
    refuseMethod(response)
    return
  }
  const doorway = parts.domains.of(request.headers.host)
  if (path === '/robots.txt') {
    sendRobots(response)
    return
  }
  if (path.startsWith(FILES_PATH)) {
    sendPublicFile(parts, request, response, path, query).catch((error: unknown) => {
      refuse(parts, response, error)
    })
    return
  }
  if (path.startsWith(CONFIRM_PATH)) {
    answerConfirmation(parts, request, response, path).catch((error: unknown) => {
      refuse(parts, response, error)
    })
    return
  }
  if (doorway.state === 'removed') {
    sendUnknown(parts, response, doorway)
    return
  }
  if (path === '/') {
    if (doorway.home === '') sendPage(response, 'home')
    else sendOn(response, doorway.home)
    return
  }

  const fromPage = pagePath(path)
  const call: Call = { request, response, doorway, path: fromPage?.link ?? path, query }
  const slug = slugOfPath(call.path)
  const next = fromPage ? answerPageWith(fromPage.rest) : byMethod(method)
  const posting = parts.lookup.known(doorway.id, slug)
  if (posting !== undefined) {
    next(parts, call, posting)
    return
  }
  parts.lookup.find(doorway.id, slug).then(
    (found) => {
      next(parts, call, found)
    },
    (error: unknown) => {
      refuse(parts, response, error)
    },
  )
}

const byMethod = (method: string) => (method === 'POST' ? answerForm : answerLink)

/** Answers what comes from a page that is shown at a short link. */
function answerPageWith(rest: string) {
  return (parts: DoorParts, call: Call, posting: Posting | null): void => {
    if (!posting) {
      sendUnknown(parts, call.response, call.doorway)
      return
    }
    answerFromPage(parts, { ...call, rest }, posting).catch((error: unknown) => {
      refuse(parts, call.response, error)
    })
  }
}

/** Answers who scanned a code, or comes back with a pass. */
function answerLink(
  parts: DoorParts,
  { request, response, doorway, query }: Call,
  posting: Posting | null,
): void {
  if (!posting) {
    sendUnknown(parts, response, doorway)
    return
  }
  const { scan, rest } = passIn(parts, posting, query)
  answer(parts, request, response, doorway, posting, {
    query: rest,
    unlocked: scan !== null,
    scan: scan ?? '',
    given: null,
  })
}

/** The scan that a good pass in a query was given for, and the query without it. */
function passIn(
  { passes }: DoorParts,
  { codeId, passwordHash }: Posting,
  query: string,
): { scan: string | null; rest: string } {
  const { pass, rest } = takePass(query)
  return {
    rest,
    scan: passwordHash === '' || pass === '' ? null : passes.scanOf(pass, codeId, passwordHash, Date.now()),
  }
}

/** Answers who filled in a form of the front door: a password, where the phone is, or whether tags may fire. */
function answerForm(parts: DoorParts, call: Call, posting: Posting | null): void {
  if (!posting) {
    sendUnknown(parts, call.response, call.doorway)
    return
  }
  const { askLocation, settings } = posting.compiled.route
  const isAsking = settings.locked === true || Boolean(askLocation)
  readForm(call.request)
    .then(async (given) => {
      if (given?.onward) {
        // The scan was stored when it was asked. Asked too long ago, it is scanned anew: nobody is left standing.
        const anew = { goOn: call.query === '' ? call.path : `${call.path}?${call.query}` }
        send(
          call.response,
          continueAfterPage(
            parts,
            posting,
            given,
            voiceFor(call.request, await parts.shelf.worn(posting.campaignId)),
            Date.now(),
          ) ?? anew,
        )
        return
      }
      if (!isAsking) {
        refuseMethod(call.response)
        return
      }
      if (!given) {
        sendPage(call.response, 'malformed')
        return
      }
      await takeForm(parts, call, posting, given)
    })
    .catch((error: unknown) => {
      refuse(parts, call.response, error)
    })
}

/** Takes a form that a page was shown for; any other is a scan like each, and is asked. */
async function takeForm(
  parts: DoorParts,
  { request, response, doorway, path, query }: Call,
  posting: Posting,
  given: Given,
): Promise<void> {
  const { scan: passed, rest } = passIn(parts, posting, query)
  const asked = parts.seals.open(posting.codeId, 'asked', given.asked, Date.now())
  if (!asked) {
    answer(parts, request, response, doorway, posting, {
      query: rest,
      unlocked: passed !== null,
      scan: passed ?? '',
      given: null,
    })
    return
  }
  const { scan } = asked
  if (given.password === null) {
    answer(parts, request, response, doorway, posting, {
      query: rest,
      unlocked: passed !== null,
      scan,
      given,
    })
    return
  }
  const { address } = addressOf(parts, request)
  send(
    response,
    await enterPassword(parts, posting, {
      password: given.password,
      address,
      scan,
      asked: given.asked,
      path,
      query: rest,
      spoken: voiceFor(request, await parts.shelf.worn(posting.campaignId)),
    }),
  )
}
