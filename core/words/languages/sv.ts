import type { Words } from '../words.ts'

export const sv: Words = {
  pages: {
    home: {
      title: 'Korta länkar',
      text: 'På den här adressen finns korta länkar. Skanna en kod, eller skriv en kort länk till slut, för att komma till sidan.',
    },
    unknown: {
      title: 'Den korta länken finns inte',
      text: 'Det finns inget på den här adressen. Kontrollera bokstäver och siffror, eller fråga den du fick den av.',
    },
    paused: {
      title: 'Vilar just nu',
      text: 'Den här koden är pausad just nu. Försök igen senare, eller fråga den som satte upp den.',
    },
    deleted: {
      title: 'Används inte längre',
      text: 'Den här koden har dragits tillbaka och leder inte längre någonstans. Fråga den som satte upp den.',
    },
    early: {
      title: 'Inte än',
      text: 'Det som koden leder till har inte börjat än. Kom tillbaka lite senare.',
    },
    over: {
      title: 'Det är över',
      text: 'Det som koden ledde till är slut. Fråga den som satte upp den vad som finns nu.',
    },
    full: {
      title: 'Allt är taget',
      text: 'Det fanns ett bestämt antal, och alla är tagna. Fråga den som satte upp koden.',
    },
    'full-today': {
      title: 'Allt är taget för i dag',
      text: 'Allt är taget för i dag. Försök igen i morgon.',
    },
    busy: {
      title: 'Ett ögonblick',
      text: 'Den korta länken går inte att följa just nu. Försök igen om en minut.',
    },
    method: {
      title: 'Bara för läsning',
      text: 'Korta länkar kan bara öppnas. Öppna adressen i en webbläsare.',
    },
    malformed: {
      title: 'Det gick inte att läsa',
      text: 'Adressen eller begäran är skadad. Skanna koden igen.',
    },
  },
  password: {
    title: 'Lösenord, tack',
    text: 'Den som satte upp koden har satt ett lösenord framför den.',
    label: 'Lösenord',
    goOn: 'Fortsätt',
    wrong: 'Det var inte lösenordet. Försök igen.',
    wait: 'Det var för många felaktiga lösenord. Vänta {time} och försök sedan igen.',
  },
  location: {
    title: 'Var är du?',
    keep: 'Ni får också spara var jag är, avrundat till ungefär en kilometer.',
    tell: 'Berätta var jag är',
    without: 'Fortsätt utan',
  },
  onward: {
    onTo: 'Vidare till {host}',
    privacy: 'Så hanterar vi dina uppgifter',
    yes: 'Ja, fortsätt',
    no: 'Nej, fortsätt utan',
  },
  parts: {
    openNow: 'Öppet nu',
    closedNow: 'Stängt nu',
    until: 'till {time}',
    opens: 'öppnar {time}',
    closed: 'Stängt',
    saveContact: 'Spara kontakt',
    addToWallet: 'Lägg till i plånboken',
    share: 'Dela',
    addToCalendar: 'Lägg till i kalendern',
    openInMaps: 'Öppna i kartor',
    mapOnWeb: 'Karta på webben',
    transcript: 'Läs som text',
    languages: 'Språk',
  },
}
