import type { VisitTagSettings } from '@flimbo/core/visitTags'

const COLLECTOR = 'https://collector.example'

/** The sample company's visit tags. Its collector is a stand-in, which shows what it is sent. */
export const VISIT_TAGS: VisitTagSettings = {
  tags: [
    {
      id: 'site',
      name: 'Site measurement',
      kind: 'measurement',
      value: 'SL-2026',
      address: `${COLLECTOR}/mp`,
      firing: 'server',
      resting: false,
      body: '{"id": "{id}", "visit": "{visit}", "at": "{time}", "page": "{address}", "source": "{source}", "medium": "{medium}", "campaign": "{campaign}", "content": "{content}", "country": "{country}", "device": "{device}"}',
    },
    {
      id: 'seals',
      name: 'Seal lovers',
      kind: 'audience',
      value: 'AUD-77',
      address: `${COLLECTOR}/audience/{id}?source={source}&medium={medium}&campaign={campaign}&visit={visit}`,
      firing: 'asked',
      body: '',
      resting: false,
    },
    {
      id: 'pass',
      name: 'Pass page container',
      kind: 'container',
      value: 'BOX-3',
      address: `${COLLECTOR}/container.js?id={id}`,
      firing: 'page',
      body: '',
      resting: false,
    },
  ],
  consent: {
    why: 'May our audience tool remember this visit, so that we can tell you about seal trips? You get to the page either way.',
    notice: 'https://saltmarsh.example/privacy',
  },
}
