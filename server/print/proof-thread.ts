import {
  limitsSentence,
  onPicture,
  printedSymbol,
  proof,
  reasonSentence,
  styledScene,
  SymbolTooLong,
  type PieceProof,
} from '@flimbo/core/symbol'
import { serveCalls } from '../threads/index.ts'
import { jsqr, zxing } from './decoders.ts'
import type { PrintPiece } from './draw.ts'
import { setText } from './letters.ts'
import { pixelsFor } from './pictures.ts'

/** What the thread is called for. */
export interface ProofCalls extends Record<string, (...values: never[]) => unknown> {
  /** Measures a piece. @returns all but the moment */
  measure(piece: PrintPiece, viewingM: number | null): Promise<Omit<PieceProof, 'at'>>
}

/** Resolution of pictures while a piece is measured: more than a camera sees. */
const MEASURED_DPI = 200

const calls: ProofCalls = {
  async measure({ text, level, look, mm, link, files, placement }, viewingM) {
    try {
      const symbol = printedSymbol(text, level)
      const parts = { text: setText, pictureSize: (file: string) => files[file] ?? null }
      const alone = styledScene(symbol, look, mm, '', link, parts)
      const size = placement && files[placement.file]
      const seen = placement && size ? onPicture(alone, placement, size) : alone
      const pictures = await pixelsFor(seen, files, MEASURED_DPI)
      const { readiness, grades, reasons, limits } = await proof(
        { symbol, look, mm, link, placement, viewingM },
        { ...parts, pictures, decoders: [zxing, jsqr] },
      )
      return {
        readiness,
        grade: grades.overall,
        sentences: [...reasons.map(reasonSentence), limitsSentence(limits)],
        limits: [...limits],
      }
    } catch (error) {
      if (!(error instanceof SymbolTooLong)) throw error
      return { readiness: 'will-fail', grade: 'F', sentences: [error.message], limits: [] }
    }
  },
}

serveCalls(calls)
