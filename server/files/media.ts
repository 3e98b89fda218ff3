import { readFile, stat } from 'node:fs/promises'
import {
  CAPTIONS_BYTES_MAX,
  isPictureType,
  PICTURE_TYPES,
  type FileType,
  type MediaType,
} from '@flimbo/core/files'
import { Refusal } from '../api/index.ts'
import { headOf } from './headOf.ts'

/** What a file is used as; one takes the place of another of the same kind. */
export type FileKind = 'picture' | 'audio' | 'video' | 'captions' | 'document'

export const KIND_TYPES: Readonly<Record<FileKind, readonly FileType[]>> = {
  picture: PICTURE_TYPES,
  audio: ['audio/mpeg', 'audio/mp4', 'audio/wav', 'audio/ogg'],
  video: ['video/mp4', 'video/webm'],
  captions: ['text/vtt'],
  document: ['application/pdf'],
}
export const KIND_WORDS: Readonly<Record<FileKind, string>> = {
  picture: 'a picture',
  audio: 'a recording',
  video: 'a film',
  captions: 'captions',
  document: 'a PDF',
}

export function kindOf(type: FileType): FileKind {
  if (isPictureType(type)) return 'picture'
  if (type === 'application/pdf') return 'document'
  if (type === 'text/vtt') return 'captions'
  return type.startsWith('audio/') ? 'audio' : 'video'
}

/** As the signatures of files name them, and as they are sent. */
const TYPES: Readonly<Record<string, MediaType>> = {
  'application/pdf': 'application/pdf',
  'audio/mpeg': 'audio/mpeg',
  'audio/mp4': 'audio/mp4',
  'audio/x-m4a': 'audio/mp4',
  'audio/wav': 'audio/wav',
  'audio/ogg': 'audio/ogg',
  'audio/opus': 'audio/ogg',
  'audio/ogg; codecs=opus': 'audio/ogg',
  'video/mp4': 'video/mp4',
  'video/x-m4v': 'video/mp4',
  'video/webm': 'video/webm',
}
const HEAD_BYTES = 64
/** WebVTT, section 4.1: the word, after a byte order mark where there is one, and then white space or the end. */
const CAPTIONS = /^\ufeff?WEBVTT(?=[ \t\n\r]|$)/

/** @throws Refusal where captions are none that browsers show */
async function checkCaptions(file: string, bytes: number): Promise<void> {
  if (bytes > CAPTIONS_BYTES_MAX)
    throw new Refusal('tooLarge', `Captions are at most ${String(CAPTIONS_BYTES_MAX / 1024)} kB.`)
  const text = await readFile(file, 'utf8')
  if (!/^(\d{2,}:)?\d{2}:\d{2}\.\d{3}[ \t]+-->[ \t]+(\d{2,}:)?\d{2}:\d{2}\.\d{3}/m.test(text))
    throw new Refusal(
      'invalid',
      'These captions have no line that says when: write each as 00:01.000 --> 00:04.000 with its text below.',
    )
}

/**
 * Tells a document, a recording, a film or captions by what is in it, whatever it is called; null where it is none of them:
 * a picture, or nothing that is taken.
 *
 * @throws Refusal, with what to do, where it is one that phones do not play
 */
export async function readMedia(file: string): Promise<{ type: MediaType; bytes: number } | null> {
  const { size: bytes } = await stat(file)
  if (CAPTIONS.test((await headOf(file, HEAD_BYTES)).toString('utf8'))) {
    await checkCaptions(file, bytes)
    return { type: 'text/vtt', bytes }
  }
  // Loaded by who uploads alone.
  const { fileTypeFromFile } = await import('file-type')
  const found = await fileTypeFromFile(file).catch(() => undefined)
  if (!found) return null
  const type = TYPES[found.mime]
  if (type) return { type, bytes }
  if (!/^(audio|video)\//.test(found.mime)) return null
  throw new Refusal(
    'invalid',
    `This is a ${found.ext.toUpperCase()} file, which not every phone plays. Save a recording as MP3, M4A, WAV or OGG, a film as MP4 or WebM.`,
  )
}
