import type { Words } from '../words.ts'

export const fi: Words = {
  pages: {
    home: {
      title: 'Lyhytlinkit',
      text: 'Tässä osoitteessa on lyhytlinkkejä. Skannaa koodi tai kirjoita lyhytlinkki loppuun asti, niin pääset sen sivulle.',
    },
    unknown: {
      title: 'Tätä lyhytlinkkiä ei ole',
      text: 'Tässä osoitteessa ei ole mitään. Tarkista kirjaimet ja numerot tai kysy siltä, jolta sait sen.',
    },
    paused: {
      title: 'Tauolla',
      text: 'Tämä koodi on juuri nyt tauolla. Yritä myöhemmin uudelleen tai kysy siltä, joka laittoi sen esille.',
    },
    deleted: {
      title: 'Ei enää käytössä',
      text: 'Tämä koodi on poistettu käytöstä eikä johda enää mihinkään. Kysy siltä, joka laittoi sen esille.',
    },
    early: {
      title: 'Ei vielä',
      text: 'Se, mihin koodi johtaa, ei ole vielä alkanut. Palaa vähän myöhemmin.',
    },
    over: {
      title: 'Tämä on ohi',
      text: 'Se, mihin koodi johti, on päättynyt. Kysy koodin esille laittaneelta, mitä nyt on tarjolla.',
    },
    full: {
      title: 'Kaikki on jaettu',
      text: 'Näitä oli rajallinen määrä, ja kaikki on jaettu. Kysy siltä, joka laittoi koodin esille.',
    },
    'full-today': {
      title: 'Tältä päivältä kaikki on jaettu',
      text: 'Tältä päivältä kaikki on jaettu. Yritä huomenna uudelleen.',
    },
    busy: {
      title: 'Pieni hetki',
      text: 'Tätä lyhytlinkkiä ei voi juuri nyt seurata. Yritä uudelleen minuutin kuluttua.',
    },
    method: { title: 'Vain luettavaksi', text: 'Lyhytlinkin voi vain avata. Avaa tämä osoite selaimessa.' },
    malformed: {
      title: 'Tätä ei voitu lukea',
      text: 'Osoite tai pyyntö on vioittunut. Skannaa koodi uudelleen.',
    },
  },
  password: {
    title: 'Salasana',
    text: 'Koodin esille laittanut on suojannut sen salasanalla.',
    label: 'Salasana',
    goOn: 'Jatka',
    wrong: 'Salasana oli väärä. Yritä uudelleen.',
    wait: 'Vääriä salasanoja oli liian monta. Odota {time} ja yritä sitten uudelleen.',
  },
  location: {
    title: 'Missä olet?',
    keep: 'Saatte myös tallentaa sijaintini noin kilometrin tarkkuudella.',
    tell: 'Kerro, missä olen',
    without: 'Jatka ilman',
  },
  onward: {
    onTo: 'Eteenpäin: {host}',
    privacy: 'Näin käsittelemme tietojasi',
    yes: 'Kyllä, jatka',
    no: 'Ei, jatka ilman',
  },
  parts: {
    openNow: 'Avoinna nyt',
    closedNow: 'Suljettu nyt',
    until: '{time} asti',
    opens: 'avataan {time}',
    closed: 'Suljettu',
    saveContact: 'Tallenna yhteystieto',
    addToWallet: 'Lisää lompakkoon',
    share: 'Jaa',
    addToCalendar: 'Lisää kalenteriin',
    openInMaps: 'Avaa kartalla',
    mapOnWeb: 'Kartta verkossa',
    transcript: 'Lue tekstinä',
    languages: 'Kielet',
  },
}
