import type { PageContent } from '@flimbo/core/pages'

/** The sample's pages, by the campaign's value. The first of all is number 1. */
export const PAGES: Readonly<Record<string, readonly (PageContent & { readonly name: string })[]>> = {
  'summer-26': [
    {
      name: 'Tides in English',
      title: 'Tides and boats today',
      text: 'Boats leave two hours before high water and come back two hours after it.\n\nAt low water the way to Tern Sands is on foot, with a guide only.',
      links: [
        { label: 'Today’s tide table', address: 'https://saltmarsh.example/tides?day=today' },
        { label: 'Summer timetable', address: 'https://saltmarsh.example/timetable' },
        { label: 'Guided walks to Tern Sands', address: 'https://saltmarsh.example/walks' },
      ],
    },
  ],
}
/** Its number, for lanes that lead to it. */
export const TIDES_PAGE = 1
