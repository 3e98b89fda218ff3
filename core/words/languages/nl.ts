import type { Words } from '../words.ts'

export const nl: Words = {
  pages: {
    home: {
      title: 'Korte links',
      text: 'Op dit adres staan korte links. Scan een code of typ een korte link helemaal uit om naar de pagina ervan te gaan.',
    },
    unknown: {
      title: 'Deze korte link bestaat niet',
      text: 'Op dit adres staat niets. Controleer de letters en cijfers of vraag het aan degene van wie u het hebt.',
    },
    paused: {
      title: 'Even gepauzeerd',
      text: 'Deze code is op dit moment gepauzeerd. Probeer het later opnieuw of vraag het aan degene die hem heeft opgehangen.',
    },
    deleted: {
      title: 'Niet meer in gebruik',
      text: 'Deze code is ingetrokken en leidt nergens meer naartoe. Vraag het aan degene die hem heeft opgehangen.',
    },
    early: {
      title: 'Nog niet',
      text: 'Wat achter deze code zit, is nog niet begonnen. Kom iets later terug.',
    },
    over: {
      title: 'Dit is voorbij',
      text: 'Wat achter deze code zat, is afgelopen. Vraag aan degene die hem heeft opgehangen wat er nu is.',
    },
    full: {
      title: 'Alles is vergeven',
      text: 'Hiervan was er een vast aantal, en alles is vergeven. Vraag het aan degene die deze code heeft opgehangen.',
    },
    'full-today': {
      title: 'Voor vandaag is alles vergeven',
      text: 'Voor vandaag is alles vergeven. Probeer het morgen opnieuw.',
    },
    busy: {
      title: 'Een ogenblik',
      text: 'Deze korte link kan nu even niet worden gevolgd. Probeer het over een minuut opnieuw.',
    },
    method: {
      title: 'Alleen om te lezen',
      text: 'Korte links kunnen alleen worden geopend. Open dit adres in een browser.',
    },
    malformed: {
      title: 'Dit kon niet worden gelezen',
      text: 'Het adres of het verzoek is beschadigd. Scan de code opnieuw.',
    },
  },
  password: {
    title: 'Wachtwoord, alstublieft',
    text: 'Degene die deze code heeft opgehangen, heeft er een wachtwoord voor gezet.',
    label: 'Wachtwoord',
    goOn: 'Verder',
    wrong: 'Dat was niet het wachtwoord. Probeer het opnieuw.',
    wait: 'Er waren te veel verkeerde wachtwoorden. Wacht {time} en probeer het dan opnieuw.',
  },
  location: {
    title: 'Waar bent u?',
    keep: 'U mag ook bewaren waar ik ben, afgerond op ongeveer een kilometer.',
    tell: 'Zeggen waar ik ben',
    without: 'Verder zonder',
  },
  onward: {
    onTo: 'Verder naar {host}',
    privacy: 'Hoe wij met uw gegevens omgaan',
    yes: 'Ja, verder',
    no: 'Nee, verder zonder',
  },
  parts: {
    openNow: 'Nu open',
    closedNow: 'Nu gesloten',
    until: 'tot {time}',
    opens: 'opent {time}',
    closed: 'Gesloten',
    saveContact: 'Contact opslaan',
    addToWallet: 'Aan wallet toevoegen',
    share: 'Delen',
    addToCalendar: 'In agenda zetten',
    openInMaps: 'Openen in kaarten',
    mapOnWeb: 'Kaart op het web',
    transcript: 'Lezen als tekst',
    languages: 'Talen',
  },
}
