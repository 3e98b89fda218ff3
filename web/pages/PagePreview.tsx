import { Box, Stack, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { filesApi, isPictureType, type StoredFile } from '@flimbo/core/files'
import {
  drawPage,
  filesOfPage,
  filesOfStyle,
  mappedPoints,
  walletApi,
  type PageContent,
  type PageStyle,
  type ShownFile,
} from '@flimbo/core/pages'
import { wordsFor } from '@flimbo/core/words'
import { useQueries } from '@tanstack/react-query'
import { useState } from 'react'
import { hrefOf, useAnswer } from '../api/index.ts'
import { usePlaceMap } from './usePlaceMap.ts'
import { PageFrame, useNow } from '../ui/index.ts'

interface Props {
  readonly content: PageContent
  readonly style: PageStyle
  readonly language: string
  readonly fileOf: (key: string) => StoredFile | undefined
}

const WIDTHS = { phone: 312, tablet: 640 } as const
type Device = keyof typeof WIDTHS
const SCHEMES = ['light', 'dark'] as const

/** A picture's preview as text, since the frame that shows it may load nothing. */
async function dataHref(sum: string): Promise<string> {
  const answer = await fetch(hrefOf(filesApi.content, { params: { sum }, query: { preview: 'yes' } }))
  if (!answer.ok) return ''
  const blob = await answer.blob()
  return new Promise((resolve, reject) => {
    const reader = new FileReader()
    reader.onload = () => {
      resolve(typeof reader.result === 'string' ? reader.result : '')
    }
    reader.onerror = () => {
      reject(new Error('The picture could not be read.'))
    }
    reader.readAsDataURL(blob)
  })
}

/** The pictures of a page by their keys, as they come. */
function usePictures(keys: readonly string[], fileOf: Props['fileOf']): ReadonlyMap<string, string> {
  const sums = keys.flatMap((key) => {
    const file = fileOf(key)
    return file && isPictureType(file.type) ? [{ key, sum: file.sum }] : []
  })
  const answers = useQueries({
    queries: sums.map(({ sum }) => ({
      queryKey: ['page-picture', sum],
      queryFn: () => dataHref(sum),
      staleTime: Infinity,
    })),
  })
  return new Map(sums.map(({ key }, i) => [key, answers[i]?.data ?? '']))
}

/** What is drawn into a frame that loads nothing: pictures as they are, without the sizes that phones choose from. */
const shownIn = ({ key, sum, name, type, bytes, width, height }: StoredFile): ShownFile => ({
  key,
  mark: sum.slice(0, 8),
  name,
  type,
  bytes,
  width,
  height,
  widths: [],
})

/** The very markup the front door sends, as wide as a phone or a tablet, by day or in the dark, with and without script. */
export function PagePreview({ content, style, language, fileOf }: Props) {
  const [device, setDevice] = useState<Device>('phone')
  const [scheme, setScheme] = useState<(typeof SCHEMES)[number]>('light')
  const [hasScript, setScript] = useState(true)
  const now = useNow()
  const pictures = usePictures([...filesOfPage(content), ...filesOfStyle(style)], fileOf)
  const signsPasses = Boolean(useAnswer(walletApi.get, {}).data?.stored)
  const mapOf = usePlaceMap(mappedPoints(content).length > 0)
  const markup = drawPage(content, {
    language: content.languages.includes(language) ? language : (content.languages[0] ?? 'en'),
    languages: content.languages,
    spoken: wordsFor([language]),
    now,
    zone: content.zone,
    style,
    scheme,
    shows: () => true,
    system: 'iOS',
    file: (key) => {
      const file = fileOf(key)
      return file && shownIn(file)
    },
    fileHref: ({ key }) => pictures.get(key) ?? '',
    linkHref: (_part, _item, address) => address,
    takeHref: () => '#',
    passHref: signsPasses ? () => '#' : null,
    languageHref: () => '#',
    mapOf,
    tellHref: null,
    nonce: '',
    origin: '',
  })
  return (
    <Stack sx={{ gap: 1 }}>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Choice
          label="Screen"
          value={device}
          choices={[
            ['phone', 'Phone'],
            ['tablet', 'Tablet'],
          ]}
          change={setDevice}
        />
        {style.scheme === 'both' && (
          <Choice
            label="Scheme"
            value={scheme}
            choices={[
              ['light', 'Light'],
              ['dark', 'Dark'],
            ]}
            change={setScheme}
          />
        )}
        <Choice
          label="Script"
          value={hasScript ? 'on' : 'off'}
          choices={[
            ['on', 'Script'],
            ['off', 'No script'],
          ]}
          change={(value) => {
            setScript(value === 'on')
          }}
        />
      </Stack>
      <Box sx={{ overflowX: 'auto' }}>
        <PageFrame
          key={String(hasScript)}
          title="The page as a phone shows it"
          markup={markup}
          width={WIDTHS[device]}
          runsScript={hasScript}
        />
      </Box>
    </Stack>
  )
}

function Choice<V extends string>({
  label,
  value,
  choices,
  change,
}: {
  label: string
  value: V
  choices: readonly (readonly [V, string])[]
  change: (value: V) => void
}) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      aria-label={label}
      value={value}
      onChange={(_event, next: V | null) => {
        if (next !== null) change(next)
      }}
    >
      {choices.map(([each, name]) => (
        <ToggleButton key={each} value={each} sx={{ py: 0.25, textTransform: 'none' }}>
          {name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  )
}
