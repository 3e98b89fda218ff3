import type { Words } from '../words.ts'

export const sl: Words = {
  pages: {
    home: {
      title: 'Kratke povezave',
      text: 'Na tem naslovu so kratke povezave. Skenirajte kodo ali do konca vpišite kratko povezavo, da pridete na njeno stran.',
    },
    unknown: {
      title: 'Te kratke povezave ni',
      text: 'Na tem naslovu ni ničesar. Preverite črke in številke ali vprašajte tistega, ki vam ga je dal.',
    },
    paused: {
      title: 'Začasno ustavljeno',
      text: 'Ta koda je trenutno ustavljena. Poskusite pozneje ali vprašajte tistega, ki jo je izobesil.',
    },
    deleted: {
      title: 'Ni več v uporabi',
      text: 'Ta koda je umaknjena in ne vodi več nikamor. Vprašajte tistega, ki jo je izobesil.',
    },
    early: { title: 'Še ne', text: 'To, kamor vodi ta koda, se še ni začelo. Vrnite se malo pozneje.' },
    over: {
      title: 'To je končano',
      text: 'To, kamor je vodila ta koda, se je končalo. Vprašajte tistega, ki jo je izobesil, kaj je na voljo zdaj.',
    },
    full: {
      title: 'Vse je oddano',
      text: 'Število je bilo omejeno in vse je oddano. Vprašajte tistega, ki je izobesil kodo.',
    },
    'full-today': { title: 'Za danes je vse oddano', text: 'Za danes je vse oddano. Poskusite jutri.' },
    busy: {
      title: 'Trenutek, prosim',
      text: 'Te kratke povezave trenutno ni mogoče odpreti. Poskusite čez minuto.',
    },
    method: {
      title: 'Samo za branje',
      text: 'Kratke povezave je mogoče samo odpreti. Odprite ta naslov v brskalniku.',
    },
    malformed: {
      title: 'Tega ni bilo mogoče prebrati',
      text: 'Naslov ali zahteva je poškodovana. Znova skenirajte kodo.',
    },
  },
  password: {
    title: 'Geslo, prosim',
    text: 'Kdor je izobesil to kodo, jo je zaščitil z geslom.',
    label: 'Geslo',
    goOn: 'Naprej',
    wrong: 'To ni bilo pravo geslo. Poskusite znova.',
    wait: 'Napačnih gesel je bilo preveč. Počakajte {time} in poskusite znova.',
  },
  location: {
    title: 'Kje ste?',
    keep: 'Shranite lahko tudi, kje sem, zaokroženo na približno en kilometer.',
    tell: 'Povej, kje sem',
    without: 'Naprej brez tega',
  },
  onward: {
    onTo: 'Naprej na {host}',
    privacy: 'Kako ravnamo z vašimi podatki',
    yes: 'Da, naprej',
    no: 'Ne, naprej brez tega',
  },
  parts: {
    openNow: 'Zdaj odprto',
    closedNow: 'Zdaj zaprto',
    until: 'do {time}',
    opens: 'odpre {time}',
    closed: 'Zaprto',
    saveContact: 'Shrani stik',
    addToWallet: 'Dodaj v denarnico',
    share: 'Deli',
    addToCalendar: 'Dodaj v koledar',
    openInMaps: 'Odpri v zemljevidih',
    mapOnWeb: 'Zemljevid na spletu',
    transcript: 'Preberi kot besedilo',
    languages: 'Jeziki',
  },
}
