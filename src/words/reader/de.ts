import type { ReaderMessages } from '@/words/reader/reader-messages';

export const de: ReaderMessages = {
  language: 'Sprache',
  opening: 'Wird geöffnet …',
  tryAgain: 'Noch einmal versuchen',
  cancel: 'Abbrechen',
  close: 'Schließen',
  theSender: 'die absendende Person',
  rights: {
    names: {
      read: 'Lesen',
      comment: 'Kommentieren',
      copy: 'Text kopieren',
      print: 'Drucken',
      revise: 'Ändern',
      keep: 'Kopie behalten',
      'pass-on': 'Weitergeben',
    },
    verbs: {
      read: 'lesen',
      comment: 'kommentieren',
      copy: 'Text kopieren',
      print: 'drucken',
      revise: 'eine geänderte Datei zurücksenden',
      keep: 'eine Kopie behalten',
      'pass-on': 'es weitergeben',
    },
    to: 'Erlaubnis: {verb}',
    may: 'Sie dürfen {verbs}, ohne Ende',
    mayUntil: 'Sie dürfen bis <end></end>: {verbs}',
    mayUntilIn: 'Sie dürfen bis <end></end>, {distance}: {verbs}',
  },
  prove: {
    heading: 'Ihnen wurde ein geschütztes Dokument gesendet.',
    headingAll: 'Sehen Sie, was Ihnen gesendet wurde.',
    intro:
      'Geben Sie die E-Mail-Adresse ein, an die die Nachricht ging. Sie erhalten einen sechsstelligen Code per ' +
      'E-Mail; Sie brauchen kein Konto.',
    introAll:
      'Geben Sie Ihre E-Mail-Adresse ein. Wurde von hier etwas an sie gesendet, erhalten Sie einen sechsstelligen ' +
      'Code per E-Mail.',
    address: 'Ihre E-Mail-Adresse',
    send: 'Code per E-Mail senden',
    codeHeading: 'Geben Sie den Code ein',
    codeSent:
      'Ein Code ist unterwegs an <b>{address}</b>. Er gilt {minutes} Minuten, in diesem Browser.',
    codeSentAll:
      'Wurde von hier etwas an <b>{address}</b> gesendet, ist ein Code unterwegs. Er gilt {minutes} Minuten, in ' +
      'diesem Browser.',
    code: 'Code',
    device: 'Dieses Gerät',
    visit: 'Nur für diesen Besuch: ein geliehener oder gemeinsamer Rechner',
    keep: 'Dieses Gerät merken: Es ist meines; in 60 Tagen wieder fragen',
    continue: 'Weiter',
    other: 'Andere E-Mail-Adresse verwenden',
    noCode:
      'Nach einer Minute noch kein Code? Sehen Sie im Ordner für unerwünschte Nachrichten nach oder lassen Sie sich ' +
      'einen neuen senden.',
    again: 'Neuen Code senden',
    againIn: 'Ein neuer Code kann in {seconds} s gesendet werden',
    sentAgain: 'Ein neuer Code ist unterwegs. Nur der neueste gilt.',
    fileInstead: 'Wurde Ihnen eine Datei gesendet? <link>Geschützte Datei öffnen</link>',
    everything: 'Alles, was Ihnen gesendet wurde',
  },
  visit: {
    heading: 'Wer diesen Link hat, kann lesen, was hier liegt.',
    notAsked: 'Sie werden nicht gefragt, wer Sie sind.',
    read: 'Lesen',
  },
  recorded: {
    heading: 'Was aufgezeichnet wird',
    you:
      'Über Sie wird aufgezeichnet: Ihre E-Mail-Adresse; wann Sie was öffnen und von welcher IP-Adresse, der Ort, ' +
      'auf den diese schließen lässt, dieser Browser, was verweigert wurde, die gezeigten Seiten und Texte, was Sie ' +
      'kopieren, drucken, behalten und weitergeben, die Passkeys, die Sie anlegen und nutzen, und was Sie der ' +
      'absendenden Person schreiben.',
    visitor:
      'Über Sie wird aufgezeichnet: wann Sie was öffnen und von welcher IP-Adresse, der Ort, auf den diese ' +
      'schließen ' +
      'lässt, dieser Browser, was verweigert wurde, die gezeigten Seiten und Texte, was Sie kopieren, drucken, ' +
      'behalten und weitergeben und was Sie der absendenden Person schreiben.',
    stays:
      'Die Aufzeichnung bleibt bei der Organisation, die gesendet hat. Endet ein Zugriff, wird nichts gelöscht: ' +
      'nicht das Dokument, nicht was Sie schrieben, nicht die Aufzeichnung.',
  },
  file: {
    heading: 'Geschützte Datei öffnen',
    intro:
      'Legen Sie die Datei hier ab, die Ihnen gesendet wurde. Sie weisen dann Ihre E-Mail-Adresse nach und ' +
      'lesen sie ' +
      'hier.',
    drop: 'Geschützte Datei hier ablegen',
    choose: 'Datei wählen',
    onlyInside:
      'Dies ist nur der verschlüsselte Teil. Legen Sie das PDF ab, in dem er kam, oder nutzen Sie den Link in der ' +
      'Nachricht.',
    noLink: 'Diese Datei hat keinen Link, dem man folgen kann.',
    wrong: {
      NOT_PROTECTED: 'Dies ist keine geschützte Datei.',
      NEWER: 'Diese geschützte Datei wurde mit einer neueren Version als dieser erstellt.',
      DAMAGED:
        'Diese geschützte Datei wurde nach ihrer Erstellung verändert: abgeschnitten, geändert oder ' +
        'von einem anderen Programm neu gespeichert. Bitten Sie noch einmal darum.',
    },
    unreadable: 'Diese Datei konnte nicht gelesen werden.',
    elsewhere:
      'Diese Datei wird anderswo gelesen, unter <b>{host}</b>. Der Link steht auf ihrer ersten Seite. Folgen ' +
      'Sie ihm ' +
      'nur, wenn Sie diese Seite kennen.',
    stays: 'Die Datei wird in diesem Browser gelesen und nirgendwohin gesendet.',
  },
  own: {
    take: 'Datei speichern und auf diesem Gerät lesen',
    here: 'Auf diesem Gerät gelesen, aus der Datei {name}. Die Datei wird nirgendwohin gesendet.',
    notHere:
      'Dieses Dokument lässt sich nicht auf Ihrem eigenen Gerät öffnen; seine Seiten kommen vom Dienst.',
    otherVersion:
      'Die gewählte Datei ist nicht die aktuelle Fassung dieses Dokuments; seine Seiten kommen vom Dienst.',
    needsFile:
      'Dieses Dokument wurde auf dem Gerät von {sender} verschlüsselt und liegt ' +
      'sonst nirgends. Öffnen Sie die geschützte Datei, die Sie erhalten haben.',
    wrongFile:
      'Diese Datei ließ sich hier nicht öffnen: Sie enthält ein anderes Dokument ' +
      'oder eine andere Fassung, oder sie wurde verändert. Bitten Sie {sender} noch einmal darum.',
    nowhere:
      'Dieses Dokument darf jetzt nicht auf Ihrem eigenen Gerät geöffnet werden. Fragen Sie {sender}.',
    notOpened:
      'Diese Datei ließ sich in diesem Browser nicht öffnen. Versuchen Sie es noch einmal oder in einem anderen.',
    notAmong:
      'Die Datei {name} ist nicht darunter: Sie wurde jemand anderem gesendet oder enthält eine frühere Fassung.',
    wrong: {
      ANOTHER_VERSION:
        'Die gewählte Datei ist nicht die aktuelle Fassung dieses Dokuments; seine Seiten kommen vom Dienst.',
      DAMAGED:
        'Die gewählte Datei wurde verändert oder abgeschnitten; die Seiten kommen vom Dienst.',
      BAD_LICENCE:
        'Die Erlaubnis für dieses Gerät war nicht zu verwenden; die Seiten kommen vom Dienst. ' +
        'Öffnen Sie die Datei noch einmal.',
      PDF_DAMAGED:
        'Die gewählte Datei lässt sich auf diesem Gerät nicht zeichnen; die Seiten kommen vom Dienst.',
      PDF_LOCKED:
        'Die gewählte Datei lässt sich auf diesem Gerät nicht zeichnen; die Seiten kommen vom Dienst.',
      PDF_TOO_DEMANDING:
        'Die gewählte Datei lässt sich auf diesem Gerät nicht zeichnen; die Seiten kommen vom Dienst.',
      FAILED:
        'Die gewählte Datei ließ sich auf diesem Gerät nicht öffnen; die Seiten kommen vom Dienst.',
    },
  },
  offline: {
    heading: 'Keine Verbindung',
    intro:
      'Dateien, die Sie auf diesem Gerät geöffnet haben, sind eine Weile ohne Verbindung lesbar. ' +
      'Legen Sie die geschützte Datei hier ab.',
    list: 'Hier ohne Verbindung lesbar',
    until: 'bis <end></end>',
    none: 'Keine Datei ist hier ohne Verbindung lesbar. Öffnen Sie sie einmal mit Verbindung.',
    noLicence: 'Diese Datei braucht eine Verbindung: Öffnen Sie sie zuerst mit einer.',
    over: 'Die Zeit, diese Datei ohne Verbindung zu lesen, ist vorbei. Mit Verbindung öffnet sie sich wieder.',
    clockBack:
      'Die Uhr dieses Geräts wurde zurückgestellt; diese Datei braucht deshalb eine Verbindung.',
    notKept:
      'Dieser Browser hat keinen Platz, um festzuhalten, was gelesen wird; die Datei wurde deshalb nicht geöffnet.',
    reading: 'Ohne Verbindung gelesen, bis <end></end>.',
    sees: '{sender} sieht ihn, sobald wieder eine Verbindung besteht',
    commentNotKept:
      'Er konnte in diesem Browser nicht aufbewahrt werden. Kopieren Sie ihn, damit er nicht verloren geht.',
    told:
      'Was Sie lesen, wird auf diesem Gerät festgehalten und {organisation} mitgeteilt, sobald ' +
      'es eine Verbindung gibt.',
    back: 'Zurück zur Liste',
    online: 'Es gibt wieder eine Verbindung.',
    goOn: 'Mit Verbindung weiter',
  },
  shared: {
    heading:
      '{sender} von {organisation} hat Ihnen {count, plural, one {# Dokument} other {# Dokumente}} gesendet',
    hereAs: 'Sie sind hier als {address}.',
    hereAsBold: 'Sie sind hier als <b>{address}</b>.',
    pages: '{count, plural, =0 {keine Seiten, nur als Kopie} one {# Seite} other {# Seiten}}',
    opensLeft: 'Sie können es noch {count, plural, one {einmal} other {#-mal}} öffnen',
    printsLeft:
      '{count, plural, =0 {alle gegebenen Ausdrucke sind gemacht} one {Sie können es noch einmal drucken} ' +
      'other {Sie können es noch #-mal drucken}}',
    read: 'Lesen',
    askForIt: 'Darum bitten',
    whole: 'Alles, was Ihnen gesendet wurde',
  },
  sent: {
    heading: 'Ihnen gesendet',
    by: 'von {organisation}',
    find: 'Nach Titel, Zeichen oder absendender Person suchen',
    none: 'An {address} wurde von hier nichts gesendet.',
    noneFound: 'Nichts von dem, was Ihnen gesendet wurde, enthält diese Wörter.',
    from: 'Von {sender}, <when></when>',
    open: '{count, plural, one {# Dokument, das Sie öffnen können} other {# Dokumente, die Sie öffnen können}}',
    closed:
      '{count, plural, one {# Dokument, das geschlossen ist} other {# Dokumente, die geschlossen sind}}',
    devices: 'Ihre Geräte',
    devicesIntro:
      'Browser, in denen Sie diese E-Mail-Adresse nachgewiesen haben. Beenden Sie, was Sie nicht nutzen oder kennen.',
    thisDevice: 'dieses hier',
    remembered: 'gemerkt, bis <end></end>',
    oneVisit: 'für einen Besuch, bis <end></end>',
    since: 'seit <when></when>',
    lastOpened: 'zuletzt etwas geöffnet <when></when>',
    nameDevice: 'Name dieses Geräts',
    rename: 'Umbenennen',
    save: 'Speichern',
    endDevice: 'Beenden',
    endDeviceNamed: '{device} beenden',
    renameNamed: '{device} umbenennen',
    ended:
      '{device} wurde beendet. Dort öffnet sich nichts mehr, bis die E-Mail-Adresse dort neu nachgewiesen ist.',
    signOut: 'Auf diesem Gerät abmelden',
  },
  passkey: {
    continue: 'Mit einem Passkey fortfahren',
    about:
      'Einen Passkey bewahrt Ihr Gerät oder Ihr Passwortmanager auf; er fragt nach Fingerabdruck, Gesicht oder PIN.',
    enter: 'Passkey statt Code nutzen',
    heading: 'Ihre Passkeys',
    intro:
      'Ein Passkey weist Sie ohne Code nach, und zusätzlich zu ihm, wo die absendende Person beides verlangt.',
    none: 'Sie haben keinen.',
    used: 'angelegt <when></when>, zuletzt genutzt <used></used>',
    make: 'Passkey anlegen',
    another: 'Weiteren Passkey anlegen',
    remove: 'Entfernen',
    removeNamed: 'Den auf {label} angelegten Passkey entfernen',
    removed: 'Der Passkey wurde entfernt. Er weist nichts mehr nach.',
    made: 'Der Passkey wurde angelegt.',
    cancelled:
      'Es wurde kein Passkey genutzt. Versuchen Sie es noch einmal, oder weisen Sie Ihre ' +
      'E-Mail-Adresse mit einem Code nach.',
    unsupported:
      'Dieser Browser kann keine Passkeys nutzen. Nehmen Sie einen anderen Browser oder ein anderes Gerät.',
  },
  notice: {
    heading: 'Bitte lesen Sie dies zuerst',
    intro:
      '{organisation} bittet Sie, dies anzunehmen, bevor Sie öffnen, was Ihnen gesendet wurde.',
    kept: 'Dass Sie annehmen, wird aufgezeichnet, mit der Zeit, diesem Wortlaut und seiner Sprache.',
    accept: 'Annehmen und öffnen',
  },
  nothing: {
    heading: 'Hier ist nichts.',
    cutOff:
      'Die Adresse wurde vielleicht unterwegs abgeschnitten. Öffnen Sie sie noch einmal, ganz.',
  },
  refusal: {
    opensAgain: 'Es öffnet sich wieder <when></when>.',
    notOpened: 'Nicht geöffnet',
    writeTo: 'An {name} schreiben',
    mailSubject: 'Zu dem Dokument, das Sie mir gesendet haben',
    mailAbout: 'Zu {title} ({reference})',
    back: 'Zurück zur Liste',
    proveAgain: 'E-Mail-Adresse neu nachweisen',
  },
  reasons: {
    'identity-not-proven': {
      title: 'Ihre E-Mail-Adresse ist in diesem Browser nicht nachgewiesen.',
      next: 'Weisen Sie sie mit einem Code nach, dann können Sie weiterlesen.',
    },
    'not-addressed': {
      title: 'Dies wurde nicht an diese E-Mail-Adresse gesendet.',
      next:
        'Wenn Sie eine andere E-Mail-Adresse haben, verwenden Sie die, an die es ging. Sonst fragen Sie die Person, ' +
        'die Ihnen den Link gab.',
    },
    'recipient-blocked': {
      title: 'Der Zugriff für diese E-Mail-Adresse wurde gesperrt.',
      next: 'Schreiben Sie der absendenden Person, wenn Sie das für einen Irrtum halten.',
    },
    'document-revoked': {
      title: 'Die absendende Person hat dieses Dokument zurückgezogen.',
      next: 'Zurzeit kann es niemand öffnen. Schreiben Sie ihr, wenn Sie es noch brauchen.',
    },
    'not-yet': {
      title: 'Dieses Dokument ist noch nicht offen.',
      next: 'Sie können es später öffnen, über denselben Link.',
    },
    expired: {
      title: 'Ihr Zugriff auf dieses Dokument ist beendet.',
      next: 'Schreiben Sie der absendenden Person, wenn Sie mehr Zeit brauchen.',
    },
    revoked: {
      title: 'Die absendende Person hat Ihren Zugriff auf dieses Dokument beendet.',
      next: 'Schreiben Sie ihr, wenn Sie das für einen Irrtum halten.',
    },
    'key-destroyed': {
      title: 'Dieses Dokument wurde vernichtet.',
      next: 'Niemand kann es mehr öffnen.',
    },
    'prove-again': {
      title: 'Ihre E-Mail-Adresse muss neu nachgewiesen werden.',
      next:
        'Die absendende Person verlangt das von Zeit zu Zeit. Weisen Sie sie mit einem Code nach, dann können Sie ' +
        'weiterlesen.',
    },
    'passkey-needed': {
      title: 'Dieses Dokument verlangt auch Ihren Passkey.',
      next:
        'Ihre E-Mail-Adresse ist nachgewiesen. Nutzen Sie Ihren Passkey, oder legen Sie jetzt einen ' +
        'an, wenn Sie keinen haben, und Sie können weiterlesen.',
    },
    'device-not-accepted': {
      title: 'Dieses Dokument öffnet sich nur auf einem gemerkten Gerät.',
      next:
        'Dieses Gerät gilt nur für einen Besuch. Nutzen Sie Ihr eigenes Gerät, oder weisen Sie Ihre E-Mail-Adresse ' +
        'neu nach und lassen Sie dieses merken.',
    },
    'too-many-devices': {
      title: 'Sie haben dies auf so vielen Geräten geöffnet, wie Sie dürfen.',
      next: 'Nutzen Sie eines davon, oder schreiben Sie der absendenden Person.',
    },
    'network-not-allowed': {
      title: 'Dieses Dokument öffnet sich nicht aus diesem Netz.',
      next: 'Nutzen Sie das vereinbarte Netz, zum Beispiel in Ihrem Büro, oder schreiben Sie der absendenden Person.',
    },
    'place-not-allowed': {
      title: 'Dieses Dokument öffnet sich nicht von dort, wo Sie zu sein scheinen.',
      next:
        'Orte werden aus Ihrer IP-Adresse geschätzt und können falsch sein. Schreiben Sie der absendenden Person, ' +
        'wenn dieser es ist.',
    },
    'hours-not-allowed': {
      title: 'Dieses Dokument ist zu dieser Stunde geschlossen.',
      next: 'Öffnen Sie es in den vereinbarten Stunden wieder, über denselben Link.',
    },
    'opens-used-up': {
      title: 'Sie haben dies so oft geöffnet, wie Sie dürfen.',
      next: 'Schreiben Sie der absendenden Person, wenn Sie es noch einmal brauchen.',
    },
    'condition-unknown': {
      title: 'Dieses Dokument kann zurzeit nicht geöffnet werden.',
      next: 'Es hat eine Bedingung, die hier nicht verstanden wird. Schreiben Sie der absendenden Person.',
    },
    'read-not-allowed': {
      title:
        'Die Organisation der absendenden Person erlaubt zurzeit nicht, dieses Dokument zu lesen.',
      next: 'Schreiben Sie der absendenden Person.',
    },
  },
  withheld: {
    heading: 'Nicht erlaubt',
    ask: 'Bitten',
    askTo: 'Darum bitten: {verb}',
    asked: 'erbeten',
    right: {
      'not-given': '{sender} hat Ihnen nicht erlaubt: {verb}.',
      'prints-used-up': 'Aufgebraucht: {verb}. Alle gegebenen Exemplare sind gemacht.',
      'needs-unlimited-print': 'Nicht möglich, solange Ausdrucke begrenzt sind: {verb}.',
      'needs-keep': 'Nicht möglich, solange keine Kopie behalten werden darf: {verb}.',
      'above-ceiling': 'Die Organisation der absendenden Person erlaubt nicht: {verb}.',
    },
    now: {
      'not-given': 'Das wurde Ihnen nicht erlaubt.',
      'prints-used-up': 'Das ist aufgebraucht: Alle gegebenen Exemplare sind gemacht.',
      'needs-unlimited-print': 'Das ist nicht möglich, solange Ausdrucke begrenzt sind.',
      'needs-keep': 'Das ist nicht möglich, solange keine Kopie behalten werden darf.',
      'above-ceiling': 'Das erlaubt die Organisation der absendenden Person nicht.',
    },
  },
  ask: {
    label: 'Worum Sie gebeten haben',
    begin: 'Um mehr bitten oder schreiben',
    until: 'Zeit bis',
    untilNone: 'Nur, wenn Sie mehr Zeit brauchen',
    reason: 'Grund oder Nachricht',
    send: 'An {sender} senden',
    message: 'Sie haben geschrieben',
    time: 'Sie haben um mehr Zeit gebeten',
    timeUntil: 'Sie haben um mehr Zeit gebeten, bis <end></end>',
    right: 'Sie haben gebeten um: {verb}',
    rightUntil: 'Sie haben gebeten, bis <end></end>, um: {verb}',
    asks: '{sender} fragt: „{text}“',
    replied: 'Sie haben geantwortet: „{text}“',
    answered: '„{text}“',
    yourReply: 'Ihre Antwort',
    reply: '{sender} antworten',
    states: {
      waiting: 'wartet auf eine Antwort',
      'asked-back': 'wartet auf Ihre Antwort',
      given: 'gegeben',
      'given-in-part': 'zum Teil gegeben',
      declined: 'abgelehnt',
      answered: 'beantwortet',
    },
  },
  passOn: {
    heading: 'Weitergeben',
    left:
      'Sie dürfen dies an {left, plural, one {# Person} other {# Personen}} weitergeben. Sie erhalten nicht ' +
      'mehr, als ' +
      'Sie haben, und es endet, wenn Ihres endet. {sender} sieht, an wen Sie es weitergegeben haben.',
    leftMore:
      'Sie dürfen dies an {left, plural, one {# weitere Person} other {# weitere Personen}} weitergeben. Sie ' +
      'erhalten ' +
      'nicht mehr, als Sie haben, und es endet, wenn Ihres endet. {sender} sieht, an wen Sie es weitergegeben haben.',
    leftAt:
      'Sie dürfen dies an {left, plural, one {# Person} other {# Personen}} bei {domains} weitergeben. Sie erhalten ' +
      'nicht mehr, als Sie haben, und es endet, wenn Ihres endet. {sender} sieht, an wen Sie es weitergegeben haben.',
    leftMoreAt:
      'Sie dürfen dies an {left, plural, one {# weitere Person} other {# weitere Personen}} bei {domains} ' +
      'weitergeben. Sie erhalten nicht mehr, als Sie haben, und es endet, wenn Ihres endet. {sender} sieht, an wen ' +
      'Sie es weitergegeben haben.',
    revoked: 'zurückgenommen',
    begin: 'Weitergeben …',
    address: 'Deren E-Mail-Adresse',
    note: 'Nachricht',
    send: 'Weitergeben',
  },
  print: {
    heading: 'Drucken',
    headingLeft: 'Drucken · noch {count, plural, one {# Exemplar} other {# Exemplare}}',
    from: 'Von Seite',
    to: 'Bis Seite',
    make: 'Gekennzeichnetes Exemplar machen',
    saved: 'Ein gekennzeichnetes Exemplar wurde gespeichert. Drucken Sie es von dort.',
  },
  take: {
    being: 'Wird gemacht …',
    failedHere:
      'Die Kopie konnte auf diesem Gerät nicht erstellt werden. ' +
      'Wer das Dokument gesandt hat, kann einen Druck zurückgeben.',
    keep: 'Kopie behalten',
    keptMarked: 'Eine Kopie mit dem Wasserzeichen wurde auf diesem Gerät gespeichert.',
    keptPlain:
      'Eine Kopie wurde auf diesem Gerät gespeichert, wie die Datei kam, ohne Wasserzeichen.',
  },
  reading: {
    from: 'von {sender}, {organisation} · Sie sind hier als {address}',
    mayDo: 'Was Sie dürfen',
    backToPages: 'Zurück zu den Seiten',
    aids: '{sender} hat Lesehilfen für Sie eingeschaltet: Ein Bildschirmleser kann die Seiten lesen.',
    announced:
      '{sender} möchte, dass die Seiten verdeckt werden, während ein anderes Fenster vorn ist, und einen Augenblick ' +
      'nach einer Taste, die den Bildschirm aufnimmt.',
    covered:
      'Verdeckt, während ein anderes Fenster vorn ist. {sender} möchte das so. Kommen Sie zu diesem Fenster zurück, ' +
      'um weiterzulesen.',
    notForPaper:
      'Diese Seite ist nicht für Papier. Wählen Sie neben dem Dokument „Gekennzeichnetes Exemplar machen“ und ' +
      'drucken Sie jenes.',
    notToPrint: 'Dieses Dokument darf hier gelesen werden und wurde nicht zum Drucken gegeben.',
    keys: 'Tasten',
    notShown: 'Dateien dieser Art können nicht als Seiten gezeigt werden.',
    notShownKeep:
      'Behalten Sie eine Kopie und öffnen Sie sie mit dem Programm, für das sie gemacht ist.',
    notShownAsk:
      '{sender} hat nicht erlaubt, sie zu behalten. Bitten Sie hier darum, oder schreiben Sie.',
  },
  revise: {
    heading: 'Geänderte Dateien',
    sent: '<when></when>, {state}',
    states: {
      waiting: 'wartet auf eine Antwort',
      accepted: 'angenommen: Sie öffnet sich jetzt',
      declined: 'nicht übernommen',
    },
    changeText: 'Den Text hier ändern',
    file: 'Die geänderte Datei',
    what: 'Was Sie geändert haben',
    being: 'Wird gesendet …',
    send: 'Geänderte Datei zurücksenden …',
    compared:
      '{sender} vergleicht sie mit dem Dokument und nimmt sie an oder lehnt sie ab. Vorher öffnet sie niemand sonst.',
    comparedText: '{sender} vergleicht sie mit dem Dokument und nimmt sie an oder lehnt sie ab.',
    tooLarge: 'Diese Datei ist größer als 96 MiB; mehr kann hier nicht zurückgesendet werden.',
    textTooLarge:
      'Dieser Text ist größer als 2 MiB. Behalten Sie eine Kopie und senden Sie die geänderte Datei zurück.',
    text: 'Der Text',
    textChanged: 'Der Text, den Sie ändern',
    sendText: 'Änderung senden',
    discard: 'Änderung verwerfen',
    unsent: 'Der Text, wie Sie ihn geändert haben',
    unsentHint: 'Er wurde nicht gesendet. Kopieren Sie ihn von hier.',
  },
  pages: {
    label: 'Seiten',
    page: 'Seite {page}',
    contents: 'Inhalt',
    inDocument: 'In diesem Dokument',
    outline: 'Gliederung',
    found: 'Gefunden',
    smaller: 'Kleiner',
    larger: 'Größer',
    smallerKey: 'Kleiner (−)',
    largerKey: 'Größer (+)',
    oneKey: 'Eine Seite nach der anderen (S)',
    one: 'Eine Seite',
    words: 'Nur Text',
    largerText: 'Größerer Text',
    smallerText: 'Kleinerer Text',
    noText: 'Diese Seite hat keinen Text.',
    turnLong: 'Im Uhrzeigersinn drehen',
    turnKey: 'Im Uhrzeigersinn drehen (R)',
    turn: 'Drehen',
    fullScreen: 'Ganzer Bildschirm',
    fullScreenKey: 'Ganzer Bildschirm (F)',
    before: 'Seite davor',
    after: 'Seite danach',
    pageField: 'Seite',
    ofPages: 'von {pages}',
    zoom: 'Vergrößerung, {percent} %',
    fitWidth: 'An die Breite anpassen',
    fitPage: 'An die Seite anpassen',
    findWords: 'Wörter suchen',
    at: '{at} von {count}',
    placeBefore: 'Stelle davor',
    placeAfter: 'Stelle danach',
    twoLetters: 'Mindestens zwei Buchstaben.',
    nothing: 'Nichts gefunden',
    places: '{count, plural, one {# Stelle} other {# Stellen}}',
    soFar: 'bisher: {found}; Seite {page} von {pages}',
    whole: 'Gefunden werden ganze Wörter; sie werden auf der Seite gezeigt.',
    outlineIsText: 'Die Gliederung ist Text des Dokuments und kommt mit der Erlaubnis zu kopieren.',
    looking: 'Wird gesucht …',
    noOutline: 'Dieses Dokument hat keine Gliederung.',
    keys: {
      zoom: 'größer, kleiner',
      width: 'an die Breite anpassen',
      page: 'an die Seite anpassen',
      turn: 'im Uhrzeigersinn drehen',
      single: 'eine Seite nach der anderen, oder alle',
      full: 'ganzer Bildschirm',
      find: 'Wörter suchen',
      place: 'die nächste Stelle, die davor',
      pages: 'eine Seite zurück oder weiter',
    },
  },
  comments: {
    heading: 'Kommentare',
    place: 'Eine Seite kommentieren',
    placing: 'Klicken Sie auf eine Seite, oder ziehen Sie über eine Fläche',
    onPage: 'Kommentar zu Seite {page}',
    sees: '{sender} sieht ihn',
    save: 'Kommentar speichern',
    discard: 'Verwerfen',
    unsaved: 'Was Sie zu Seite {page} schrieben',
    unsavedHint: 'Es wurde nicht gespeichert. Kopieren Sie es von hier.',
    unsent: 'Was Sie ohne Verbindung zu Seite {page} geschrieben haben',
    unsentHint: 'Es konnte nicht zum Dokument gelegt werden. Kopieren Sie es von hier.',
    numbered: 'Kommentar {number}',
    numberedResolved: 'Kommentar {number}, erledigt',
    new: 'Neu',
    resolved: 'erledigt',
    reopen: 'Wieder öffnen',
    resolve: 'Erledigt',
    you: 'Sie',
    whoSent: '{name}, hat es gesendet',
    changed: 'geändert',
    remove: 'Entfernen',
    unreadable: 'Er kann nicht mehr gelesen werden: Der Schlüssel ist vernichtet.',
    answer: 'Antworten',
    saveAnswer: 'Antwort speichern',
    hideResolved: 'Erledigte ausblenden',
    showResolved: '{count} erledigte zeigen',
  },
  moment: {
    day: 'Tag',
    month: 'Monat',
    year: 'Jahr',
    hours: 'Std.',
    minutes: 'Min.',
    set: 'Übernehmen',
    half: 'Tag, Monat, Jahr und Uhrzeit, oder nichts',
  },
  problems: {
    unreachable:
      'Der Server ist nicht erreichbar. Prüfen Sie Ihre Verbindung; diese Seite macht von selbst weiter.',
    unreadable: 'Die Antwort des Servers war nicht lesbar. Versuchen Sie es noch einmal.',
    broken:
      'In dieser Seite ging etwas schief. Laden Sie sie neu und versuchen Sie es noch einmal.',
  },
};
