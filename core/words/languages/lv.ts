import type { Words } from '../words.ts'

export const lv: Words = {
  pages: {
    home: {
      title: 'Īsās saites',
      text: 'Šajā adresē ir īsās saites. Noskenējiet kodu vai ierakstiet īso saiti līdz galam, lai nokļūtu tās lapā.',
    },
    unknown: {
      title: 'Šādas īsās saites nav',
      text: 'Šajā adresē nekā nav. Pārbaudiet burtus un ciparus vai pajautājiet tam, kas jums to iedeva.',
    },
    paused: {
      title: 'Pašlaik apturēts',
      text: 'Šis kods pašlaik ir apturēts. Mēģiniet vēlāk vai pajautājiet tam, kas to izvietoja.',
    },
    deleted: {
      title: 'Vairs netiek lietots',
      text: 'Šis kods ir atsaukts un vairs nekur neved. Pajautājiet tam, kas to izvietoja.',
    },
    early: { title: 'Vēl ne', text: 'Tas, uz ko ved šis kods, vēl nav sācies. Atgriezieties nedaudz vēlāk.' },
    over: {
      title: 'Tas ir beidzies',
      text: 'Tas, uz ko veda šis kods, ir beidzies. Pajautājiet tam, kas to izvietoja, kas ir pieejams tagad.',
    },
    full: {
      title: 'Viss ir izdalīts',
      text: 'Skaits bija ierobežots, un viss ir izdalīts. Pajautājiet tam, kas izvietoja šo kodu.',
    },
    'full-today': { title: 'Šodien viss ir izdalīts', text: 'Šodien viss ir izdalīts. Mēģiniet rīt.' },
    busy: { title: 'Vienu mirkli, lūdzu', text: 'Šo īso saiti pašlaik nevar atvērt. Mēģiniet pēc minūtes.' },
    method: {
      title: 'Tikai lasīšanai',
      text: 'Īsās saites var tikai atvērt. Atveriet šo adresi pārlūkprogrammā.',
    },
    malformed: {
      title: 'To neizdevās nolasīt',
      text: 'Adrese vai pieprasījums ir bojāts. Noskenējiet kodu vēlreiz.',
    },
  },
  password: {
    title: 'Paroli, lūdzu',
    text: 'Tas, kas izvietoja šo kodu, to aizsargājis ar paroli.',
    label: 'Parole',
    goOn: 'Turpināt',
    wrong: 'Tā nebija pareizā parole. Mēģiniet vēlreiz.',
    wait: 'Bija pārāk daudz nepareizu paroļu. Uzgaidiet {time} un mēģiniet vēlreiz.',
  },
  location: {
    title: 'Kur jūs esat?',
    keep: 'Varat arī saglabāt, kur es esmu, noapaļojot līdz aptuveni kilometram.',
    tell: 'Pateikt, kur esmu',
    without: 'Turpināt bez tā',
  },
  onward: {
    onTo: 'Tālāk uz {host}',
    privacy: 'Kā mēs apstrādājam jūsu datus',
    yes: 'Jā, turpināt',
    no: 'Nē, turpināt bez tā',
  },
  parts: {
    openNow: 'Tagad atvērts',
    closedNow: 'Tagad slēgts',
    until: 'līdz {time}',
    opens: 'atveras {time}',
    closed: 'Slēgts',
    saveContact: 'Saglabāt kontaktu',
    addToWallet: 'Pievienot makam',
    share: 'Kopīgot',
    addToCalendar: 'Pievienot kalendāram',
    openInMaps: 'Atvērt kartēs',
    mapOnWeb: 'Karte tīmeklī',
    transcript: 'Lasīt kā tekstu',
    languages: 'Valodas',
  },
}
