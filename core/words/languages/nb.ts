import type { Words } from '../words.ts'

export const nb: Words = {
  pages: {
    home: {
      title: 'Korte lenker',
      text: 'På denne adressen ligger korte lenker. Skann en kode, eller skriv en kort lenke helt ut, for å komme til siden.',
    },
    unknown: {
      title: 'Denne korte lenken finnes ikke',
      text: 'Det er ingenting på denne adressen. Sjekk bokstaver og tall, eller spør den du fikk den av.',
    },
    paused: {
      title: 'Tar en pause',
      text: 'Denne koden er satt på pause akkurat nå. Prøv igjen senere, eller spør den som satte den opp.',
    },
    deleted: {
      title: 'Ikke lenger i bruk',
      text: 'Denne koden er trukket tilbake og fører ikke lenger noe sted. Spør den som satte den opp.',
    },
    early: {
      title: 'Ikke ennå',
      text: 'Det koden fører til, har ikke begynt ennå. Kom tilbake litt senere.',
    },
    over: {
      title: 'Dette er over',
      text: 'Det koden førte til, er slutt. Spør den som satte den opp, hva som finnes nå.',
    },
    full: {
      title: 'Alt er tatt',
      text: 'Det var et fast antall, og alle er tatt. Spør den som satte opp koden.',
    },
    'full-today': { title: 'Alt er tatt for i dag', text: 'Alt er tatt for i dag. Prøv igjen i morgen.' },
    busy: {
      title: 'Et øyeblikk',
      text: 'Denne korte lenken kan ikke følges akkurat nå. Prøv igjen om et minutt.',
    },
    method: {
      title: 'Bare for lesing',
      text: 'Korte lenker kan bare åpnes. Åpne denne adressen i en nettleser.',
    },
    malformed: {
      title: 'Dette kunne ikke leses',
      text: 'Adressen eller forespørselen er skadet. Skann koden på nytt.',
    },
  },
  password: {
    title: 'Passord, takk',
    text: 'Den som satte opp koden, har satt et passord foran den.',
    label: 'Passord',
    goOn: 'Fortsett',
    wrong: 'Det var ikke passordet. Prøv igjen.',
    wait: 'Det var for mange feil passord. Vent {time}, og prøv så igjen.',
  },
  location: {
    title: 'Hvor er du?',
    keep: 'Dere kan også lagre hvor jeg er, avrundet til omtrent en kilometer.',
    tell: 'Fortell hvor jeg er',
    without: 'Fortsett uten',
  },
  onward: {
    onTo: 'Videre til {host}',
    privacy: 'Slik behandler vi opplysningene dine',
    yes: 'Ja, fortsett',
    no: 'Nei, fortsett uten',
  },
  parts: {
    openNow: 'Åpent nå',
    closedNow: 'Stengt nå',
    until: 'til {time}',
    opens: 'åpner {time}',
    closed: 'Stengt',
    saveContact: 'Lagre kontakt',
    addToWallet: 'Legg til i lommebok',
    share: 'Del',
    addToCalendar: 'Legg til i kalender',
    openInMaps: 'Åpne i kart',
    mapOnWeb: 'Kart på nettet',
    transcript: 'Les som tekst',
    languages: 'Språk',
  },
}
