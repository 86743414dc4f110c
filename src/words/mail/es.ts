import type { MailMessages } from '@/words/mail/mail-words';

export const es: MailMessages = {
  sent: {
    intro:
      '{sender}, de {organisation}, le ha enviado {count, plural, one {un documento protegido} ' +
      'other {documentos protegidos}}:',
    introClear:
      '{sender}, de {organisation}, le ha enviado {count, plural, one {un documento} other {documentos}}:',
    titleUntil: '{title}, hasta el {end}',
    titleNoEnd: '{title}, sin fecha de fin',
    toRead:
      'Para leer, abra este enlace y demuestre que {address} es su dirección de correo. Recibirá un código de seis ' +
      'cifras por correo; no necesita cuenta ni instalar nada.',
    attached:
      '{count, plural, one {Va adjunto, cifrado, como un PDF cuya primera página dice cómo abrirlo} ' +
      'other {Van adjuntos, cifrados, como PDF cuya primera página dice cómo abrir cada uno}}: siga su enlace, o ' +
      'apunte un teléfono a su código, y demuestre que {address} es su dirección de ' +
      'correo. Recibirá un código de seis ' +
      'cifras por correo; no necesita cuenta ni instalar nada.',
    attachedAsWell:
      '{count, plural, one {También va adjunto, cifrado, como PDF} ' +
      'other {También van adjuntos, cifrados, como PDF}}; la primera página lleva al mismo lugar.',
    attachedClear: '{count, plural, one {Va adjunto.} other {Van adjuntos.}}',
    from: 'Puede {count, plural, one {abrirlo} other {abrirlos}} a partir del {from}.',
    until: 'Puede {count, plural, one {abrirlo} other {abrirlos}} hasta el {until}.',
    fromUntil:
      'Puede {count, plural, one {abrirlo} other {abrirlos}} desde el {from} hasta el {until}.',
    onlyYou:
      'Esto es solo para usted: cualquier otra persona que lo abra tiene que demostrar esta misma dirección de correo.',
    may: 'Puede {verbs}.',
    genuine: 'El enlace lleva a {host}. Allí nadie le pedirá una contraseña.',
    open: '{count, plural, one {Abrir el documento} other {Abrir los documentos}}',
    unexpected: 'Si no lo esperaba, pregunte a quien lo envía por una vía que ya conozca.',
    passedOn: 'Compartido: {subject}',
    hiddenTitle: 'Documento {reference}',
  },
  ends: { none: 'nuevo aviso', several: 'las fechas indicadas para cada uno' },
  code: {
    subject: '{code} es su código',
    code: 'Su código es {code}',
    enter:
      'Escríbalo en la página que lo pidió, en un plazo de {minutes} minutos. Solo sirve allí.',
    asked:
      'Se pidió el {when}, desde {place}. Si no fue usted, no haga nada: sin el código ' +
      'nadie puede continuar. Nadie se ' +
      'lo pedirá nunca.',
    near: '{network}, cerca de {place}',
  },
  question: {
    subject: 'Una pregunta sobre su solicitud de «{title}»',
    asks: '{sender} tiene una pregunta antes de responder a lo que pidió sobre «{title}»:',
    reply: 'Responda donde lo pidió, con el mismo enlace de antes:',
  },
  revision: {
    subject: 'Su archivo modificado de «{title}»',
    accepted:
      '{sender} ha aceptado su archivo modificado. Desde ahora se abre para todos los que tienen «{title}».',
    declined:
      '{sender} no incorpora su archivo modificado de «{title}». El documento queda como estaba.',
  },
  version: {
    subject: '«{title}» se ha sustituido por una versión nueva',
    replaced:
      '{sender} ha sustituido «{title}» por una versión nueva. Sus permisos no cambian, ni el enlace:',
  },
  answer: {
    subject: 'Su solicitud sobre «{title}»',
    given: '{sender} le ha concedido lo que pidió, para «{title}».',
    givenInPart: '{sender} le ha concedido parte de lo que pidió, para «{title}».',
    declined: '{sender} ha rechazado lo que pidió, para «{title}».',
    answered: '{sender} ha respondido a su mensaje sobre «{title}».',
    valid: 'Es válido hasta el {until}.',
    sameLink: 'Use el mismo enlace de antes:',
  },
  ending: {
    subject:
      '{count, plural, one {Su acceso a «{title}» termina pronto} ' +
      'other {Su acceso a algunos documentos termina pronto}}',
    intro: '{sender}, de {organisation}, le envió lo que termina pronto:',
    each: '«{title}», hasta el {until}',
    more: 'Ábralo, o pida más tiempo, aquí:',
  },
};
