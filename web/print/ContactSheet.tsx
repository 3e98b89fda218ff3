import { Box, Button, InputBase, Stack, Typography } from '@mui/material'
import { useVirtualizer } from '@tanstack/react-virtual'
import { number, quantity } from '@flimbo/core/formats'
import { printApi } from '@flimbo/core/print'
import { PROOF_STATES } from '@flimbo/core/symbol'
import { useEffect, useRef } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { printWords } from '../codes/index.ts'
import { Fault, useKeys } from '../ui/index.ts'
import { ContactTile, contactId } from './Contact.tsx'
import type { Contacts } from './useContacts.ts'

const ACROSS = 3
const ROW_PX = 112

/** The campaign's pieces as they are printed, small, with how far each is; choosing one opens it. */
export function ContactSheet({ contacts }: { contacts: Contacts }) {
  const { total = 0, at, isOpen, open, see } = contacts
  const scroller = useRef<HTMLDivElement>(null)
  const searchField = useRef<HTMLInputElement>(null)
  const rows = useVirtualizer({
    count: Math.ceil(total / ACROSS),
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 2,
  })
  const items = rows.getVirtualItems()
  const [first, last] = [(items[0]?.index ?? 0) * ACROSS, ((items.at(-1)?.index ?? 0) + 1) * ACROSS - 1]
  useEffect(() => {
    see(first, last)
  })

  /** Where the open piece lies among those that are shown; -1 where it is not on the screen. */
  const openAt = () => {
    for (let i = first; i <= last; i++) {
      const contact = at(i)
      if (contact && isOpen(contact)) return i
    }
    return -1
  }
  const step = (by: number) => {
    const here = openAt()
    const to = Math.min(total - 1, Math.max(0, here < 0 ? 0 : here + by))
    const contact = at(to)
    if (!contact) return
    open(contact.kind, contact.id)
    rows.scrollToIndex(Math.floor(to / ACROSS))
  }
  useKeys({
    j: () => {
      step(1)
    },
    k: () => {
      step(-1)
    },
    '/': () => {
      searchField.current?.focus()
    },
  })
  const openOne = at(openAt())
  return (
    <Stack sx={{ borderRight: 1, borderColor: 'divider', minHeight: 0, bgcolor: 'background.paper' }}>
      <Stack sx={{ p: 1.5, gap: 1, borderBottom: 1, borderColor: 'divider' }}>
        <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline' }}>
          <Typography variant="h1">Print</Typography>
          <Button
            size="small"
            onClick={() => {
              open('static', 'new')
            }}
          >
            New static code
          </Button>
        </Stack>
        <States contacts={contacts} />
        <InputBase
          inputRef={searchField}
          value={contacts.search}
          placeholder="Filter pieces"
          onChange={(event) => {
            contacts.setSearch(event.target.value)
          }}
          sx={{ border: 1, borderColor: 'divider', borderRadius: 1, px: 1, fontSize: '0.8125rem' }}
          slotProps={{ input: { 'aria-label': 'Filter pieces' } }}
        />
        <CheckAll contacts={contacts} />
      </Stack>
      <Box
        ref={scroller}
        role="listbox"
        aria-label="Pieces"
        tabIndex={0}
        onKeyDown={(event) => {
          const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: ACROSS, ArrowUp: -ACROSS }[event.key]
          if (by === undefined) return
          event.preventDefault()
          step(by)
        }}
        aria-activedescendant={openOne && contactId(openOne)}
        sx={{ flex: 1, overflow: 'auto', minHeight: 0 }}
      >
        {total === 0 && contacts.isNarrowed && (
          <Typography variant="body2" color="textSecondary" sx={{ p: 2 }}>
            No piece is like that. Show all, or filter for something else.
          </Typography>
        )}
        <Box role="presentation" sx={{ position: 'relative', height: rows.getTotalSize() }}>
          {items.flatMap(({ index, start }) =>
            Array.from({ length: ACROSS }, (_each, column) => {
              const i = index * ACROSS + column
              const contact = at(i)
              return contact ? (
                <ContactTile
                  key={contactId(contact)}
                  kind={contact.kind}
                  code={contact.code}
                  isOpen={isOpen(contact)}
                  top={start}
                  left={`${String((100 / ACROSS) * column)}%`}
                  open={open}
                />
              ) : null
            }),
          )}
        </Box>
      </Box>
    </Stack>
  )
}

/** How many pieces are how far; choosing one shows those alone. */
function States({ contacts: { counts, state, setState } }: { contacts: Contacts }) {
  if (!counts) return null
  const all = PROOF_STATES.reduce((sum, each) => sum + (counts[each] ?? 0), 0)
  const choices = [
    { value: null, words: 'All', count: all },
    ...PROOF_STATES.filter((each) => (counts[each] ?? 0) > 0 || each === state).map((value) => ({
      value,
      words: printWords(value),
      count: counts[value] ?? 0,
    })),
  ]
  return (
    <Stack
      direction="row"
      role="group"
      aria-label="Show"
      sx={{ flexWrap: 'wrap', columnGap: 1.5, rowGap: 0.25 }}
    >
      {choices.map(({ value, words, count }) => (
        <Box
          key={words}
          component="button"
          type="button"
          aria-pressed={state === value}
          onClick={() => {
            setState(value)
          }}
          sx={{
            border: 0,
            p: 0,
            font: 'inherit',
            fontSize: '0.8125rem',
            color: 'inherit',
            bgcolor: 'transparent',
            cursor: 'pointer',
            borderBottom: 2,
            borderColor: state === value ? 'primary.main' : 'transparent',
            fontWeight: state === value ? 650 : 400,
          }}
        >
          {words} {number(count)}
        </Box>
      ))}
    </Stack>
  )
}

function CheckAll({ contacts: { filter, statics, total = 0, isNarrowed } }: { contacts: Contacts }) {
  const check = useChange(printApi.proofs)
  return (
    <>
      <Button
        variant="outlined"
        disabled={check.isPending || total === 0}
        onClick={() => {
          check.mutate({ body: { filter, staticIds: statics.map(({ id }) => id) } })
        }}
      >
        Check {isNarrowed ? 'these ' : 'all '}
        {quantity(total, 'piece')}
      </Button>
      {check.isError && (
        <Fault sentence={sentenceOf(check.error, 'The check could not be started. Try again.')} />
      )}
    </>
  )
}
