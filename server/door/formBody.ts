import type { IncomingMessage } from 'node:http'
import busboy from 'busboy'
import { ANSWER_FILE_MAX, type AnswerFile, type SentValues } from '@flimbo/core/forms'
import type { AnswerFiles } from '../leads/index.ts'

/** What a form was sent with. */
export interface FormBody {
  readonly values: SentValues
  /** By the names they were sent under; null for one that is too large. */
  readonly files: ReadonlyMap<string, AnswerFile | null>
}

/** More than any form asks. */
const FIELDS_MAX = 2000
const FIELD_BYTES = 64 * 1024
const FILES_MAX = 10
const FILE_BYTES = ANSWER_FILE_MAX * 1_000_000
/** All of what is sent at once: the text, and some files where they are asked for. */
const TEXT_BYTES = 1_000_000
const BODY_BYTES = 32 * TEXT_BYTES
/** Somebody on a bad line sends slowly; whoever sends nothing for so long does not send. */
const SILENT_MS = 30_000

/**
 * Reads what a form was sent with: `application/x-www-form-urlencoded`, or `multipart/form-data` (RFC 7578) with files,
 * which are on disk when this resolves.
 *
 * @param asked the names under which files are asked for
 * @returns null where it is no form, or too long
 */
export async function readFormBody(
  request: IncomingMessage,
  answerFiles: AnswerFiles,
  asked: ReadonlySet<string>,
): Promise<FormBody | null> {
  const bytesMax = asked.size > 0 ? BODY_BYTES : TEXT_BYTES
  if (Number(request.headers['content-length'] ?? 0) > bytesMax) return null
  let parser: busboy.Busboy
  try {
    parser = busboy({
      headers: request.headers,
      defParamCharset: 'utf8',
      limits: {
        fields: FIELDS_MAX,
        fieldSize: FIELD_BYTES,
        fieldNameSize: 100,
        files: FILES_MAX,
        fileSize: FILE_BYTES + 1,
        headerPairs: 20,
      },
    })
  } catch {
    return null
  }
  const values = new Map<string, string[]>()
  const storing: Promise<readonly [string, AnswerFile | null] | null>[] = []
  parser.on('field', (name, value) => {
    values.set(name, [...(values.get(name) ?? []), value])
  })
  parser.on('file', (name, stream, { filename }) => {
    // An input of a file that was left empty sends one without a name; what is not asked for is not kept.
    if (!filename || !asked.has(name)) {
      stream.resume()
      return
    }
    storing.push(
      answerFiles
        .keep(stream, filename, FILE_BYTES)
        .then((file) => (file || stream.truncated ? [name, file] : null)),
    )
  })
  const isRead = await readThrough(request, parser, bytesMax)
  const stored = await Promise.allSettled(storing)
  const failed = stored.find((each) => each.status === 'rejected')
  const files = stored.flatMap((each) => (each.status === 'fulfilled' && each.value ? [each.value] : []))
  if (!isRead || failed) {
    for (const [, file] of files) if (file) await answerFiles.remove(file.key)
    if (failed && isRead) throw failed.reason
    return null
  }
  return { values, files: new Map(files) }
}

/** @returns whether all of it was read */
function readThrough(request: IncomingMessage, parser: busboy.Busboy, bytesMax: number): Promise<boolean> {
  return new Promise((resolve) => {
    let bytes = 0
    const stop = () => {
      request.unpipe(parser)
      parser.destroy()
      // Whoever asked is still answered; nothing more of it is kept.
      request.pause()
      resolve(false)
    }
    request.setTimeout(SILENT_MS, stop)
    request.on('data', (piece: Buffer) => {
      bytes += piece.length
      if (bytes > bytesMax) stop()
    })
    request.on('close', () => {
      if (!request.complete) stop()
    })
    request.on('error', stop)
    parser.on('error', stop)
    parser.on('close', () => {
      resolve(true)
    })
    request.pipe(parser)
  })
}
