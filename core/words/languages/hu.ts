import type { Words } from '../words.ts'

export const hu: Words = {
  pages: {
    home: {
      title: 'Rövid linkek',
      text: 'Ezen a címen rövid linkek vannak. Olvasson be egy kódot, vagy írjon be végig egy rövid linket, hogy eljusson az oldalára.',
    },
    unknown: {
      title: 'Nincs ilyen rövid link',
      text: 'Ezen a címen nincs semmi. Ellenőrizze a betűket és számokat, vagy kérdezze meg azt, akitől kapta.',
    },
    paused: {
      title: 'Most szünetel',
      text: 'Ez a kód jelenleg szünetel. Próbálja meg később, vagy kérdezze meg azt, aki kitette.',
    },
    deleted: {
      title: 'Már nincs használatban',
      text: 'Ezt a kódot visszavonták, és már nem vezet sehová. Kérdezze meg azt, aki kitette.',
    },
    early: {
      title: 'Még nem',
      text: 'Amihez ez a kód vezet, még nem kezdődött el. Térjen vissza kicsit később.',
    },
    over: {
      title: 'Ez már véget ért',
      text: 'Amihez ez a kód vezetett, véget ért. Kérdezze meg azt, aki kitette, hogy most mi van helyette.',
    },
    full: {
      title: 'Minden elkelt',
      text: 'Meghatározott számú volt, és mind elkelt. Kérdezze meg azt, aki a kódot kitette.',
    },
    'full-today': { title: 'Mára minden elkelt', text: 'Mára minden elkelt. Próbálja meg holnap.' },
    busy: {
      title: 'Egy pillanat',
      text: 'Ez a rövid link most nem nyitható meg. Próbálja meg egy perc múlva.',
    },
    method: {
      title: 'Csak olvasható',
      text: 'A rövid linkeket csak megnyitni lehet. Nyissa meg ezt a címet egy böngészőben.',
    },
    malformed: {
      title: 'Ezt nem sikerült elolvasni',
      text: 'A cím vagy a kérés sérült. Olvassa be újra a kódot.',
    },
  },
  password: {
    title: 'Kérjük a jelszót',
    text: 'Aki ezt a kódot kitette, jelszóval védte.',
    label: 'Jelszó',
    goOn: 'Tovább',
    wrong: 'Ez nem a jó jelszó. Próbálja meg újra.',
    wait: 'Túl sok volt a hibás jelszó. Várjon ennyit: {time}, majd próbálja meg újra.',
  },
  location: {
    title: 'Hol van?',
    keep: 'Azt is megőrizhetik, hol vagyok, körülbelül egy kilométerre kerekítve.',
    tell: 'Megmondom, hol vagyok',
    without: 'Tovább enélkül',
  },
  onward: {
    onTo: 'Tovább ide: {host}',
    privacy: 'Hogyan kezeljük az adatait',
    yes: 'Igen, tovább',
    no: 'Nem, tovább enélkül',
  },
  parts: {
    openNow: 'Most nyitva',
    closedNow: 'Most zárva',
    until: 'eddig: {time}',
    opens: 'nyitás: {time}',
    closed: 'Zárva',
    saveContact: 'Névjegy mentése',
    addToWallet: 'Hozzáadás a tárcához',
    share: 'Megosztás',
    addToCalendar: 'Hozzáadás a naptárhoz',
    openInMaps: 'Megnyitás térképen',
    mapOnWeb: 'Térkép a weben',
    transcript: 'Elolvasás szövegként',
    languages: 'Nyelvek',
  },
}
