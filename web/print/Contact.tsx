import { Box, Typography } from '@mui/material'
import { contentOf } from '@flimbo/core/codes'
import { memo } from 'react'
import { PrintMark } from '../codes/index.ts'
import { SymbolPicture, useStyles } from '../symbol/index.ts'
import type { Contact, Contacts } from './useContacts.ts'

interface Props extends Pick<Contact, 'kind' | 'code'> {
  readonly isOpen: boolean
  readonly top: number
  readonly left: string
  readonly open: Contacts['open']
}

/** By what the list says which of them is open. */
export const contactId = ({ kind, id }: Pick<Contact, 'kind' | 'id'>) => `contact-${kind}-${String(id)}`

/** A piece or a static code on the contact sheet: its symbol, its name, and how far it is. */
export const ContactTile = memo(function ContactTile({ kind, code, isOpen, top, left, open }: Props) {
  const { lookOf } = useStyles()
  return (
    <Box
      id={contactId({ kind, id: code.id })}
      role="option"
      aria-selected={isOpen}
      onClick={() => {
        open(kind, code.id)
      }}
      sx={{
        position: 'absolute',
        top,
        left,
        width: 'calc(100% / 3)',
        height: 112,
        p: 0.75,
        cursor: 'pointer',
        borderBottom: 1,
        borderRight: 1,
        borderColor: 'divider',
        outline: isOpen ? 2 : 0,
        outlineStyle: 'solid',
        outlineColor: 'primary.main',
        outlineOffset: -2,
        '&:hover': { bgcolor: 'action.hover' },
      }}
    >
      <Box sx={{ display: 'flex', gap: 0.5, justifyContent: 'space-between' }}>
        <SymbolPicture
          text={'text' in code ? code.text : contentOf(code)}
          level={code.level}
          look={lookOf(code.styleId)}
          size={64}
          label=""
        />
        {kind === 'static' && (
          <Typography
            component="span"
            variant="caption"
            color="textSecondary"
            sx={{ writingMode: 'vertical-rl', lineHeight: 1 }}
          >
            static
          </Typography>
        )}
      </Box>
      <Typography
        component="div"
        variant="caption"
        noWrap
        title={code.name}
        sx={{ mt: 0.25, lineHeight: 1.3 }}
      >
        {code.name}
      </Typography>
      <Typography component="div" variant="caption" noWrap sx={{ lineHeight: 1.3 }}>
        <PrintMark print={code.print} isWorded />
      </Typography>
    </Box>
  )
})
