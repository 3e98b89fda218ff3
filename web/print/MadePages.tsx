import { DEFAULT_FINISH, type Finish } from '@flimbo/core/symbol'
import { useState } from 'react'
import { FileRows } from './FileRows.tsx'
import type { JobPage } from './JobFrame.tsx'
import { ReleasePage } from './ReleasePage.tsx'
import { SheetPage } from './SheetPage.tsx'
import type { Subject } from './subject.ts'
import type { Contacts } from './useContacts.ts'

interface Props {
  readonly page: JobPage
  readonly subject: Subject
  readonly contacts: Contacts
  /** Whether something is not saved: files are made of what is. */
  readonly isChanged: boolean
}

/** The pages of a job sheet on which something is made: files, sheets, a release. How files are finished holds for all. */
export function MadePages({ page, subject, contacts, isChanged }: Props) {
  const [finish, setFinish] = useState<Finish>(DEFAULT_FINISH)
  if (page === 'files')
    return (
      <FileRows
        subject={subject}
        contacts={contacts}
        isChanged={isChanged}
        finish={finish}
        setFinish={setFinish}
      />
    )
  if (page === 'sheets') return <SheetPage subject={subject} contacts={contacts} />
  if (page === 'release')
    return <ReleasePage subject={subject} contacts={contacts} isChanged={isChanged} finish={finish} />
  return null
}
