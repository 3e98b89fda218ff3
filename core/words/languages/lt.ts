import type { Words } from '../words.ts'

export const lt: Words = {
  pages: {
    home: {
      title: 'Trumposios nuorodos',
      text: 'Šiuo adresu yra trumposios nuorodos. Nuskaitykite kodą arba iki galo įrašykite trumpąją nuorodą, kad patektumėte į jos puslapį.',
    },
    unknown: {
      title: 'Tokios trumposios nuorodos nėra',
      text: 'Šiuo adresu nieko nėra. Patikrinkite raides ir skaičius arba paklauskite to, kas ją jums davė.',
    },
    paused: {
      title: 'Šiuo metu sustabdyta',
      text: 'Šis kodas šiuo metu sustabdytas. Bandykite vėliau arba paklauskite to, kas jį pakabino.',
    },
    deleted: {
      title: 'Nebenaudojama',
      text: 'Šis kodas atšauktas ir niekur nebeveda. Paklauskite to, kas jį pakabino.',
    },
    early: {
      title: 'Dar ne',
      text: 'Tai, į ką veda šis kodas, dar neprasidėjo. Sugrįžkite šiek tiek vėliau.',
    },
    over: {
      title: 'Tai jau baigėsi',
      text: 'Tai, į ką vedė šis kodas, baigėsi. Paklauskite to, kas jį pakabino, kas yra dabar.',
    },
    full: {
      title: 'Viskas išdalyta',
      text: 'Kiekis buvo ribotas, ir viskas išdalyta. Paklauskite to, kas pakabino šį kodą.',
    },
    'full-today': { title: 'Šiandien viskas išdalyta', text: 'Šiandien viskas išdalyta. Bandykite rytoj.' },
    busy: {
      title: 'Akimirką, prašome',
      text: 'Šios trumposios nuorodos dabar negalima atidaryti. Bandykite po minutės.',
    },
    method: {
      title: 'Tik skaityti',
      text: 'Trumpąsias nuorodas galima tik atidaryti. Atidarykite šį adresą naršyklėje.',
    },
    malformed: {
      title: 'Nepavyko perskaityti',
      text: 'Adresas arba užklausa sugadinta. Nuskaitykite kodą dar kartą.',
    },
  },
  password: {
    title: 'Slaptažodis, prašome',
    text: 'Tas, kas pakabino šį kodą, apsaugojo jį slaptažodžiu.',
    label: 'Slaptažodis',
    goOn: 'Toliau',
    wrong: 'Tai ne tas slaptažodis. Bandykite dar kartą.',
    wait: 'Buvo per daug neteisingų slaptažodžių. Palaukite {time} ir bandykite dar kartą.',
  },
  location: {
    title: 'Kur esate?',
    keep: 'Taip pat galite išsaugoti, kur esu, suapvalinę maždaug iki kilometro.',
    tell: 'Pasakyti, kur esu',
    without: 'Toliau be to',
  },
  onward: {
    onTo: 'Toliau į {host}',
    privacy: 'Kaip tvarkome jūsų duomenis',
    yes: 'Taip, toliau',
    no: 'Ne, toliau be to',
  },
  parts: {
    openNow: 'Dabar atidaryta',
    closedNow: 'Dabar uždaryta',
    until: 'iki {time}',
    opens: 'atidaroma {time}',
    closed: 'Uždaryta',
    saveContact: 'Išsaugoti kontaktą',
    addToWallet: 'Pridėti į piniginę',
    share: 'Bendrinti',
    addToCalendar: 'Pridėti į kalendorių',
    openInMaps: 'Atverti žemėlapyje',
    mapOnWeb: 'Žemėlapis internete',
    transcript: 'Skaityti tekstą',
    languages: 'Kalbos',
  },
}
