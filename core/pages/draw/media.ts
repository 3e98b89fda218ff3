import { html, type Markup, firstSaid, fallbacks } from '../../fields/index.ts'
import type { PartOf } from '../parts.ts'
import { fileFacts, pictureOf, richIn, wordsIn } from './shared.ts'
import { fileIn, fullHref, ownName, type Surroundings } from './surroundings.ts'

export function filePart({ id, file: given, label }: PartOf<'file'>, around: Surroundings): Markup | null {
  const file = fileIn(around, given)
  const words = wordsIn(around, label)
  if (!file || !words) return null
  return html`<a class="link" href="${around.takeHref(id)}"
    >${words}<small>${fileFacts(file, around.language)}</small></a
  >`
}

function transcriptOf(
  { transcript, id }: Pick<PartOf<'audio'>, 'transcript' | 'id'>,
  around: Surroundings,
): Markup | null {
  const text = richIn(around, id, transcript)
  return (
    text &&
    html`<details>
      <summary>${around.spoken.words.parts.transcript}</summary>
      ${text}
    </details>`
  )
}

export function audio(given: PartOf<'audio'>, around: Surroundings): Markup | null {
  const { id, label } = given
  const file = fileIn(around, given.file)
  const words = wordsIn(around, label)
  if (!file || !words) return null
  return html`<figure class="media">
    <figcaption id="m${id}">${words}</figcaption>
    <audio
      controls
      preload="metadata"
      data-part="${id}"
      aria-labelledby="m${id}"
      src="${around.fileHref(file)}"
    >
      <a href="${around.takeHref(id)}">${words}</a></audio
    >${transcriptOf(given, around)}
  </figure>`
}

export function video(given: PartOf<'video'>, around: Surroundings): Markup | null {
  const { id, label, captions } = given
  const file = fileIn(around, given.file)
  const words = wordsIn(around, label)
  if (!file || !words) return null
  const first = fileIn(around, given.poster)
  const still = first && html` poster="${fullHref(around, first, 'jpg')}"`
  const shown = firstSaid(captions, fallbacks(around.language, around.languages), (each) => each === '')
  // Captions of every language are there to choose from; those that are read here are on from the start.
  const tracks = around.languages.flatMap((language) => {
    const track = around.file(captions[language] ?? '')
    if (!track) return []
    const isShown = language === shown?.language && language === around.language
    return [
      html`<track
        kind="captions"
        srclang="${language}"
        label="${ownName(language)}"
        src="${around.fileHref(track)}"
        ${isShown && html` default`}
      />`,
    ]
  })
  return html`<figure class="media">
    <figcaption id="m${id}">${words}</figcaption>
    <video
      controls
      playsinline
      preload="${still ? 'none' : 'metadata'}"
      data-part="${id}"
      aria-labelledby="m${id}"
      src="${around.fileHref(file)}"
      ${still ?? null}
    >
      ${tracks}<a href="${around.takeHref(id)}">${words}</a></video
    >${transcriptOf(given, around)}
  </figure>`
}

/** A portrait, round as people are used to. */
export function portraitOf(
  { portrait, given, family }: PartOf<'contact'>,
  around: Surroundings,
): Markup | null {
  const file = fileIn(around, portrait)
  return (
    (file &&
      html`<div class="portrait">
        ${pictureOf(around, file, `${given} ${family}`.trim(), { isFirst: true, sizes: '9rem' })}
      </div>`) ??
    null
  )
}
