import type { Words } from '../words.ts'

export const et: Words = {
  pages: {
    home: {
      title: 'Lühilingid',
      text: 'Sellel aadressil on lühilingid. Skannige kood või kirjutage lühilink lõpuni, et jõuda selle lehele.',
    },
    unknown: {
      title: 'Sellist lühilinki ei ole',
      text: 'Sellel aadressil ei ole midagi. Kontrollige tähti ja numbreid või küsige sellelt, kellelt selle saite.',
    },
    paused: {
      title: 'Praegu peatatud',
      text: 'See kood on praegu peatatud. Proovige hiljem uuesti või küsige sellelt, kes selle üles pani.',
    },
    deleted: {
      title: 'Enam ei kasutata',
      text: 'See kood on kasutusest võetud ega vii enam kuhugi. Küsige sellelt, kes selle üles pani.',
    },
    early: {
      title: 'Veel mitte',
      text: 'See, kuhu kood viib, ei ole veel alanud. Tulge veidi hiljem tagasi.',
    },
    over: {
      title: 'See on läbi',
      text: 'See, kuhu kood viis, on lõppenud. Küsige koodi üles pannud inimeselt, mis on nüüd.',
    },
    full: {
      title: 'Kõik on otsas',
      text: 'Neid oli kindel arv ja kõik on otsas. Küsige sellelt, kes koodi üles pani.',
    },
    'full-today': { title: 'Tänaseks on kõik otsas', text: 'Tänaseks on kõik otsas. Proovige homme uuesti.' },
    busy: {
      title: 'Üks hetk, palun',
      text: 'Seda lühilinki ei saa praegu avada. Proovige minuti pärast uuesti.',
    },
    method: { title: 'Ainult lugemiseks', text: 'Lühilinke saab ainult avada. Avage see aadress brauseris.' },
    malformed: {
      title: 'Seda ei saanud lugeda',
      text: 'Aadress või päring on vigane. Skannige kood uuesti.',
    },
  },
  password: {
    title: 'Parool, palun',
    text: 'Koodi üles pannud inimene on pannud selle ette parooli.',
    label: 'Parool',
    goOn: 'Edasi',
    wrong: 'See ei olnud õige parool. Proovige uuesti.',
    wait: 'Valesid paroole oli liiga palju. Oodake {time} ja proovige siis uuesti.',
  },
  location: {
    title: 'Kus te olete?',
    keep: 'Võite ka salvestada, kus ma olen, umbes kilomeetri täpsusega.',
    tell: 'Ütle, kus ma olen',
    without: 'Edasi ilma',
  },
  onward: {
    onTo: 'Edasi: {host}',
    privacy: 'Kuidas me teie andmeid käsitleme',
    yes: 'Jah, edasi',
    no: 'Ei, edasi ilma',
  },
  parts: {
    openNow: 'Praegu avatud',
    closedNow: 'Praegu suletud',
    until: 'kuni {time}',
    opens: 'avatakse {time}',
    closed: 'Suletud',
    saveContact: 'Salvesta kontakt',
    addToWallet: 'Lisa rahakotti',
    share: 'Jaga',
    addToCalendar: 'Lisa kalendrisse',
    openInMaps: 'Ava kaardil',
    mapOnWeb: 'Kaart veebis',
    transcript: 'Loe tekstina',
    languages: 'Keeled',
  },
}
