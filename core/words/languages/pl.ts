import type { Words } from '../words.ts'

export const pl: Words = {
  pages: {
    home: {
      title: 'Krótkie linki',
      text: 'Pod tym adresem są krótkie linki. Zeskanuj kod albo wpisz krótki link do końca, aby przejść na jego stronę.',
    },
    unknown: {
      title: 'Nie ma takiego krótkiego linku',
      text: 'Pod tym adresem nic nie ma. Sprawdź litery i cyfry albo zapytaj osobę, od której go masz.',
    },
    paused: {
      title: 'Chwilowa przerwa',
      text: 'Ten kod jest w tej chwili wstrzymany. Spróbuj później albo zapytaj osobę, która go umieściła.',
    },
    deleted: {
      title: 'Już nieużywany',
      text: 'Ten kod został wycofany i już nigdzie nie prowadzi. Zapytaj osobę, która go umieściła.',
    },
    early: {
      title: 'Jeszcze nie',
      text: 'To, do czego prowadzi ten kod, jeszcze się nie zaczęło. Wróć trochę później.',
    },
    over: {
      title: 'To już koniec',
      text: 'To, do czego prowadził ten kod, już się skończyło. Zapytaj osobę, która go umieściła, co jest teraz.',
    },
    full: {
      title: 'Wszystko rozdane',
      text: 'Liczba była ograniczona i wszystko już rozdano. Zapytaj osobę, która umieściła ten kod.',
    },
    'full-today': { title: 'Na dziś wszystko rozdane', text: 'Na dziś wszystko już rozdano. Spróbuj jutro.' },
    busy: {
      title: 'Chwileczkę',
      text: 'W tej chwili nie można otworzyć tego krótkiego linku. Spróbuj za minutę.',
    },
    method: {
      title: 'Tylko do odczytu',
      text: 'Krótkie linki można tylko otwierać. Otwórz ten adres w przeglądarce.',
    },
    malformed: {
      title: 'Nie udało się odczytać',
      text: 'Adres albo żądanie jest uszkodzone. Zeskanuj kod jeszcze raz.',
    },
  },
  password: {
    title: 'Proszę podać hasło',
    text: 'Osoba, która umieściła ten kod, zabezpieczyła go hasłem.',
    label: 'Hasło',
    goOn: 'Dalej',
    wrong: 'To nie było właściwe hasło. Spróbuj jeszcze raz.',
    wait: 'Zbyt wiele razy podano błędne hasło. Odczekaj {time} i spróbuj jeszcze raz.',
  },
  location: {
    title: 'Gdzie jesteś?',
    keep: 'Możecie też zapisać, gdzie jestem, z dokładnością do około kilometra.',
    tell: 'Podaj, gdzie jestem',
    without: 'Dalej bez tego',
  },
  onward: {
    onTo: 'Dalej do {host}',
    privacy: 'Jak przetwarzamy dane',
    yes: 'Tak, dalej',
    no: 'Nie, dalej bez tego',
  },
  parts: {
    openNow: 'Teraz otwarte',
    closedNow: 'Teraz zamknięte',
    until: 'do {time}',
    opens: 'otwarcie {time}',
    closed: 'Zamknięte',
    saveContact: 'Zapisz kontakt',
    addToWallet: 'Dodaj do portfela',
    share: 'Udostępnij',
    addToCalendar: 'Dodaj do kalendarza',
    openInMaps: 'Otwórz w mapach',
    mapOnWeb: 'Mapa w sieci',
    transcript: 'Czytaj jako tekst',
    languages: 'Języki',
  },
}
