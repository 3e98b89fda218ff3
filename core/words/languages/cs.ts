import type { Words } from '../words.ts'

export const cs: Words = {
  pages: {
    home: {
      title: 'Krátké odkazy',
      text: 'Na této adrese jsou krátké odkazy. Naskenujte kód nebo napište krátký odkaz až do konce a dostanete se na jeho stránku.',
    },
    unknown: {
      title: 'Takový krátký odkaz neexistuje',
      text: 'Na této adrese nic není. Zkontrolujte písmena a číslice nebo se zeptejte toho, kdo vám ji dal.',
    },
    paused: {
      title: 'Momentálně pozastaveno',
      text: 'Tento kód je právě pozastaven. Zkuste to později nebo se zeptejte toho, kdo ho vyvěsil.',
    },
    deleted: {
      title: 'Už se nepoužívá',
      text: 'Tento kód byl stažen a už nikam nevede. Zeptejte se toho, kdo ho vyvěsil.',
    },
    early: { title: 'Ještě ne', text: 'To, kam kód vede, ještě nezačalo. Vraťte se o něco později.' },
    over: {
      title: 'Už skončilo',
      text: 'To, kam kód vedl, už skončilo. Zeptejte se toho, kdo ho vyvěsil, co je k dispozici teď.',
    },
    full: {
      title: 'Vše rozebráno',
      text: 'Počet byl omezený a vše je rozebráno. Zeptejte se toho, kdo kód vyvěsil.',
    },
    'full-today': { title: 'Pro dnešek rozebráno', text: 'Pro dnešek je vše rozebráno. Zkuste to zítra.' },
    busy: { title: 'Okamžik, prosím', text: 'Tento krátký odkaz teď nelze otevřít. Zkuste to za minutu.' },
    method: {
      title: 'Jen ke čtení',
      text: 'Krátké odkazy lze pouze otevřít. Otevřete tuto adresu v prohlížeči.',
    },
    malformed: {
      title: 'Nepodařilo se přečíst',
      text: 'Adresa nebo požadavek je poškozen. Naskenujte kód znovu.',
    },
  },
  password: {
    title: 'Heslo, prosím',
    text: 'Ten, kdo kód vyvěsil, ho chrání heslem.',
    label: 'Heslo',
    goOn: 'Pokračovat',
    wrong: 'To nebylo správné heslo. Zkuste to znovu.',
    wait: 'Bylo zadáno příliš mnoho chybných hesel. Počkejte {time} a zkuste to znovu.',
  },
  location: {
    title: 'Kde jste?',
    keep: 'Můžete si také uložit, kde jsem, zaokrouhleno asi na kilometr.',
    tell: 'Sdělit, kde jsem',
    without: 'Pokračovat bez toho',
  },
  onward: {
    onTo: 'Dál na {host}',
    privacy: 'Jak nakládáme s vašimi údaji',
    yes: 'Ano, pokračovat',
    no: 'Ne, pokračovat bez toho',
  },
  parts: {
    openNow: 'Nyní otevřeno',
    closedNow: 'Nyní zavřeno',
    until: 'do {time}',
    opens: 'otevírá {time}',
    closed: 'Zavřeno',
    saveContact: 'Uložit kontakt',
    addToWallet: 'Přidat do peněženky',
    share: 'Sdílet',
    addToCalendar: 'Přidat do kalendáře',
    openInMaps: 'Otevřít v mapách',
    mapOnWeb: 'Mapa na webu',
    transcript: 'Text ke čtení',
    languages: 'Jazyky',
  },
}
