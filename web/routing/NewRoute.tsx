import { Button, Stack } from '@mui/material'
import { newRoute, routesApi } from '@flimbo/core/routing'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { byContract, showFaults, useChange } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { FormDestination, FormText, Sheet, Fault } from '../ui/index.ts'

interface Values {
  name: string
  destination: string
  note: string
}

/** The form of a new route: a name and a destination. */
export function NewRoute({ made }: { made: (id: number) => void }) {
  const { id: campaignId } = useCampaign()
  const [trouble, setTrouble] = useState<string | null>(null)
  const create = useChange(routesApi.create)
  const { control, handleSubmit, setError } = useForm<Values>({
    defaultValues: { name: '', destination: '', note: '' },
    resolver: byContract(newRoute, (values) => ({ ...values, campaignId })),
  })
  const submit = handleSubmit(async (values) => {
    setTrouble(null)
    try {
      made((await create.mutateAsync({ body: { ...values, campaignId } })).id)
    } catch (error) {
      setTrouble(showFaults(error, setError, ['name', 'destination', 'note']))
    }
  })
  return (
    <Sheet title="New route">
      <Stack
        component="form"
        noValidate
        spacing={2}
        onSubmit={(event) => {
          void submit(event)
        }}
        sx={{ maxWidth: 640 }}
      >
        <Fault sentence={trouble} />
        <FormText control={control} name="name" label="Name" autoFocus />
        <FormDestination control={control} name="destination" label="Destination" />
        <FormText control={control} name="note" label="Note" />
        <Button
          type="submit"
          variant="contained"
          disabled={create.isPending}
          sx={{ alignSelf: 'flex-start' }}
        >
          Add route
        </Button>
      </Stack>
    </Sheet>
  )
}
