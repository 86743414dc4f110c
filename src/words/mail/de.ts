import type { MailMessages } from '@/words/mail/mail-words';

export const de: MailMessages = {
  sent: {
    intro:
      '{sender} von {organisation} hat Ihnen {count, plural, one {ein geschütztes Dokument} ' +
      'other {geschützte Dokumente}} gesendet:',
    introClear:
      '{sender} von {organisation} hat Ihnen {count, plural, one {ein Dokument} other {Dokumente}} gesendet:',
    titleUntil: '{title}, bis {end}',
    titleNoEnd: '{title}, ohne Ende',
    toRead:
      'Zum Lesen öffnen Sie diesen Link und weisen Sie nach, dass {address} Ihre E-Mail-Adresse ist. Sie erhalten ' +
      'einen sechsstelligen Code per E-Mail; Sie brauchen kein Konto und müssen nichts installieren.',
    attached:
      '{count, plural, one {Es ist verschlüsselt als PDF angehängt, dessen erste Seite sagt, wie man es öffnet} ' +
      'other {Sie sind verschlüsselt als PDF angehängt, deren erste Seite sagt, wie man sie öffnet}}: Folgen Sie dem ' +
      'Link dort oder richten Sie ein Telefon auf den Code und weisen Sie nach, dass {address} Ihre E-Mail-Adresse ' +
      'ist. Sie erhalten einen sechsstelligen Code per E-Mail; Sie brauchen kein Konto und müssen nichts installieren.',
    attachedAsWell:
      '{count, plural, one {Es ist auch verschlüsselt als PDF angehängt} ' +
      'other {Sie sind auch verschlüsselt als PDF angehängt}}; die erste Seite führt zur selben Stelle.',
    attachedClear: '{count, plural, one {Es ist angehängt.} other {Sie sind angehängt.}}',
    from: 'Sie können {count, plural, one {es} other {sie}} ab {from} öffnen.',
    until: 'Sie können {count, plural, one {es} other {sie}} bis {until} öffnen.',
    fromUntil: 'Sie können {count, plural, one {es} other {sie}} ab {from} bis {until} öffnen.',
    onlyYou: 'Dies ist nur für Sie: Wer es sonst öffnet, muss dieselbe E-Mail-Adresse nachweisen.',
    may: 'Sie dürfen damit: {verbs}.',
    genuine: 'Der Link führt zu {host}. Dort fragt Sie niemand nach einem Passwort.',
    open: '{count, plural, one {Dokument öffnen} other {Dokumente öffnen}}',
    unexpected:
      'Falls Sie dies nicht erwartet haben, fragen Sie die absendende Person auf einem Weg, den Sie schon kennen.',
    passedOn: 'Weitergegeben: {subject}',
    hiddenTitle: 'Dokument {reference}',
  },
  ends: { none: 'auf Weiteres', several: 'zu den jeweils genannten Zeiten' },
  code: {
    subject: '{code} ist Ihr Code',
    code: 'Ihr Code ist {code}',
    enter:
      'Geben Sie ihn innerhalb von {minutes} Minuten auf der Seite ein, die danach gefragt hat. Er gilt nur dort.',
    asked:
      'Er wurde am {when} angefordert, von {place}. Falls Sie das nicht waren, tun Sie nichts: Ohne den Code kommt ' +
      'niemand weiter. Niemand wird Sie je danach fragen.',
    near: '{network}, bei {place}',
  },
  question: {
    subject: 'Eine Rückfrage zu Ihrer Anfrage zu „{title}“',
    asks: '{sender} hat eine Frage, bevor Ihre Anfrage zu „{title}“ beantwortet wird:',
    reply: 'Antworten Sie dort, wo Sie gefragt haben, über denselben Link wie zuvor:',
  },
  revision: {
    subject: 'Ihre geänderte Datei zu „{title}“',
    accepted:
      '{sender} hat Ihre geänderte Datei angenommen. Ab jetzt öffnet sie sich bei allen, die „{title}“ haben.',
    declined:
      '{sender} übernimmt Ihre geänderte Datei zu „{title}“ nicht. Das Dokument bleibt, wie es war.',
  },
  version: {
    subject: '„{title}“ wurde durch eine neue Fassung ersetzt',
    replaced:
      '{sender} hat „{title}“ durch eine neue Fassung ersetzt. Ihre Rechte und der Link bleiben gleich:',
  },
  answer: {
    subject: 'Ihre Anfrage zu „{title}“',
    given: '{sender} hat Ihnen gegeben, worum Sie gebeten haben, für „{title}“.',
    givenInPart:
      '{sender} hat Ihnen einen Teil dessen gegeben, worum Sie gebeten haben, für „{title}“.',
    declined: '{sender} hat abgelehnt, worum Sie gebeten haben, für „{title}“.',
    answered: '{sender} hat Ihre Nachricht zu „{title}“ beantwortet.',
    valid: 'Es gilt bis {until}.',
    sameLink: 'Verwenden Sie denselben Link wie zuvor:',
  },
  ending: {
    subject:
      '{count, plural, one {Ihr Zugang zu „{title}“ endet bald} other {Ihr Zugang zu einigen Dokumenten endet bald}}',
    intro: '{sender} von {organisation} hat Ihnen gesendet, was bald endet:',
    each: '„{title}“, bis {until}',
    more: 'Öffnen Sie es hier, oder bitten Sie hier um mehr Zeit:',
  },
};
