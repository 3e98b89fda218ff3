import BoldIcon from '@mui/icons-material/FormatBold'
import ItalicIcon from '@mui/icons-material/FormatItalic'
import BulletsIcon from '@mui/icons-material/FormatListBulleted'
import NumbersIcon from '@mui/icons-material/FormatListNumbered'
import LinkIcon from '@mui/icons-material/Link'
import { Box, Button, IconButton, Stack, TextField, Tooltip, Typography } from '@mui/material'
import { readDestination } from '@flimbo/core/routing'
import type { RichText } from '@flimbo/core/fields'
import { EditorContent, useEditor, useEditorState, type Editor, type JSONContent } from '@tiptap/react'
import StarterKit from '@tiptap/starter-kit'
import { useEffect, useId, useState, type ReactNode } from 'react'
import { nonce } from '../ui/index.ts'
import { fromDocument, toDocument, type EditorNode } from './richDocument.ts'

const EXTENSIONS = [
  StarterKit.configure({
    blockquote: false,
    code: false,
    codeBlock: false,
    heading: false,
    horizontalRule: false,
    strike: false,
    underline: false,
    // Links are made of what is typed as an address, and never opened while they are written.
    link: { openOnClick: false, autolink: false, linkOnPaste: true },
  }),
]

interface Props {
  readonly label: string
  readonly value: RichText
  readonly change: (value: RichText) => void
  readonly help?: string | undefined
  readonly fault?: string | undefined
}

/** A text with bold, italic, lists and links; kept as what it says, never as markup. */
export function RichEditor({ label, value, change, help, fault }: Props) {
  const id = useId()
  const said = JSON.stringify(value)
  const editor = useEditor({
    extensions: EXTENSIONS,
    content: toDocument(value) as JSONContent,
    ...(nonce === undefined ? {} : { injectNonce: nonce }),
    editorProps: {
      attributes: {
        role: 'textbox',
        'aria-multiline': 'true',
        'aria-labelledby': id,
        'aria-describedby': `${id}-help`,
        ...(fault === undefined ? {} : { 'aria-invalid': 'true' }),
      },
    },
    onUpdate: ({ editor: edited }) => {
      change(fromDocument(edited.getJSON() as EditorNode))
    },
  })
  // What comes from elsewhere (undo, another language, somebody else) is shown; what is being typed is left alone.
  useEffect(() => {
    // One that was put away is followed by another, which begins with what is said.
    if (editor.isDestroyed) return
    const here = JSON.stringify(fromDocument(editor.getJSON() as EditorNode))
    if (here !== said && !editor.isFocused)
      editor.commands.setContent(toDocument(JSON.parse(said) as RichText) as JSONContent, {
        emitUpdate: false,
      })
  }, [editor, said])
  return (
    <Box>
      <Typography id={id} variant="caption" color={fault === undefined ? 'textSecondary' : 'error'}>
        {label}
      </Typography>
      <Box
        sx={{
          border: 1,
          borderColor: fault === undefined ? 'divider' : 'error.main',
          borderRadius: 1,
          '&:focus-within': { outline: 2, outlineColor: 'primary.main', outlineOffset: -1 },
          '& .ProseMirror': { minHeight: 96, maxHeight: 320, overflowY: 'auto', p: 1.25, outline: 'none' },
          '& .ProseMirror p': { my: 0, '& + p, & + ul, & + ol': { mt: 1 } },
          '& .ProseMirror ul, & .ProseMirror ol': { my: 0.5, pl: 3 },
        }}
      >
        <Toolbar editor={editor} />
        <EditorContent editor={editor} />
      </Box>
      <Typography
        id={`${id}-help`}
        variant="caption"
        color={fault === undefined ? 'textSecondary' : 'error'}
        sx={{ ml: 1.75 }}
      >
        {fault ?? help}
      </Typography>
    </Box>
  )
}

function Toolbar({ editor }: { editor: Editor }) {
  const [isLinking, setLinking] = useState(false)
  const state = useEditorState({
    editor,
    selector: ({ editor: shown }) => ({
      bold: shown.isActive('bold'),
      italic: shown.isActive('italic'),
      bullets: shown.isActive('bulletList'),
      numbers: shown.isActive('orderedList'),
      link: shown.isActive('link'),
    }),
  })
  const button = (name: string, isOn: boolean, icon: ReactNode, press: () => void) => (
    <Tooltip title={name}>
      <IconButton
        size="small"
        aria-label={name}
        aria-pressed={isOn}
        onClick={press}
        sx={{ borderRadius: 1, bgcolor: isOn ? 'action.selected' : undefined }}
      >
        {icon}
      </IconButton>
    </Tooltip>
  )
  return (
    <>
      <Stack
        direction="row"
        role="toolbar"
        aria-label="Looks of the text"
        sx={{ gap: 0.25, p: 0.25, borderBottom: 1, borderColor: 'divider' }}
      >
        {button('Bold', state.bold, <BoldIcon fontSize="small" />, () => {
          editor.chain().focus().toggleBold().run()
        })}
        {button('Italic', state.italic, <ItalicIcon fontSize="small" />, () => {
          editor.chain().focus().toggleItalic().run()
        })}
        {button('Bulleted list', state.bullets, <BulletsIcon fontSize="small" />, () => {
          editor.chain().focus().toggleBulletList().run()
        })}
        {button('Numbered list', state.numbers, <NumbersIcon fontSize="small" />, () => {
          editor.chain().focus().toggleOrderedList().run()
        })}
        {button('Link', state.link, <LinkIcon fontSize="small" />, () => {
          setLinking(true)
        })}
      </Stack>
      {isLinking && (
        <LinkForm
          editor={editor}
          close={() => {
            setLinking(false)
          }}
        />
      )}
    </>
  )
}

function LinkForm({ editor, close }: { editor: Editor; close: () => void }) {
  const [address, setAddress] = useState(String(editor.getAttributes('link').href ?? ''))
  const [fault, setFault] = useState<string | null>(null)
  const set = () => {
    const chain = editor.chain().focus().extendMarkRange('link')
    if (address.trim() === '') {
      chain.unsetLink().run()
      close()
      return
    }
    const reading = readDestination(address)
    if (!reading.ok) {
      setFault(reading.sentence)
      return
    }
    const isEmpty = editor.state.selection.empty && !editor.isActive('link')
    if (isEmpty)
      chain
        .insertContent({
          type: 'text',
          text: reading.text,
          marks: [{ type: 'link', attrs: { href: reading.text } }],
        })
        .run()
    else chain.setLink({ href: reading.text }).run()
    close()
  }
  return (
    <Stack direction="row" sx={{ gap: 1, p: 1, borderBottom: 1, borderColor: 'divider' }}>
      <TextField
        size="small"
        fullWidth
        autoFocus
        label="Leads to"
        value={address}
        error={fault !== null}
        helperText={fault ?? 'Empty: no link.'}
        onChange={({ target }) => {
          setAddress(target.value)
          setFault(null)
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault()
            set()
          }
          if (event.key === 'Escape') {
            event.stopPropagation()
            close()
            editor.commands.focus()
          }
        }}
      />
      <Button onClick={set}>Set link</Button>
    </Stack>
  )
}
