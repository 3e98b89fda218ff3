import { Dialog, DialogContent, DialogTitle, Stack, TextField, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { domainsApi, type Domain } from '@flimbo/core/domains'
import { useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { Fault, DialogButtons } from '../ui/index.ts'

const namesOf = ({ total, names }: Domain['released']) =>
  [...names, ...(total > names.length ? [`${String(total - names.length)} more`] : [])].join(', ')

/** Removing a domain kills what is printed with it, so the number of its short links must be typed. */
export function RemoveDomain({ domain, open, close }: { domain: Domain; open: boolean; close: () => void }) {
  const remove = useChange(domainsApi.remove)
  const [typed, setTyped] = useState('')
  const [trouble, setTrouble] = useState<string | null>(null)
  const sure = domain.links === 0 || typed.trim() === String(domain.links)
  const submit = async () => {
    try {
      await remove.mutateAsync({ params: { id: domain.id }, query: { links: domain.links } })
      close()
    } catch (error) {
      setTrouble(sentenceOf(error, 'The domain could not be removed.'))
    }
  }
  return (
    <Dialog open={open} onClose={close} fullWidth maxWidth="xs" aria-labelledby="remove-domain">
      <DialogTitle id="remove-domain">Remove {domain.host}</DialogTitle>
      <DialogContent>
        <Stack spacing={2}>
          <Fault sentence={trouble} />
          <Typography>
            {domain.links === 0
              ? 'No short link is on it.'
              : `${quantity(domain.links, 'short link')} die with it: whoever scans what is printed with them gets no further.`}
          </Typography>
          {domain.released.total > 0 && (
            <Typography color="error">
              {quantity(domain.released.total, 'piece')} of it {domain.released.total === 1 ? 'is' : 'are'}{' '}
              released for print: {namesOf(domain.released)}.
            </Typography>
          )}
          {domain.links > 0 && (
            <TextField
              size="small"
              label={`Type ${String(domain.links)} to go on`}
              value={typed}
              onChange={(event) => {
                setTyped(event.target.value)
              }}
            />
          )}
        </Stack>
      </DialogContent>
      <DialogButtons
        close={close}
        label="Remove the domain"
        act={submit}
        isDisabled={!sure || remove.isPending}
        isDestructive
      />
    </Dialog>
  )
}
