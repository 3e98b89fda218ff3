import type { Words } from '../words.ts'

export const en: Words = {
  pages: {
    home: {
      title: 'Short links',
      text: 'This address serves short links. Scan a code, or type a short link to its end, to be taken to its page.',
    },
    unknown: {
      title: 'No such short link',
      text: 'Nothing is kept under this address. Please check the letters and digits, or ask whoever gave it to you.',
    },
    paused: {
      title: 'Resting for now',
      text: 'This code is paused at the moment. Please try again later, or ask whoever put it up.',
    },
    deleted: {
      title: 'No longer in use',
      text: 'This code has been withdrawn and leads nowhere any more. Please ask whoever put it up.',
    },
    early: {
      title: 'Not yet',
      text: 'What this code leads to has not begun yet. Please come back a little later.',
    },
    over: {
      title: 'This is over',
      text: 'What this code led to has ended. Please ask whoever put it up what there is now.',
    },
    full: {
      title: 'All taken',
      text: 'There was a fixed number of these, and all of them are taken. Please ask whoever put this code up.',
    },
    'full-today': {
      title: 'All taken for today',
      text: 'Today’s share is taken. Please try again tomorrow.',
    },
    busy: {
      title: 'One moment, please',
      text: 'This short link cannot be followed just now. Please try again in a minute.',
    },
    method: {
      title: 'Only for reading',
      text: 'Short links can only be opened. Please open this address in a browser.',
    },
    malformed: {
      title: 'This could not be read',
      text: 'The address or the request is damaged. Please scan the code again.',
    },
  },
  password: {
    title: 'Password, please',
    text: 'Whoever put up this code has put a password before it.',
    label: 'Password',
    goOn: 'Go on',
    wrong: 'That was not the password. Please try again.',
    wait: 'There were too many wrong passwords. Please wait {time}, then try again.',
  },
  location: {
    title: 'Where are you?',
    keep: 'You may also keep where I am, rounded to about a kilometre.',
    tell: 'Tell where I am',
    without: 'Go on without',
  },
  onward: {
    onTo: 'On to {host}',
    privacy: 'How we handle your data',
    yes: 'Yes, go on',
    no: 'No, go on without',
  },
  parts: {
    openNow: 'Open now',
    closedNow: 'Closed now',
    until: 'until {time}',
    opens: 'opens {time}',
    closed: 'Closed',
    saveContact: 'Save contact',
    addToWallet: 'Add to wallet',
    share: 'Share',
    addToCalendar: 'Add to calendar',
    openInMaps: 'Open in maps',
    mapOnWeb: 'Map on the web',
    transcript: 'Read as text',
    languages: 'Languages',
  },
}
