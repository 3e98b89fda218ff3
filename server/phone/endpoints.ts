import { readUrl } from '@flimbo/core/api'
import { phoneApi, type PhoneAnswer } from '@flimbo/core/phone'
import { leadsTo } from '@flimbo/core/routing'
import { mount, Refusal, wrongField, type Mounts } from '../api/index.ts'
import type { Config } from '../config/index.ts'
import type { Domains } from '../domains/index.ts'
import { rehearsalHeader, type Rehearsals } from '../door/index.ts'
import {
  addressIn,
  isStandInHost,
  standInAddress,
  STANDIN_DEVICES,
  STANDIN_LANGUAGES,
  STANDIN_PLACES,
} from '../standins/index.ts'
import { fetchLocally, type Asked } from './ask.ts'
import { consentFormIn, lightPageIn } from './readPage.ts'

interface Parts {
  readonly config: Pick<Config, 'bind' | 'standIns' | 'trust'>
  readonly domains: Pick<Domains, 'origins'>
  readonly rehearsals: Rehearsals
  /** Ports as they were really opened. */
  readonly ports: () => { door: number; standIn: number }
}

const MEANINGS: Readonly<Record<number, string>> = {
  302: 'sends the phone on',
  303: 'sends the phone on',
  404: 'knows no such short link, or it is paused',
  410: 'says the code was withdrawn',
  503: 'asks to try again in a minute',
}

function meaningOf({ status, body, title }: Asked): string {
  if (lightPageIn(body)) return 'shows a light page on which visit tags fire'
  if (consentFormIn(body) !== null) return 'asks whether visit tags may fire'
  return MEANINGS[status] ?? (title === '' ? 'answers' : `shows “${title}”`)
}

function pictureInWords(address: URL, status: number): string {
  if (address.pathname.endsWith('.js')) return 'is loaded; only a real browser runs it'
  return status < 400 ? 'is told of the visit' : 'did not take the hit'
}

/** The endpoints of phone, as `core`’s contract describes them. */
export function phoneEndpoints(mounts: Mounts, { config, domains, rehearsals, ports }: Parts): void {
  const mayCount = config.standIns && (config.trust?.('127.0.0.1', 0) ?? false)

  mount(mounts, phoneApi.choices, () => ({
    devices: STANDIN_DEVICES.map(({ id, label }) => ({ id, label })),
    places: STANDIN_PLACES.map(({ id, city, country }) => ({ id, label: `${city}, ${country}` })),
    languages: STANDIN_LANGUAGES.map(({ id, label }) => ({ id, label })),
    mayCount,
  }))

  mount(mounts, phoneApi.scan, async ({ body }): Promise<PhoneAnswer> => {
    const device = STANDIN_DEVICES.find(({ id }) => id === body.device)
    const place = STANDIN_PLACES.find(({ id }) => id === body.place)
    const language = STANDIN_LANGUAGES.find(({ id }) => id === body.language)
    if (!device) throw wrongField('device', 'Choose a device from the list.')
    if (!place) throw wrongField('place', 'Choose a place from the list.')
    if (!language) throw wrongField('language', 'Choose a language from the list.')
    if (body.count && !mayCount)
      throw new Refusal(
        'forbidden',
        'Scans that count can be sent only where the stand-ins run and this machine is a trusted proxy.',
      )
    const target = /^https?:/i.test(body.read) ? readUrl(body.read) : null
    if (!target) {
      return {
        steps: [{ address: body.read, status: null, says: 'is no web address; the phone shows it as text' }],
        landed: null,
        page: null,
      }
    }
    if (!leadsTo(target, domains.origins())) {
      return {
        steps: [
          {
            address: target.href,
            status: null,
            says: 'is no short link of this Flimbo; the phone was not sent there',
          },
        ],
        landed: null,
        page: null,
      }
    }
    const from = addressIn(place, Math.floor(Math.random() * 1000), Math.floor(Math.random() * 1000))
    const headers = {
      'user-agent': device.userAgent,
      'accept-language': language.header,
      ...(body.count
        ? { 'x-forwarded-for': from }
        : { 'flimbo-rehearsal': rehearsalHeader(rehearsals, from, Date.now()) }),
    }
    const first = await fetchLocally(target, ports().door, config.bind, headers)
    const steps: PhoneAnswer['steps'] = [
      { address: target.href, status: first.status, says: meaningOf(first) },
    ]
    const onward = consentFormIn(first.body)
    const second =
      onward === null
        ? first
        : await fetchLocally(target, ports().door, config.bind, headers, {
            onward,
            agreed: body.agrees ? 'yes' : 'no',
          })
    if (onward !== null)
      steps.push({
        address: target.href,
        status: second.status,
        says: `is told ${body.agrees ? 'yes' : 'no'}, and ${meaningOf(second)}`,
      })
    const light = lightPageIn(second.body)
    if (light) steps.push(...(await Promise.all(light.loads.map(fire))))
    const next = light?.next ?? (second.location === null ? null : new URL(second.location, target))
    if (next === null) return { steps, landed: null, page: second.body }
    const page = await visit(next)
    return { steps: [...steps, page.step], landed: page.landed, page: null }
  })

  /** Loads what a light page has to load. Only stand-ins are reached: a rehearsal is in no real figure. */
  async function fire(address: URL) {
    if (!config.standIns || !isStandInHost(address.hostname))
      return {
        address: address.href,
        status: null,
        says: 'lies outside of this machine; a real phone would load it',
      }
    const { status } = await fetchLocally(address, ports().standIn, config.bind, {
      'user-agent': 'Mozilla/5.0 (rehearsal)',
    })
    return {
      address: address.href,
      status,
      says: pictureInWords(address, status),
    }
  }

  async function visit(address: URL) {
    if (!config.standIns || !isStandInHost(address.hostname)) {
      return {
        step: {
          address: address.href,
          status: null,
          says: 'lies outside of this machine; the phone would open it',
        },
        landed: { address: address.href, frame: null },
      }
    }
    const { status, title } = await fetchLocally(address, ports().standIn, config.bind, {
      accept: 'text/html',
    })
    return {
      step: { address: address.href, status, says: title === '' ? 'answers' : `shows “${title}”` },
      landed: { address: address.href, frame: standInAddress(ports().standIn, address) },
    }
  }
}
