import type { Words } from '../words.ts'

export const da: Words = {
  pages: {
    home: {
      title: 'Korte links',
      text: 'På denne adresse ligger korte links. Scan en kode, eller skriv et kort link helt ud, for at komme til siden.',
    },
    unknown: {
      title: 'Dette korte link findes ikke',
      text: 'Der er ikke noget på denne adresse. Kontrollér bogstaver og tal, eller spørg den, du har den fra.',
    },
    paused: {
      title: 'Holder pause',
      text: 'Denne kode er sat på pause lige nu. Prøv igen senere, eller spørg den, der har sat den op.',
    },
    deleted: {
      title: 'Ikke længere i brug',
      text: 'Denne kode er trukket tilbage og fører ikke længere nogen steder hen. Spørg den, der har sat den op.',
    },
    early: {
      title: 'Ikke endnu',
      text: 'Det, som koden fører til, er ikke begyndt endnu. Kom tilbage lidt senere.',
    },
    over: {
      title: 'Det er slut',
      text: 'Det, som koden førte til, er slut. Spørg den, der har sat den op, hvad der er nu.',
    },
    full: {
      title: 'Alt er taget',
      text: 'Der var et fast antal, og de er alle taget. Spørg den, der har sat koden op.',
    },
    'full-today': { title: 'Alt er taget for i dag', text: 'Alt er taget for i dag. Prøv igen i morgen.' },
    busy: { title: 'Et øjeblik', text: 'Dette korte link kan ikke følges lige nu. Prøv igen om et minut.' },
    method: { title: 'Kun til læsning', text: 'Korte links kan kun åbnes. Åbn denne adresse i en browser.' },
    malformed: {
      title: 'Det kunne ikke læses',
      text: 'Adressen eller forespørgslen er beskadiget. Scan koden igen.',
    },
  },
  password: {
    title: 'Adgangskode, tak',
    text: 'Den, der har sat koden op, har sat en adgangskode foran.',
    label: 'Adgangskode',
    goOn: 'Fortsæt',
    wrong: 'Det var ikke adgangskoden. Prøv igen.',
    wait: 'Der var for mange forkerte adgangskoder. Vent {time}, og prøv så igen.',
  },
  location: {
    title: 'Hvor er du?',
    keep: 'I må også gemme, hvor jeg er, afrundet til cirka en kilometer.',
    tell: 'Fortæl, hvor jeg er',
    without: 'Fortsæt uden',
  },
  onward: {
    onTo: 'Videre til {host}',
    privacy: 'Sådan behandler vi dine data',
    yes: 'Ja, fortsæt',
    no: 'Nej, fortsæt uden',
  },
  parts: {
    openNow: 'Åbent nu',
    closedNow: 'Lukket nu',
    until: 'til {time}',
    opens: 'åbner {time}',
    closed: 'Lukket',
    saveContact: 'Gem kontakt',
    addToWallet: 'Føj til wallet',
    share: 'Del',
    addToCalendar: 'Føj til kalender',
    openInMaps: 'Åbn i kort',
    mapOnWeb: 'Kort på nettet',
    transcript: 'Læs som tekst',
    languages: 'Sprog',
  },
}
