import type { Words } from '../words.ts'

export const sk: Words = {
  pages: {
    home: {
      title: 'Krátke odkazy',
      text: 'Na tejto adrese sú krátke odkazy. Naskenujte kód alebo napíšte krátky odkaz až do konca a dostanete sa na jeho stránku.',
    },
    unknown: {
      title: 'Taký krátky odkaz neexistuje',
      text: 'Na tejto adrese nič nie je. Skontrolujte písmená a číslice alebo sa opýtajte toho, kto vám ju dal.',
    },
    paused: {
      title: 'Momentálne pozastavené',
      text: 'Tento kód je práve pozastavený. Skúste to neskôr alebo sa opýtajte toho, kto ho vyvesil.',
    },
    deleted: {
      title: 'Už sa nepoužíva',
      text: 'Tento kód bol stiahnutý a už nikam nevedie. Opýtajte sa toho, kto ho vyvesil.',
    },
    early: { title: 'Ešte nie', text: 'To, kam kód vedie, sa ešte nezačalo. Vráťte sa o niečo neskôr.' },
    over: {
      title: 'Už sa skončilo',
      text: 'To, kam kód viedol, sa už skončilo. Opýtajte sa toho, kto ho vyvesil, čo je k dispozícii teraz.',
    },
    full: {
      title: 'Všetko rozobrané',
      text: 'Počet bol obmedzený a všetko je rozobrané. Opýtajte sa toho, kto kód vyvesil.',
    },
    'full-today': { title: 'Na dnes rozobrané', text: 'Na dnes je všetko rozobrané. Skúste to zajtra.' },
    busy: { title: 'Okamih, prosím', text: 'Tento krátky odkaz sa teraz nedá otvoriť. Skúste to o minútu.' },
    method: {
      title: 'Len na čítanie',
      text: 'Krátke odkazy sa dajú iba otvoriť. Otvorte túto adresu v prehliadači.',
    },
    malformed: {
      title: 'Nepodarilo sa prečítať',
      text: 'Adresa alebo požiadavka je poškodená. Naskenujte kód znova.',
    },
  },
  password: {
    title: 'Heslo, prosím',
    text: 'Ten, kto kód vyvesil, ho chráni heslom.',
    label: 'Heslo',
    goOn: 'Pokračovať',
    wrong: 'To nebolo správne heslo. Skúste to znova.',
    wait: 'Bolo zadaných príliš veľa nesprávnych hesiel. Počkajte {time} a skúste to znova.',
  },
  location: {
    title: 'Kde ste?',
    keep: 'Môžete si tiež uložiť, kde som, zaokrúhlené asi na kilometer.',
    tell: 'Oznámiť, kde som',
    without: 'Pokračovať bez toho',
  },
  onward: {
    onTo: 'Ďalej na {host}',
    privacy: 'Ako nakladáme s vašimi údajmi',
    yes: 'Áno, pokračovať',
    no: 'Nie, pokračovať bez toho',
  },
  parts: {
    openNow: 'Teraz otvorené',
    closedNow: 'Teraz zatvorené',
    until: 'do {time}',
    opens: 'otvára {time}',
    closed: 'Zatvorené',
    saveContact: 'Uložiť kontakt',
    addToWallet: 'Pridať do peňaženky',
    share: 'Zdieľať',
    addToCalendar: 'Pridať do kalendára',
    openInMaps: 'Otvoriť v mapách',
    mapOnWeb: 'Mapa na webe',
    transcript: 'Čítať ako text',
    languages: 'Jazyky',
  },
}
