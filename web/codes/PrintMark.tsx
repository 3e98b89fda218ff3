import { Box } from '@mui/material'
import { visuallyHidden } from '@mui/utils'
import { releaseSentence, type PrintState, type ProofState } from '@flimbo/core/symbol'

const MARKS: Readonly<Record<ProofState, { sign: string; words: string; colour: string }>> = {
  draft: { sign: '○', words: 'Not checked', colour: 'text.secondary' },
  ready: { sign: '✓', words: 'Ready', colour: 'primary.main' },
  'look-again': { sign: '△', words: 'Look again', colour: 'warning.main' },
  'will-fail': { sign: '▲', words: 'Will fail', colour: 'error.main' },
}

/** How far a piece is on its way to print, in words. */
export const printWords = (state: ProofState): string => MARKS[state].words

/** How far a piece is: released, or what measuring it came to; why where the pointer rests. */
export function PrintMark({ print, isWorded = false }: { print: PrintState; isWorded?: boolean }) {
  const { sign, words, colour } = markOf(print)
  const why = [print.release ? releaseSentence(print.release) : '', print.sentence].filter(Boolean).join(' ')
  return (
    <Box component="span" title={why} sx={{ color: colour, whiteSpace: 'nowrap' }}>
      <span aria-hidden>{sign}</span>{' '}
      {isWorded ? (
        words
      ) : (
        <Box component="span" sx={visuallyHidden}>
          {words}
        </Box>
      )}
    </Box>
  )
}

/** A release counts for more than what is measured; what was changed since is said before either. */
function markOf({ state, release }: PrintState) {
  if (!release) return MARKS[state]
  if (release.changed.length === 0) return { sign: '■', words: 'Released', colour: 'primary.main' }
  return { sign: '◪', words: 'Changed since', colour: 'warning.main' }
}
