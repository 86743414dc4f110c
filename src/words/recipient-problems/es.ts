import type { RecipientProblemMessages } from '@/words/recipient-problems/recipient-problems';

export const es: RecipientProblemMessages = {
  problems: {
    'request-too-large': 'Esta petición es demasiado grande.',
    'request-unreadable': 'Esta petición no se ha podido leer.',
    'wrong-origin': 'Esta petición no vino de las páginas de Embargo, así que no se llevó a cabo.',
    'signed-out': 'Demuestre de nuevo su dirección de correo en este navegador.',
    'address-unproven': 'Demuestre de nuevo su dirección de correo en este navegador.',
    'act-key-used': 'Esta clave se usó para otra petición.',
    'done-before': 'Esto ya está hecho. Vuelva a cargar la página para verlo.',
    'not-sent-here':
      'Esto no se envió a esta dirección de correo, así que aquí no hay a quién pedirlo.',
    'asked-time-past': 'El tiempo que pide ya ha pasado.',
    'right-held': 'Ya puede hacerlo.',
    'nothing-to-reply': 'Su respuesta no se envió, porque nadie la espera: ya está contestado.',
    'asked-before': 'Ya lo ha pedido. La respuesta está por llegar.',
    'requests-waiting': 'Varias de sus peticiones esperan. Deje que primero se respondan esas.',
    'device-key-unusable':
      'Este navegador no creó una clave útil. Vuelva a cargar la página e inténtelo de nuevo.',
    'notice-due': 'Antes de abrir esto hay que aceptar un aviso.',
    'notice-changed':
      'Entretanto se cambió el texto del aviso. Vuelva a cargar la página para leerlo.',
    'passkey-refused':
      'Esta llave de acceso no se aceptó. Inténtelo otra vez, o demuestre su dirección de correo con un código.',
    'passkey-needs-proof':
      'Demuestre una vez más su dirección de correo con un código antes de crear su primera llave de acceso.',
    'passkey-first': 'Use primero una de sus llaves de acceso en este dispositivo.',
    'passkey-unknown': 'Esta llave de acceso no es una de las suyas, o ya se quitó.',
    'device-unknown': 'Este dispositivo no es uno de los suyos, o ya se terminó.',
    'document-gone': 'Este documento ya no está aquí.',
    'link-unknown':
      'Este enlace no funciona. Copie el enlace entero del mensaje y ábralo de nuevo.',
    'open-it-first': 'Ábralo usted una vez antes de compartirlo.',
    'given-already': 'Esa persona ya lo tiene. No se cambió nada.',
    'content-elsewhere':
      'Este documento se cifró en el equipo del remitente: solo se lee desde su ' +
      'archivo protegido. Abra el archivo que recibió.',
    'not-on-own-machine': 'Este documento no se abre en su propio equipo. Lea sus páginas aquí.',
    'file-of-another-version':
      'Este archivo contiene una versión anterior del documento. Lea aquí la actual o pida su archivo al remitente.',
    'not-open-here': 'Este documento no está abierto aquí. Ábralo de nuevo desde su enlace.',
    'revision-too-large':
      'Este archivo supera los 96 MiB, lo máximo que se puede devolver aquí. Escriba a quien lo envió.',
    'file-cut-off': 'El archivo no llegó entero. No se guardó nada. Envíelo de nuevo.',
    'revisions-waiting':
      'Cinco archivos suyos esperan respuesta. Escriba a quien lo envió antes de enviar otro.',
    'ended-meanwhile': 'El acceso terminó mientras esto se preparaba.',
    'no-comment': 'Este comentario ya no está.',
    'comments-full': 'En este documento no caben más comentarios. Escriba a quien lo envió.',
    'no-such-pages': 'Este documento no tiene esas páginas.',
    'reason-needed': 'Aquí hace falta un motivo. No se cambió nada.',
    'rows-not-ours': 'Esto no se puede mostrar de momento. Escriba a quien lo envió.',
    'link-ended': 'Este enlace ya no se puede abrir. Pregunte a la persona que se lo dio.',
    'ask-in-vain': {
      revoked: 'Quien lo envió ha terminado su acceso. Todavía puede escribirle.',
      'document-revoked': 'Quien lo envió ha retirado este documento. Todavía puede escribirle.',
      'key-destroyed': 'Este documento se ha destruido. Todavía puede escribir a quien lo envió.',
      'recipient-blocked':
        'El acceso de esta dirección de correo se ha bloqueado. Todavía puede escribir a quien lo envió.',
      'condition-unknown':
        'Este documento no se puede abrir de momento. Todavía puede escribir a quien lo envió.',
      other: 'Esto no se puede abrir. Todavía puede escribir a quien lo envió.',
    },
    'too-many-tries': 'Demasiados intentos. Espere {minutes} min e inténtelo de nuevo.',
    'pass-on-refused': {
      'not-given': 'Usted no puede compartir esto.',
      'too-many': 'Ya lo ha compartido con tantas personas como puede.',
      'not-listed':
        'Solo puede compartirlo con personas de ciertas organizaciones, y esta dirección de correo no es de ninguna.',
      'more-rights': 'No puede compartir más de lo que usted mismo puede.',
      longer: 'No puede compartirlo por más tiempo del que usted lo tiene.',
      themselves: 'Es usted.',
    },
    'code-wrong': {
      left: 'Ese no es el código. Le quedan {left, plural, one {# intento} other {# intentos}}.',
      none: 'Este código ya no sirve, o se pidió en otro navegador. Pida uno nuevo.',
    },
  },
  content: {
    EMPTY_FILE: 'Este archivo está vacío.',
    NOT_A_PDF: 'Este archivo no es un PDF.',
    NOT_OF_ITS_NAME: 'Lo que contiene este archivo no es lo que dice su nombre.',
    FILE_DAMAGED: 'Este archivo está dañado y no se puede abrir.',
    FILE_LOCKED:
      'Este archivo pide una contraseña, o es de un tipo antiguo. Guárdelo sin ella y elíjalo de nuevo.',
    FILE_TOO_LONG: 'Este archivo es demasiado largo para mostrarse.',
    FILE_UNPACKS_TOO_FAR:
      'Este archivo se descomprime en mucho más de lo que contiene, así que no se aceptó.',
    FILE_TOO_DEMANDING: 'Mostrar este archivo lleva demasiado tiempo o memoria, así que se detuvo.',
    PICTURE_TOO_LARGE:
      'Esta imagen tiene más de 200 millones de píxeles. Redúzcala y elíjala de nuevo.',
    PROTECTED_ALREADY: 'Este archivo ya está protegido. Use el documento que contiene.',
    PDF_DAMAGED: 'Este PDF está dañado y no se puede abrir.',
    PDF_LOCKED: 'Este PDF pide una contraseña. Guárdelo sin ella y elíjalo de nuevo.',
    PDF_TOO_DEMANDING: 'Dibujar este PDF lleva demasiado tiempo o memoria, así que se detuvo.',
    PDF_TOO_MANY_PAGES: 'Este PDF tiene más de 20 000 páginas.',
    PDF_UNPACKS_TOO_FAR:
      'Este PDF se descomprime en mucho más de lo que contiene, así que no se aceptó.',
    CONTENT_DAMAGED:
      'El contenido guardado de este documento está dañado. Quien lo envió puede enviarlo de nuevo.',
    NO_SUCH_PAGE: 'Este documento no tiene esa página.',
  },
  other: {
    check: 'Revise lo que ha escrito.',
    address: 'Esto no es una dirección de correo.',
    code: 'El código tiene seis cifras.',
    noRoom:
      'Esto no se puede mostrar de momento: al servidor no le queda espacio. Inténtelo más tarde, o escriba a ' +
      'quien lo envió.',
    harmed:
      'Esto no se puede mostrar de momento: algo está dañado en el servidor. Escriba a quien lo envió.',
    failed: 'Algo falló por nuestra parte. No se cambió nada.',
  },
};
