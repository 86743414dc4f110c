import type { ReaderMessages } from '@/words/reader/reader-messages';

export const es: ReaderMessages = {
  language: 'Idioma',
  opening: 'Abriendo…',
  tryAgain: 'Intentar de nuevo',
  cancel: 'Cancelar',
  close: 'Cerrar',
  theSender: 'quien lo envió',
  rights: {
    names: {
      read: 'Leer',
      comment: 'Comentar',
      copy: 'Copiar texto',
      print: 'Imprimir',
      revise: 'Modificar',
      keep: 'Guardar una copia',
      'pass-on': 'Compartir',
    },
    verbs: {
      read: 'leer',
      comment: 'comentar',
      copy: 'copiar texto',
      print: 'imprimir',
      revise: 'devolver un archivo modificado',
      keep: 'guardar una copia',
      'pass-on': 'compartirlo',
    },
    to: 'Poder {verb}',
    may: 'Puede {verbs}, sin fecha de fin',
    mayUntil: 'Puede {verbs} hasta el <end></end>',
    mayUntilIn: 'Puede {verbs}, hasta el <end></end>, {distance}',
  },
  prove: {
    heading: 'Se le ha enviado un documento protegido.',
    headingAll: 'Vea lo que se le ha enviado.',
    intro:
      'Escriba la dirección de correo a la que llegó el mensaje. Recibirá un código de seis cifras por correo; no ' +
      'necesita cuenta.',
    introAll:
      'Escriba su dirección de correo. Si desde aquí se le envió algo, recibirá un código de seis cifras por correo.',
    address: 'Su dirección de correo',
    send: 'Enviarme un código',
    codeHeading: 'Escriba el código',
    codeSent:
      'Un código va de camino a <b>{address}</b>. Sirve durante {minutes} minutos, en este navegador.',
    codeSentAll:
      'Si desde aquí se envió algo a <b>{address}</b>, un código va de camino. Sirve durante {minutes} minutos, en ' +
      'este navegador.',
    code: 'Código',
    device: 'Este dispositivo',
    visit: 'Solo para esta visita: un ordenador prestado o compartido',
    keep: 'Recordar este dispositivo: es mío, volver a preguntar en 60 días',
    continue: 'Continuar',
    other: 'Usar otra dirección de correo',
    noCode:
      '¿No hay código después de un minuto? Mire en su carpeta de correo no deseado, o pida otro.',
    again: 'Enviarme otro código',
    againIn: 'Se puede enviar otro código en {seconds} s',
    sentAgain: 'Otro código va de camino. Solo sirve el más reciente.',
    fileInstead: '¿Le enviaron un archivo? <link>Abrir un archivo protegido</link>',
    everything: 'Todo lo que se le ha enviado',
  },
  visit: {
    heading: 'Cualquiera con este enlace puede leer lo que hay aquí.',
    notAsked: 'No se le pregunta quién es.',
    read: 'Leerlo',
  },
  recorded: {
    heading: 'Qué se registra',
    you:
      'Se registra sobre usted: su dirección de correo; cuándo abre qué y desde qué dirección IP, el lugar que esta ' +
      'sugiere, este navegador, lo que se le negó, las páginas y el texto mostrados, lo que copia, imprime, ' +
      'guarda y ' +
      'comparte, las llaves de acceso que crea y usa, y lo que escribe a quien lo envió.',
    visitor:
      'Se registra sobre usted: cuándo abre qué y desde qué dirección IP, el lugar que esta sugiere, este ' +
      'navegador, ' +
      'lo que se le negó, las páginas y el texto mostrados, lo que copia, imprime, guarda y comparte, y lo que ' +
      'escribe a quien lo envió.',
    stays:
      'El registro queda en la organización que lo envió. El fin de un acceso no borra nada: ni el documento, ni lo ' +
      'que usted escribió, ni el registro.',
  },
  file: {
    heading: 'Abrir un archivo protegido',
    intro:
      'Suelte el archivo que le enviaron. Se le pedirá que demuestre su dirección de correo, y luego lo leerá aquí.',
    drop: 'Suelte aquí un archivo protegido',
    choose: 'Elegir un archivo',
    onlyInside:
      'Esta es solo la parte cifrada. Suelte el PDF en el que vino, o use el enlace del mensaje.',
    noLink: 'Este archivo no tiene un enlace que se pueda seguir.',
    wrong: {
      NOT_PROTECTED: 'Esto no es un archivo protegido.',
      NEWER: 'Este archivo protegido se hizo con una versión más nueva que esta.',
      DAMAGED:
        'Este archivo protegido se cambió después de hacerse: se cortó, se alteró o lo volvió a ' +
        'guardar otro programa. Pídalo de nuevo.',
    },
    unreadable: 'Este archivo no se ha podido leer.',
    elsewhere:
      'Este archivo se lee en otro lugar, en <b>{host}</b>. Su primera página tiene el enlace. Sígalo solo si ' +
      'conoce ' +
      'ese sitio.',
    stays: 'El archivo se lee en este navegador y no se envía a ninguna parte.',
  },
  own: {
    take: 'Guardar el archivo y leerlo en este equipo',
    here: 'Leído en este equipo, desde el archivo {name}. El archivo no se envía a ninguna parte.',
    notHere: 'Este documento no se abre en su propio equipo; sus páginas vienen del servicio.',
    otherVersion:
      'El archivo elegido no es la versión actual de este documento; sus páginas vienen del servicio.',
    needsFile:
      'Este documento se cifró en el equipo de {sender} y no está en ningún otro ' +
      'lugar. Abra el archivo protegido que recibió.',
    wrongFile:
      'Este archivo no pudo abrirse aquí: contiene otro documento u otra versión, ' +
      'o fue alterado. Pídalo de nuevo a {sender}.',
    nowhere: 'Este documento no puede abrirse ahora en su propio equipo. Pregunte a {sender}.',
    notOpened:
      'Este archivo no pudo abrirse en este navegador. Inténtelo de nuevo o use otro navegador.',
    notAmong:
      'El archivo {name} no está entre estos: se envió a otra persona o contiene una versión anterior.',
    wrong: {
      ANOTHER_VERSION:
        'El archivo elegido no es la versión actual de este documento; sus páginas vienen del servicio.',
      DAMAGED: 'El archivo elegido fue alterado o cortado; las páginas vienen del servicio.',
      BAD_LICENCE:
        'El permiso para este equipo no pudo usarse; las páginas vienen del servicio. Abra el archivo de nuevo.',
      PDF_DAMAGED:
        'El archivo elegido no puede mostrarse en este equipo; las páginas vienen del servicio.',
      PDF_LOCKED:
        'El archivo elegido no puede mostrarse en este equipo; las páginas vienen del servicio.',
      PDF_TOO_DEMANDING:
        'El archivo elegido no puede mostrarse en este equipo; las páginas vienen del servicio.',
      FAILED: 'El archivo elegido no pudo abrirse en este equipo; las páginas vienen del servicio.',
    },
  },
  offline: {
    heading: 'Sin conexión',
    intro:
      'Los archivos que abrió en este equipo se pueden leer un tiempo sin conexión. Suelte aquí el archivo protegido.',
    list: 'Se pueden leer aquí sin conexión',
    until: 'hasta <end></end>',
    none: 'Ningún archivo se puede leer aquí sin conexión. Ábralo una vez con conexión.',
    noLicence: 'Este archivo necesita una conexión: ábralo primero con ella.',
    over: 'El tiempo para leer este archivo sin conexión ha terminado. Con conexión se abre de nuevo.',
    clockBack: 'El reloj de este equipo se atrasó; por eso este archivo necesita una conexión.',
    notKept:
      'Este navegador no tiene espacio para anotar lo que se lee; por eso el archivo no se abrió.',
    reading: 'Leído sin conexión, hasta <end></end>.',
    sees: '{sender} lo verá en cuanto haya conexión',
    commentNotKept: 'No se pudo guardar en este navegador. Cópielo para no perderlo.',
    told: 'Lo que lee se anota en este equipo y se comunica a {organisation} cuando haya conexión.',
    back: 'Volver a la lista',
    online: 'Vuelve a haber conexión.',
    goOn: 'Seguir con ella',
  },
  shared: {
    heading:
      '{sender}, de {organisation}, le ha enviado {count, plural, one {# documento} other {# documentos}}',
    hereAs: 'Está aquí como {address}.',
    hereAsBold: 'Está aquí como <b>{address}</b>.',
    pages: '{count, plural, =0 {sin páginas, solo para guardar} one {# página} other {# páginas}}',
    opensLeft: 'puede abrirlo {count, plural, one {una vez más} other {# veces más}}',
    printsLeft:
      '{count, plural, =0 {ya se hicieron todas las impresiones dadas} one {puede imprimirlo una vez más} ' +
      'other {puede imprimirlo # veces más}}',
    read: 'Leer',
    askForIt: 'Pedirlo',
    whole: 'Todo lo que se le ha enviado',
  },
  sent: {
    heading: 'Lo que se le ha enviado',
    by: 'por {organisation}',
    find: 'Buscar por título, referencia o remitente',
    none: 'Desde aquí no se ha enviado nada a {address}.',
    noneFound: 'Nada de lo que se le ha enviado contiene estas palabras.',
    from: 'De {sender}, <when></when>',
    open: '{count, plural, one {# documento que puede abrir} other {# documentos que puede abrir}}',
    closed: '{count, plural, one {# documento cerrado} other {# documentos cerrados}}',
    devices: 'Sus dispositivos',
    devicesIntro:
      'Navegadores en los que demostró esta dirección de correo. Termine los que no use o no conozca.',
    thisDevice: 'este',
    remembered: 'recordado, hasta el <end></end>',
    oneVisit: 'para una visita, hasta el <end></end>',
    since: 'desde el <when></when>',
    lastOpened: 'abrió algo por última vez el <when></when>',
    nameDevice: 'Nombre de este dispositivo',
    rename: 'Cambiar el nombre',
    save: 'Guardar',
    endDevice: 'Terminar',
    endDeviceNamed: 'Terminar {device}',
    renameNamed: 'Cambiar el nombre de {device}',
    ended:
      '{device} se ha terminado. Ya no abre nada hasta que allí se vuelva a demostrar la dirección de correo.',
    signOut: 'Salir en este dispositivo',
  },
  passkey: {
    continue: 'Continuar con una llave de acceso',
    about:
      'Una llave de acceso la guarda su dispositivo o su gestor de contraseñas, que le pide la ' +
      'huella, el rostro o el PIN.',
    enter: 'Usar una llave de acceso en lugar de un código',
    heading: 'Sus llaves de acceso',
    intro:
      'Una llave de acceso lo identifica sin código, y además de él donde el remitente pide ambos.',
    none: 'No tiene ninguna.',
    used: 'creada <when></when>, usada por última vez <used></used>',
    make: 'Crear una llave de acceso',
    another: 'Crear otra llave de acceso',
    remove: 'Quitar',
    removeNamed: 'Quitar la llave de acceso creada en {label}',
    removed: 'La llave de acceso se quitó. Ya no demuestra nada.',
    made: 'La llave de acceso se creó.',
    cancelled:
      'No se usó ninguna llave de acceso. Inténtelo otra vez, o demuestre su dirección de correo con un código.',
    unsupported: 'Este navegador no puede usar llaves de acceso. Use otro navegador o dispositivo.',
  },
  notice: {
    heading: 'Lea esto primero',
    intro: '{organisation} le pide que acepte esto antes de abrir lo que se le envió.',
    kept: 'Su aceptación se registra, con la hora, este texto y su idioma.',
    accept: 'Aceptar y abrir',
  },
  nothing: {
    heading: 'Aquí no hay nada.',
    cutOff: 'Puede que la dirección se haya cortado por el camino. Ábrala de nuevo, entera.',
  },
  refusal: {
    opensAgain: 'Se abrirá de nuevo <when></when>.',
    notOpened: 'No abierto',
    writeTo: 'Escribir a {name}',
    mailSubject: 'Sobre el documento que me envió',
    mailAbout: 'Sobre {title} ({reference})',
    back: 'Volver a la lista',
    proveAgain: 'Demostrar de nuevo su dirección de correo',
  },
  reasons: {
    'identity-not-proven': {
      title: 'Su dirección de correo no está demostrada en este navegador.',
      next: 'Demuéstrela con un código, y podrá seguir leyendo.',
    },
    'not-addressed': {
      title: 'Esto no se envió a esta dirección de correo.',
      next:
        'Si tiene otra dirección de correo, use aquella a la que se envió. Si no, pregunte a la persona que le ' +
        'dio el ' +
        'enlace.',
    },
    'recipient-blocked': {
      title: 'El acceso de esta dirección de correo se ha bloqueado.',
      next: 'Escriba a quien lo envió si cree que es un error.',
    },
    'document-revoked': {
      title: 'Quien lo envió ha retirado este documento.',
      next: 'De momento nadie puede abrirlo. Escriba a quien lo envió si aún lo necesita.',
    },
    'not-yet': {
      title: 'Este documento aún no está abierto.',
      next: 'Podrá abrirlo más tarde, con el mismo enlace.',
    },
    expired: {
      title: 'Su acceso a este documento ha terminado.',
      next: 'Escriba a quien lo envió si necesita más tiempo.',
    },
    revoked: {
      title: 'Quien lo envió ha terminado su acceso a este documento.',
      next: 'Escríbale si cree que es un error.',
    },
    'key-destroyed': {
      title: 'Este documento se ha destruido.',
      next: 'Ya nadie puede abrirlo.',
    },
    'prove-again': {
      title: 'Su dirección de correo se tiene que demostrar de nuevo.',
      next: 'Quien lo envió lo pide de vez en cuando. Demuéstrela con un código, y podrá seguir leyendo.',
    },
    'passkey-needed': {
      title: 'Este documento pide además su llave de acceso.',
      next:
        'Su dirección de correo está demostrada. Use su llave de acceso, o cree una ahora si no ' +
        'tiene ninguna, y podrá leer.',
    },
    'device-not-accepted': {
      title: 'Este documento solo se abre en un dispositivo recordado.',
      next:
        'Este dispositivo vale solo para una visita. Use su propio dispositivo, o demuestre de nuevo su ' +
        'dirección de ' +
        'correo y haga recordar este.',
    },
    'too-many-devices': {
      title: 'Ha abierto esto en tantos dispositivos como puede.',
      next: 'Use uno de ellos, o escriba a quien lo envió.',
    },
    'network-not-allowed': {
      title: 'Este documento no se abre desde esta red.',
      next: 'Use la red acordada, por ejemplo en su oficina, o escriba a quien lo envió.',
    },
    'place-not-allowed': {
      title: 'Este documento no se abre desde donde usted parece estar.',
      next: 'Los lugares se estiman por su dirección IP y pueden ser falsos. Escriba a quien lo envió si este lo es.',
    },
    'hours-not-allowed': {
      title: 'Este documento está cerrado a esta hora.',
      next: 'Ábralo de nuevo en las horas acordadas, con el mismo enlace.',
    },
    'opens-used-up': {
      title: 'Ha abierto esto tantas veces como puede.',
      next: 'Escriba a quien lo envió si lo necesita una vez más.',
    },
    'condition-unknown': {
      title: 'Este documento no se puede abrir de momento.',
      next: 'Tiene una condición que aquí no se entiende. Escriba a quien lo envió.',
    },
    'read-not-allowed': {
      title: 'La organización de quien lo envió no permite de momento leer este documento.',
      next: 'Escriba a quien lo envió.',
    },
  },
  withheld: {
    heading: 'No permitido',
    ask: 'Pedir',
    askTo: 'Pedir {verb}',
    asked: 'pedido',
    right: {
      'not-given': '{sender} no le ha permitido {verb}.',
      'prints-used-up': 'Agotado: {verb}. Ya se hicieron todas las copias dadas.',
      'needs-unlimited-print': 'No es posible mientras las impresiones estén limitadas: {verb}.',
      'needs-keep': 'No es posible mientras no se pueda guardar una copia: {verb}.',
      'above-ceiling': 'La organización de quien lo envió no permite {verb}.',
    },
    now: {
      'not-given': 'Esto no se le ha permitido.',
      'prints-used-up': 'Esto está agotado: ya se hicieron todas las copias dadas.',
      'needs-unlimited-print': 'Esto no es posible mientras las impresiones estén limitadas.',
      'needs-keep': 'Esto no es posible mientras no se pueda guardar una copia.',
      'above-ceiling': 'La organización de quien lo envió no lo permite.',
    },
  },
  ask: {
    label: 'Lo que ha pedido',
    begin: 'Pedir más, o escribir',
    until: 'Tiempo hasta',
    untilNone: 'Solo si necesita más tiempo',
    reason: 'Motivo o mensaje',
    send: 'Enviar a {sender}',
    message: 'Ha escrito',
    time: 'Ha pedido más tiempo',
    timeUntil: 'Ha pedido más tiempo, hasta el <end></end>',
    right: 'Ha pedido {verb}',
    rightUntil: 'Ha pedido {verb} hasta el <end></end>',
    asks: '{sender} pregunta: «{text}»',
    replied: 'Ha respondido: «{text}»',
    answered: '«{text}»',
    yourReply: 'Su respuesta',
    reply: 'Responder a {sender}',
    states: {
      waiting: 'a la espera de respuesta',
      'asked-back': 'a la espera de su respuesta',
      given: 'dado',
      'given-in-part': 'dado en parte',
      declined: 'rechazado',
      answered: 'respondido',
    },
  },
  passOn: {
    heading: 'Compartir',
    left:
      'Puede compartir esto con {left, plural, one {# persona} other {# personas}}. No reciben más de lo que usted ' +
      'tiene, y termina cuando termina lo suyo. {sender} puede ver con quién lo compartió.',
    leftMore:
      'Puede compartir esto con {left, plural, one {# persona más} other {# personas más}}. No reciben más de ' +
      'lo que ' +
      'usted tiene, y termina cuando termina lo suyo. {sender} puede ver con quién lo compartió.',
    leftAt:
      'Puede compartir esto con {left, plural, one {# persona} other {# personas}} de {domains}. No reciben ' +
      'más de lo ' +
      'que usted tiene, y termina cuando termina lo suyo. {sender} puede ver con quién lo compartió.',
    leftMoreAt:
      'Puede compartir esto con {left, plural, one {# persona más} other {# personas más}} de {domains}. No reciben ' +
      'más de lo que usted tiene, y termina cuando termina lo suyo. {sender} puede ver con quién lo compartió.',
    revoked: 'revocado',
    begin: 'Compartir…',
    address: 'Su dirección de correo',
    note: 'Mensaje',
    send: 'Compartir',
  },
  print: {
    heading: 'Imprimir',
    headingLeft: 'Imprimir · {count, plural, one {# copia más} other {# copias más}}',
    from: 'Desde la página',
    to: 'Hasta la página',
    make: 'Hacer una copia marcada',
    saved: 'Se ha guardado una copia marcada. Imprímala desde allí.',
  },
  take: {
    being: 'Preparando…',
    failedHere:
      'No se pudo hacer la copia en este equipo. Quien lo envió puede devolverle una impresión.',
    keep: 'Guardar una copia',
    keptMarked: 'Se ha guardado en este dispositivo una copia con la marca de agua.',
    keptPlain:
      'Se ha guardado en este dispositivo una copia tal como vino el archivo, sin marca de agua.',
  },
  reading: {
    from: 'de {sender}, {organisation} · está aquí como {address}',
    mayDo: 'Qué puede hacer',
    backToPages: 'Volver a las páginas',
    aids: '{sender} activó ayudas de lectura para usted: un lector de pantalla puede leer las páginas.',
    announced:
      '{sender} pidió que las páginas se cubran mientras haya otra ventana delante, y un momento después de ' +
      'una tecla ' +
      'que fotografía la pantalla.',
    covered:
      'Cubierto mientras haya otra ventana delante. {sender} lo pidió. Vuelva a esta ventana para continuar.',
    notForPaper:
      'Esta página no es para papel. Elija «Hacer una copia marcada» junto al documento, e imprima esa.',
    notToPrint: 'Este documento se puede leer aquí, y no se dio para imprimir.',
    keys: 'Teclas',
    notShown: 'Los archivos de este tipo no se pueden mostrar como páginas.',
    notShownKeep: 'Guarde una copia, y ábrala con el programa para el que se hizo.',
    notShownAsk: '{sender} no permitió guardarlo. Pídalo aquí, o escríbale.',
  },
  revise: {
    heading: 'Archivos modificados',
    sent: '<when></when>, {state}',
    states: {
      waiting: 'espera una respuesta',
      accepted: 'aceptado: es el que se abre ahora',
      declined: 'no adoptado',
    },
    changeText: 'Modificar el texto aquí',
    file: 'El archivo modificado',
    what: 'Qué ha modificado',
    being: 'Enviando…',
    send: 'Devolver un archivo modificado…',
    compared:
      '{sender} lo compara con el documento, y lo acepta o lo rechaza. Antes no lo abre nadie más.',
    comparedText: '{sender} lo compara con el documento, y lo acepta o lo rechaza.',
    tooLarge: 'Este archivo supera los 96 MiB, lo máximo que se puede devolver aquí.',
    textTooLarge:
      'Este texto supera los 2 MiB. Guarde una copia, y devuelva el archivo modificado.',
    text: 'El texto',
    textChanged: 'El texto que modifica',
    sendText: 'Enviar el cambio',
    discard: 'Descartar el cambio',
    unsent: 'El texto como usted lo modificó',
    unsentHint: 'No se envió. Cópielo de aquí.',
  },
  pages: {
    label: 'Páginas',
    page: 'Página {page}',
    contents: 'Contenido',
    inDocument: 'En este documento',
    outline: 'Esquema',
    found: 'Encontrado',
    smaller: 'Más pequeño',
    larger: 'Más grande',
    smallerKey: 'Más pequeño (−)',
    largerKey: 'Más grande (+)',
    oneKey: 'Una página cada vez (S)',
    one: 'Una página',
    words: 'Solo texto',
    largerText: 'Texto más grande',
    smallerText: 'Texto más pequeño',
    noText: 'Esta página no tiene texto.',
    turnLong: 'Girar a la derecha',
    turnKey: 'Girar a la derecha (R)',
    turn: 'Girar',
    fullScreen: 'Pantalla completa',
    fullScreenKey: 'Pantalla completa (F)',
    before: 'Página anterior',
    after: 'Página siguiente',
    pageField: 'Página',
    ofPages: 'de {pages}',
    zoom: 'Ampliación, {percent} %',
    fitWidth: 'Ajustar al ancho',
    fitPage: 'Ajustar a la página',
    findWords: 'Buscar palabras',
    at: '{at} de {count}',
    placeBefore: 'Lugar anterior',
    placeAfter: 'Lugar siguiente',
    twoLetters: 'Dos letras al menos.',
    nothing: 'Nada encontrado',
    places: '{count, plural, one {# lugar} other {# lugares}}',
    soFar: '{found} hasta ahora; página {page} de {pages}',
    whole: 'Se encuentran palabras enteras, y se muestran en la página.',
    outlineIsText: 'El esquema es texto del documento, y viene con el permiso de copiar.',
    looking: 'Buscando…',
    noOutline: 'Este documento no tiene esquema.',
    keys: {
      zoom: 'más grande, más pequeño',
      width: 'ajustar al ancho',
      page: 'ajustar a la página',
      turn: 'girar a la derecha',
      single: 'una página cada vez, o todas',
      full: 'pantalla completa',
      find: 'buscar palabras',
      place: 'el lugar siguiente, el anterior',
      pages: 'una página atrás o adelante',
    },
  },
  comments: {
    heading: 'Comentarios',
    place: 'Comentar una página',
    placing: 'Haga clic en una página, o arrastre sobre una zona',
    onPage: 'Comentario sobre la página {page}',
    sees: '{sender} lo ve',
    save: 'Guardar el comentario',
    discard: 'Descartar',
    unsaved: 'Lo que escribía sobre la página {page}',
    unsavedHint: 'No se guardó. Cópielo de aquí.',
    unsent: 'Lo que escribió sobre la página {page} sin conexión',
    unsentHint: 'No se pudo poner junto al documento. Cópielo de aquí.',
    numbered: 'Comentario {number}',
    numberedResolved: 'Comentario {number}, resuelto',
    new: 'Nuevo',
    resolved: 'resuelto',
    reopen: 'Reabrir',
    resolve: 'Resolver',
    you: 'Usted',
    whoSent: '{name}, que lo envió',
    changed: 'modificado',
    remove: 'Quitar',
    unreadable: 'Ya no se puede leer: la clave está destruida.',
    answer: 'Responder',
    saveAnswer: 'Guardar la respuesta',
    hideResolved: 'Ocultar los resueltos',
    showResolved: 'Mostrar {count} resueltos',
  },
  moment: {
    day: 'día',
    month: 'mes',
    year: 'año',
    hours: 'hh',
    minutes: 'min',
    set: 'Aplicar',
    half: 'Día, mes, año y hora, o nada',
  },
  problems: {
    unreachable:
      'No se puede llegar al servidor. Compruebe su conexión; esta página sigue por sí misma.',
    unreadable: 'La respuesta del servidor no se pudo leer. Inténtelo de nuevo.',
    broken: 'Algo falló en esta página. Vuelva a cargarla e inténtelo de nuevo.',
  },
};
