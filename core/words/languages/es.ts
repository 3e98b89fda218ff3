import type { Words } from '../words.ts'

export const es: Words = {
  pages: {
    home: {
      title: 'Enlaces cortos',
      text: 'En esta dirección hay enlaces cortos. Escanea un código, o escribe un enlace corto completo, para llegar a su página.',
    },
    unknown: {
      title: 'Este enlace corto no existe',
      text: 'No hay nada en esta dirección. Comprueba las letras y los números, o pregunta a quien te la dio.',
    },
    paused: {
      title: 'En pausa',
      text: 'Este código está en pausa en este momento. Inténtalo más tarde, o pregunta a quien lo puso.',
    },
    deleted: {
      title: 'Ya no se usa',
      text: 'Este código se ha retirado y ya no lleva a ninguna parte. Pregunta a quien lo puso.',
    },
    early: {
      title: 'Todavía no',
      text: 'Aquello a lo que lleva este código aún no ha empezado. Vuelve un poco más tarde.',
    },
    over: {
      title: 'Ha terminado',
      text: 'Aquello a lo que llevaba este código ha terminado. Pregunta a quien lo puso qué hay ahora.',
    },
    full: {
      title: 'No queda ninguno',
      text: 'Había un número fijo y ya no queda ninguno. Pregunta a quien puso este código.',
    },
    'full-today': { title: 'Por hoy no queda ninguno', text: 'Por hoy no queda ninguno. Inténtalo mañana.' },
    busy: {
      title: 'Un momento, por favor',
      text: 'Ahora mismo no se puede seguir este enlace corto. Inténtalo dentro de un minuto.',
    },
    method: {
      title: 'Solo lectura',
      text: 'Un enlace corto solo se puede abrir. Abre esta dirección en un navegador.',
    },
    malformed: {
      title: 'No se ha podido leer',
      text: 'La dirección o la petición está dañada. Escanea el código otra vez.',
    },
  },
  password: {
    title: 'Contraseña, por favor',
    text: 'Quien puso este código lo ha protegido con una contraseña.',
    label: 'Contraseña',
    goOn: 'Continuar',
    wrong: 'Esa no era la contraseña. Inténtalo otra vez.',
    wait: 'Ha habido demasiadas contraseñas erróneas. Espera {time} e inténtalo otra vez.',
  },
  location: {
    title: '¿Dónde estás?',
    keep: 'También podéis guardar dónde estoy, redondeado a un kilómetro aproximadamente.',
    tell: 'Decir dónde estoy',
    without: 'Continuar sin ello',
  },
  onward: {
    onTo: 'Hacia {host}',
    privacy: 'Cómo tratamos tus datos',
    yes: 'Sí, continuar',
    no: 'No, continuar sin ello',
  },
  parts: {
    openNow: 'Abierto ahora',
    closedNow: 'Cerrado ahora',
    until: 'hasta {time}',
    opens: 'abre {time}',
    closed: 'Cerrado',
    saveContact: 'Guardar contacto',
    addToWallet: 'Añadir a la cartera',
    share: 'Compartir',
    addToCalendar: 'Añadir al calendario',
    openInMaps: 'Abrir en mapas',
    mapOnWeb: 'Mapa en la web',
    transcript: 'Leer como texto',
    languages: 'Idiomas',
  },
}
