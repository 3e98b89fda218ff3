import type { Code } from '@flimbo/core/codes'
import { useEffect, useEffectEvent, useState } from 'react'
import { useForm } from 'react-hook-form'
import { byContract, showFaults } from '../api/index.ts'
import { CODE_FIELDS, pieceValues, type PieceValues } from './pieceFields.ts'
import { pieceContract, readTyped } from './pieceValues.ts'
import { usePieceSave } from './usePieceSave.ts'

/** What is typed of a piece, and what becomes of it when it is saved, discarded, or met by somebody else's copy. */
export function usePieceForm(code: Code) {
  const [trouble, setTrouble] = useState<string | null>(null)
  const {
    control,
    handleSubmit,
    reset,
    setError,
    setValue,
    getValues,
    formState: { isDirty },
  } = useForm<PieceValues>({
    defaultValues: pieceValues(code),
    resolver: byContract(pieceContract, readTyped),
  })
  const piece = usePieceSave(code, isDirty)
  // What others save shows at once, but never in place of what is being typed.
  const follow = useEffectEvent((stored: Code) => {
    const values = piece.follow(stored)
    if (values) reset(values)
  })
  useEffect(() => {
    if (!isDirty) follow(code)
  }, [code, isDirty])

  async function save(values: PieceValues): Promise<void> {
    setTrouble(null)
    try {
      const saved = await piece.save(values)
      if (saved) reset(saved)
    } catch (error) {
      setTrouble(showFaults(error, setError, [...CODE_FIELDS, 'destination']))
    }
  }

  return {
    control,
    isDirty,
    isSaving: piece.isSaving,
    conflict: piece.conflict && { what: piece.conflict.what, rows: piece.conflict.rows(getValues()) },
    /** Why nothing was saved, in words for the person; null where nothing went wrong. */
    trouble,
    submit: handleSubmit(save),
    choose: (slug: string) => {
      setValue('slug', slug, { shouldDirty: true })
    },
    /** Theirs in place of one's own; where only the destination is in dispute, the rest that was typed stays. */
    keepStored: () => {
      const isDestinationOnly = piece.conflict?.what === 'destination'
      const stored = piece.rebase()
      reset(stored, { keepValues: isDestinationOnly })
      setValue('destination', stored.destination, { shouldDirty: true })
    },
    overwrite: () => {
      piece.rebase()
      void save(getValues())
    },
    discard: () => {
      piece.rebase()
      reset(piece.follow(code) ?? pieceValues(code))
      setTrouble(null)
    },
  }
}
