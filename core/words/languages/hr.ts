import type { Words } from '../words.ts'

export const hr: Words = {
  pages: {
    home: {
      title: 'Kratke poveznice',
      text: 'Na ovoj su adresi kratke poveznice. Skenirajte kod ili do kraja upišite kratku poveznicu da biste došli na njezinu stranicu.',
    },
    unknown: {
      title: 'Te kratke poveznice nema',
      text: 'Na ovoj adresi nema ničega. Provjerite slova i brojke ili pitajte onoga tko vam ju je dao.',
    },
    paused: {
      title: 'Trenutačno pauzirano',
      text: 'Ovaj je kod trenutačno pauziran. Pokušajte poslije ili pitajte onoga tko ga je postavio.',
    },
    deleted: {
      title: 'Više se ne koristi',
      text: 'Ovaj je kod povučen i više nikamo ne vodi. Pitajte onoga tko ga je postavio.',
    },
    early: { title: 'Još ne', text: 'Ono čemu vodi ovaj kod još nije počelo. Vratite se malo poslije.' },
    over: {
      title: 'Ovo je završilo',
      text: 'Ono čemu je vodio ovaj kod završilo je. Pitajte onoga tko ga je postavio što ima sada.',
    },
    full: {
      title: 'Sve je podijeljeno',
      text: 'Broj je bio ograničen i sve je podijeljeno. Pitajte onoga tko je postavio kod.',
    },
    'full-today': {
      title: 'Za danas je sve podijeljeno',
      text: 'Za danas je sve podijeljeno. Pokušajte sutra.',
    },
    busy: {
      title: 'Trenutak, molimo',
      text: 'Ova se kratka poveznica sada ne može otvoriti. Pokušajte za minutu.',
    },
    method: {
      title: 'Samo za čitanje',
      text: 'Kratke poveznice mogu se samo otvoriti. Otvorite ovu adresu u pregledniku.',
    },
    malformed: {
      title: 'Ovo se nije moglo pročitati',
      text: 'Adresa ili zahtjev su oštećeni. Ponovno skenirajte kod.',
    },
  },
  password: {
    title: 'Lozinka, molimo',
    text: 'Onaj tko je postavio ovaj kod zaštitio ga je lozinkom.',
    label: 'Lozinka',
    goOn: 'Nastavi',
    wrong: 'To nije bila ispravna lozinka. Pokušajte ponovno.',
    wait: 'Bilo je previše pogrešnih lozinki. Pričekajte {time} pa pokušajte ponovno.',
  },
  location: {
    title: 'Gdje ste?',
    keep: 'Smijete i spremiti gdje sam, zaokruženo na otprilike kilometar.',
    tell: 'Reci gdje sam',
    without: 'Nastavi bez toga',
  },
  onward: {
    onTo: 'Dalje na {host}',
    privacy: 'Kako postupamo s vašim podacima',
    yes: 'Da, nastavi',
    no: 'Ne, nastavi bez toga',
  },
  parts: {
    openNow: 'Sada otvoreno',
    closedNow: 'Sada zatvoreno',
    until: 'do {time}',
    opens: 'otvara se {time}',
    closed: 'Zatvoreno',
    saveContact: 'Spremi kontakt',
    addToWallet: 'Dodaj u novčanik',
    share: 'Podijeli',
    addToCalendar: 'Dodaj u kalendar',
    openInMaps: 'Otvori u kartama',
    mapOnWeb: 'Karta na webu',
    transcript: 'Čitaj kao tekst',
    languages: 'Jezici',
  },
}
