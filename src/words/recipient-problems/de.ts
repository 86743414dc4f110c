import type { RecipientProblemMessages } from '@/words/recipient-problems/recipient-problems';

export const de: RecipientProblemMessages = {
  problems: {
    'request-too-large': 'Diese Anfrage ist zu groß.',
    'request-unreadable': 'Diese Anfrage konnte nicht gelesen werden.',
    'wrong-origin':
      'Diese Anfrage kam nicht von Embargos eigenen Seiten und wurde deshalb nicht ausgeführt.',
    'signed-out': 'Weisen Sie Ihre E-Mail-Adresse in diesem Browser neu nach.',
    'address-unproven': 'Weisen Sie Ihre E-Mail-Adresse in diesem Browser neu nach.',
    'act-key-used': 'Dieser Schlüssel wurde für eine andere Anfrage verwendet.',
    'done-before': 'Das ist schon geschehen. Laden Sie die Seite neu, um es zu sehen.',
    'not-sent-here':
      'Dies wurde nicht an diese E-Mail-Adresse gesendet; hier ist also niemand, den Sie bitten könnten.',
    'asked-time-past': 'Die Zeit, um die Sie bitten, ist schon vorbei.',
    'right-held': 'Das dürfen Sie schon.',
    'nothing-to-reply':
      'Ihre Antwort wurde nicht gesendet, weil niemand darauf wartet: Darüber ist schon entschieden.',
    'asked-before': 'Darum haben Sie schon gebeten. Die Antwort steht noch aus.',
    'requests-waiting': 'Mehrere Ihrer Anfragen warten. Lassen Sie zuerst diese beantworten.',
    'device-key-unusable':
      'Dieser Browser hat keinen brauchbaren Schlüssel erzeugt. Laden Sie die Seite neu und versuchen Sie es ' +
      'noch einmal.',
    'notice-due': 'Bevor sich dies öffnet, ist ein Hinweis anzunehmen.',
    'notice-changed':
      'Der Hinweis wurde inzwischen neu gefasst. Laden Sie die Seite neu, um ihn zu lesen.',
    'passkey-refused':
      'Dieser Passkey wurde nicht angenommen. Versuchen Sie es noch einmal, oder weisen Sie Ihre E-Mail-Adresse ' +
      'mit einem Code nach.',
    'passkey-needs-proof':
      'Weisen Sie Ihre E-Mail-Adresse noch einmal mit einem Code nach, bevor Sie Ihren ersten Passkey anlegen.',
    'passkey-first': 'Nutzen Sie auf diesem Gerät zuerst einen Ihrer Passkeys.',
    'passkey-unknown': 'Dieser Passkey gehört nicht zu Ihren, oder er wurde schon entfernt.',
    'device-unknown': 'Dieses Gerät gehört nicht zu Ihren, oder es wurde schon beendet.',
    'document-gone': 'Dieses Dokument ist nicht mehr hier.',
    'link-unknown':
      'Dieser Link funktioniert nicht. Kopieren Sie den ganzen Link aus der Nachricht und öffnen Sie ihn noch ' +
      'einmal.',
    'open-it-first': 'Öffnen Sie es einmal selbst, bevor Sie es weitergeben.',
    'given-already': 'Die Person hat es schon. Nichts wurde geändert.',
    'content-elsewhere':
      'Dieses Dokument wurde auf dem Gerät des Absenders verschlüsselt: Es wird ' +
      'nur aus seiner geschützten Datei gelesen. Öffnen Sie die Datei, die Sie erhalten haben.',
    'not-on-own-machine':
      'Dieses Dokument lässt sich nicht auf Ihrem eigenen Gerät öffnen. Lesen Sie seine Seiten hier.',
    'file-of-another-version':
      'Diese Datei enthält eine frühere Fassung des Dokuments. Lesen Sie die aktuelle hier, oder ' +
      'bitten Sie den Absender um ihre Datei.',
    'not-open-here':
      'Dieses Dokument ist hier nicht offen. Öffnen Sie es über seinen Link noch einmal.',
    'revision-too-large':
      'Diese Datei ist größer als 96 MiB; mehr kann hier nicht zurückgesendet werden. Schreiben Sie der ' +
      'absendenden Person.',
    'file-cut-off':
      'Die Datei kam nicht ganz an. Nichts wurde behalten. Senden Sie sie noch einmal.',
    'revisions-waiting':
      'Fünf Ihrer Dateien warten auf eine Antwort. Schreiben Sie der absendenden Person, bevor Sie noch eine senden.',
    'ended-meanwhile': 'Der Zugriff endete, während dies gemacht wurde.',
    'no-comment': 'Dieser Kommentar ist nicht mehr da.',
    'comments-full':
      'Zu diesem Dokument sind keine weiteren Kommentare möglich. Schreiben Sie der absendenden Person.',
    'no-such-pages': 'Dieses Dokument hat keine solchen Seiten.',
    'reason-needed': 'Hier ist ein Grund nötig. Nichts wurde geändert.',
    'rows-not-ours':
      'Dies kann zurzeit nicht gezeigt werden. Schreiben Sie der absendenden Person.',
    'link-ended':
      'Dieser Link kann nicht mehr geöffnet werden. Fragen Sie die Person, die ihn Ihnen gab.',
    'ask-in-vain': {
      revoked:
        'Die absendende Person hat Ihren Zugriff beendet. Schreiben können Sie ihr weiterhin.',
      'document-revoked':
        'Die absendende Person hat dieses Dokument zurückgezogen. Schreiben können Sie ihr weiterhin.',
      'key-destroyed':
        'Dieses Dokument wurde vernichtet. Schreiben können Sie der absendenden Person weiterhin.',
      'recipient-blocked':
        'Der Zugriff für diese E-Mail-Adresse wurde gesperrt. Schreiben können Sie der absendenden Person weiterhin.',
      'condition-unknown':
        'Dieses Dokument kann zurzeit nicht geöffnet werden. Schreiben können Sie der absendenden Person weiterhin.',
      other:
        'Dies kann nicht geöffnet werden. Schreiben können Sie der absendenden Person weiterhin.',
    },
    'too-many-tries':
      'Zu viele Versuche. Warten Sie {minutes} min und versuchen Sie es noch einmal.',
    'pass-on-refused': {
      'not-given': 'Sie dürfen dies nicht weitergeben.',
      'too-many': 'Sie haben dies schon an so viele Personen weitergegeben, wie Sie dürfen.',
      'not-listed':
        'Sie dürfen dies nur an Personen bestimmter Organisationen weitergeben, und diese E-Mail-Adresse gehört ' +
        'zu keiner.',
      'more-rights': 'Sie können nicht mehr weitergeben, als Sie selbst dürfen.',
      longer: 'Sie können es nicht für länger weitergeben, als Sie es selbst haben.',
      themselves: 'Das sind Sie selbst.',
    },
    'code-wrong': {
      left: 'Das ist nicht der Code. Sie haben noch {left, plural, one {# Versuch} other {# Versuche}}.',
      none:
        'Dieser Code gilt nicht mehr, oder er wurde in einem anderen Browser angefordert. Lassen Sie sich einen ' +
        'neuen senden.',
    },
  },
  content: {
    EMPTY_FILE: 'Diese Datei ist leer.',
    NOT_A_PDF: 'Diese Datei ist kein PDF.',
    NOT_OF_ITS_NAME: 'Was diese Datei enthält, ist nicht, was ihr Name sagt.',
    FILE_DAMAGED: 'Diese Datei ist beschädigt und kann nicht geöffnet werden.',
    FILE_LOCKED:
      'Diese Datei verlangt ein Passwort oder ist von älterer Art. Speichern Sie sie neu ohne eines und wählen ' +
      'Sie sie noch einmal.',
    FILE_TOO_LONG: 'Diese Datei ist zu lang, um gezeigt zu werden.',
    FILE_UNPACKS_TOO_FAR:
      'Diese Datei entpackt sich zu weit mehr, als sie enthält, und wurde nicht angenommen.',
    FILE_TOO_DEMANDING:
      'Diese Datei zu zeigen dauert zu lange oder braucht zu viel Speicher; es wurde abgebrochen.',
    PICTURE_TOO_LARGE:
      'Dieses Bild hat mehr als 200 Millionen Bildpunkte. Verkleinern Sie es und wählen Sie es noch einmal.',
    PROTECTED_ALREADY: 'Diese Datei ist schon geschützt. Nehmen Sie das Dokument, das darin ist.',
    PDF_DAMAGED: 'Dieses PDF ist beschädigt und kann nicht geöffnet werden.',
    PDF_LOCKED:
      'Dieses PDF verlangt ein Passwort. Speichern Sie es ohne eines und wählen Sie es noch einmal.',
    PDF_TOO_DEMANDING:
      'Dieses PDF zu zeichnen dauert zu lange oder braucht zu viel Speicher; es wurde abgebrochen.',
    PDF_TOO_MANY_PAGES: 'Dieses PDF hat mehr als 20 000 Seiten.',
    PDF_UNPACKS_TOO_FAR:
      'Dieses PDF entpackt sich zu weit mehr, als es enthält, und wurde nicht angenommen.',
    CONTENT_DAMAGED:
      'Der gespeicherte Inhalt dieses Dokuments ist beschädigt. Die absendende Person kann es neu senden.',
    NO_SUCH_PAGE: 'Dieses Dokument hat keine solche Seite.',
  },
  other: {
    check: 'Bitte prüfen Sie Ihre Eingabe.',
    address: 'Das ist keine E-Mail-Adresse.',
    code: 'Der Code hat sechs Ziffern.',
    noRoom:
      'Dies kann zurzeit nicht gezeigt werden: Der Server hat keinen Platz mehr. Versuchen Sie es später, oder ' +
      'schreiben Sie der absendenden Person.',
    harmed:
      'Dies kann zurzeit nicht gezeigt werden: Auf dem Server ist etwas beschädigt. Schreiben Sie der ' +
      'absendenden Person.',
    failed: 'Bei uns ging etwas schief. Nichts wurde geändert.',
  },
};
