import type { ReaderMessages } from '@/words/reader/reader-messages';

export const fr: ReaderMessages = {
  language: 'Langue',
  opening: 'Ouverture…',
  tryAgain: 'Réessayer',
  cancel: 'Annuler',
  close: 'Fermer',
  theSender: 'l’expéditeur',
  rights: {
    names: {
      read: 'Lire',
      comment: 'Commenter',
      copy: 'Copier le texte',
      print: 'Imprimer',
      revise: 'Modifier',
      keep: 'Garder une copie',
      'pass-on': 'Transmettre',
    },
    verbs: {
      read: 'lire',
      comment: 'commenter',
      copy: 'copier le texte',
      print: 'imprimer',
      revise: 'renvoyer un fichier modifié',
      keep: 'garder une copie',
      'pass-on': 'le transmettre',
    },
    to: 'Pouvoir {verb}',
    may: 'Vous pouvez {verbs}, sans limite de temps',
    mayUntil: 'Vous pouvez {verbs} jusqu’au <end></end>',
    mayUntilIn: 'Vous pouvez {verbs}, jusqu’au <end></end>, {distance}',
  },
  prove: {
    heading: 'Un document protégé vous a été envoyé.',
    headingAll: 'Voyez ce qui vous a été envoyé.',
    intro:
      'Saisissez l’adresse e-mail à laquelle le message est arrivé. Vous recevrez un code à six chiffres par ' +
      'e-mail ; il ne faut pas de compte.',
    introAll:
      'Saisissez votre adresse e-mail. Si quelque chose lui a été envoyé d’ici, vous recevrez un code à six ' +
      'chiffres ' +
      'par e-mail.',
    address: 'Votre adresse e-mail',
    send: 'M’envoyer un code',
    codeHeading: 'Saisissez le code',
    codeSent:
      'Un code est en route vers <b>{address}</b>. Il fonctionne pendant {minutes} minutes, dans ce navigateur.',
    codeSentAll:
      'Si quelque chose a été envoyé d’ici à <b>{address}</b>, un code est en route. Il fonctionne pendant ' +
      '{minutes} ' +
      'minutes, dans ce navigateur.',
    code: 'Le code',
    device: 'Cet appareil',
    visit: 'Pour cette visite seulement : un ordinateur prêté ou partagé',
    keep: 'Retenir cet appareil : il est à moi, redemander dans 60 jours',
    continue: 'Continuer',
    other: 'Utiliser une autre adresse e-mail',
    noCode:
      'Pas de code après une minute ? Regardez dans votre dossier de courrier indésirable, ou demandez-en un autre.',
    again: 'M’envoyer un autre code',
    againIn: 'Un autre code peut être envoyé dans {seconds} s',
    sentAgain: 'Un autre code est en route. Seul le plus récent fonctionne.',
    fileInstead: 'Vous a-t-on envoyé un fichier ? <link>Ouvrir un fichier protégé</link>',
    everything: 'Tout ce qui vous a été envoyé',
  },
  visit: {
    heading: 'Quiconque a ce lien peut lire ce qui se trouve ici.',
    notAsked: 'On ne vous demande pas qui vous êtes.',
    read: 'Le lire',
  },
  recorded: {
    heading: 'Ce qui est enregistré',
    you:
      'Est enregistré à votre sujet : votre adresse e-mail ; quand vous ouvrez quoi et depuis quelle adresse IP, le ' +
      'lieu qu’elle suggère, ce navigateur, ce qui a été refusé, les pages et le texte montrés, ce que vous copiez, ' +
      'imprimez, gardez et transmettez, les clés d’accès que vous créez et utilisez, et ce que vous écrivez à ' +
      'l’expéditeur.',
    visitor:
      'Est enregistré à votre sujet : quand vous ouvrez quoi et depuis quelle adresse IP, le lieu qu’elle ' +
      'suggère, ce ' +
      'navigateur, ce qui a été refusé, les pages et le texte montrés, ce que vous copiez, imprimez, gardez et ' +
      'transmettez, et ce que vous écrivez à l’expéditeur.',
    stays:
      'Cet enregistrement reste chez l’organisation qui a envoyé. La fin d’un accès n’efface rien : ni le document, ' +
      'ni ce que vous avez écrit, ni l’enregistrement.',
  },
  file: {
    heading: 'Ouvrir un fichier protégé',
    intro:
      'Déposez le fichier qui vous a été envoyé. Il vous sera demandé de prouver votre adresse e-mail, puis vous le ' +
      'lirez ici.',
    drop: 'Déposez un fichier protégé ici',
    choose: 'Choisir un fichier',
    onlyInside:
      'Ce n’est que la partie chiffrée. Déposez le PDF dans lequel elle est venue, ou utilisez le lien du message.',
    noLink: 'Ce fichier n’a pas de lien que l’on puisse suivre.',
    wrong: {
      NOT_PROTECTED: 'Ce n’est pas un fichier protégé.',
      NEWER: 'Ce fichier protégé a été fait par une version plus récente que celle-ci.',
      DAMAGED:
        'Ce fichier protégé a été modifié depuis sa création : coupé, altéré ou enregistré à nouveau ' +
        'par un autre programme. Redemandez-le.',
    },
    unreadable: 'Ce fichier n’a pas pu être lu.',
    elsewhere:
      'Ce fichier se lit ailleurs, sur <b>{host}</b>. Sa première page porte le lien. Ne le suivez que si vous ' +
      'connaissez ce site.',
    stays: 'Le fichier est lu dans ce navigateur et n’est envoyé nulle part.',
  },
  own: {
    take: 'Enregistrer le fichier et le lire sur cet appareil',
    here: 'Lu sur cet appareil, depuis le fichier {name}. Le fichier n’est envoyé nulle part.',
    notHere:
      'Ce document ne s’ouvre pas sur votre propre appareil ; ses pages viennent du service.',
    otherVersion:
      'Le fichier choisi n’est pas la version actuelle de ce document ; ses pages viennent du service.',
    needsFile:
      'Ce document a été chiffré sur l’appareil de {sender} et n’est nulle part ' +
      'ailleurs. Ouvrez le fichier protégé que vous avez reçu.',
    wrongFile:
      'Ce fichier n’a pas pu être ouvert ici : il contient un autre document ou ' +
      'une autre version, ou a été modifié. Demandez-le de nouveau à {sender}.',
    nowhere:
      'Ce document ne peut pas être ouvert sur votre propre appareil pour l’instant. Demandez à {sender}.',
    notOpened:
      'Ce fichier n’a pas pu être ouvert dans ce navigateur. Réessayez, ou utilisez-en un autre.',
    notAmong:
      'Le fichier {name} n’en fait pas partie : il a été envoyé à quelqu’un d’autre ou contient ' +
      'une version antérieure.',
    wrong: {
      ANOTHER_VERSION:
        'Le fichier choisi n’est pas la version actuelle de ce document ; ses pages viennent du service.',
      DAMAGED: 'Le fichier choisi a été modifié ou coupé ; les pages viennent du service.',
      BAD_LICENCE:
        'L’autorisation pour cet appareil n’a pas pu servir ; les pages viennent du service. ' +
        'Ouvrez de nouveau le fichier.',
      PDF_DAMAGED:
        'Le fichier choisi ne peut être affiché sur cet appareil ; les pages viennent du service.',
      PDF_LOCKED:
        'Le fichier choisi ne peut être affiché sur cet appareil ; les pages viennent du service.',
      PDF_TOO_DEMANDING:
        'Le fichier choisi ne peut être affiché sur cet appareil ; les pages viennent du service.',
      FAILED:
        'Le fichier choisi n’a pas pu être ouvert sur cet appareil ; les pages viennent du service.',
    },
  },
  offline: {
    heading: 'Pas de connexion',
    intro:
      'Les fichiers que vous avez ouverts sur cet appareil se lisent un certain temps sans ' +
      'connexion. Déposez ici le fichier protégé.',
    list: 'Lisibles ici sans connexion',
    until: 'jusqu’au <end></end>',
    none: 'Aucun fichier ne se lit ici sans connexion. Ouvrez-le une fois avec une connexion.',
    noLicence: 'Ce fichier a besoin d’une connexion : ouvrez-le d’abord avec elle.',
    over: 'Le temps de lecture de ce fichier sans connexion est écoulé. Il se rouvre avec une connexion.',
    clockBack:
      'L’horloge de cet appareil a été reculée ; ce fichier a donc besoin d’une connexion.',
    notKept:
      'Ce navigateur n’a pas la place de noter ce qui est lu ; le fichier n’a donc pas été ouvert.',
    reading: 'Lu sans connexion, jusqu’au <end></end>.',
    sees: '{sender} le verra dès qu’il y aura une connexion',
    commentNotKept:
      'Il n’a pas pu être conservé dans ce navigateur. Copiez-le pour ne pas le perdre.',
    told: 'Ce que vous lisez est noté sur cet appareil et transmis à {organisation} dès qu’il y a une connexion.',
    back: 'Retour à la liste',
    online: 'La connexion est revenue.',
    goOn: 'Continuer avec elle',
  },
  shared: {
    heading:
      '{sender}, {organisation}, vous a envoyé {count, plural, one {# document} other {# documents}}',
    hereAs: 'Vous êtes ici en tant que {address}.',
    hereAsBold: 'Vous êtes ici en tant que <b>{address}</b>.',
    pages: '{count, plural, =0 {pas de pages, à garder seulement} one {# page} other {# pages}}',
    opensLeft: 'vous pouvez encore l’ouvrir {count, plural, one {une fois} other {# fois}}',
    printsLeft:
      '{count, plural, =0 {toutes les impressions accordées sont faites} one {vous pouvez encore l’imprimer ' +
      'une fois} other {vous pouvez encore l’imprimer # fois}}',
    read: 'Lire',
    askForIt: 'Le demander',
    whole: 'Tout ce qui vous a été envoyé',
  },
  sent: {
    heading: 'Ce qui vous a été envoyé',
    by: 'par {organisation}',
    find: 'Chercher par titre, référence ou expéditeur',
    none: 'Rien n’a été envoyé d’ici à {address}.',
    noneFound: 'Rien de ce qui vous a été envoyé ne contient ces mots.',
    from: 'De {sender}, <when></when>',
    open: '{count, plural, one {# document que vous pouvez ouvrir} other {# documents que vous pouvez ouvrir}}',
    closed: '{count, plural, one {# document fermé} other {# documents fermés}}',
    devices: 'Vos appareils',
    devicesIntro:
      'Les navigateurs où vous avez prouvé cette adresse e-mail. Mettez fin à ceux que vous n’utilisez pas ou ne ' +
      'connaissez pas.',
    thisDevice: 'celui-ci',
    remembered: 'retenu, jusqu’au <end></end>',
    oneVisit: 'pour une visite, jusqu’au <end></end>',
    since: 'depuis le <when></when>',
    lastOpened: 'dernière ouverture le <when></when>',
    nameDevice: 'Nom de cet appareil',
    rename: 'Renommer',
    save: 'Enregistrer',
    endDevice: 'Mettre fin',
    endDeviceNamed: 'Mettre fin à {device}',
    renameNamed: 'Renommer {device}',
    ended:
      'Il a été mis fin à {device}. Plus rien ne s’y ouvre tant que l’adresse e-mail n’y est pas prouvée à nouveau.',
    signOut: 'Se déconnecter de cet appareil',
  },
  passkey: {
    continue: 'Continuer avec une clé d’accès',
    about:
      'Une clé d’accès est gardée par votre appareil ou votre gestionnaire de mots de passe, qui ' +
      'demande votre empreinte, votre visage ou votre code.',
    enter: 'Utiliser une clé d’accès au lieu d’un code',
    heading: 'Vos clés d’accès',
    intro:
      'Une clé d’accès vous identifie sans code, et en plus de lui là où l’expéditeur demande les deux.',
    none: 'Vous n’en avez pas.',
    used: 'créée <when></when>, utilisée pour la dernière fois <used></used>',
    make: 'Créer une clé d’accès',
    another: 'Créer une autre clé d’accès',
    remove: 'Retirer',
    removeNamed: 'Retirer la clé d’accès créée sur {label}',
    removed: 'La clé d’accès a été retirée. Elle ne prouve plus rien.',
    made: 'La clé d’accès a été créée.',
    cancelled:
      'Aucune clé d’accès n’a été utilisée. Réessayez, ou prouvez votre adresse e-mail avec un code.',
    unsupported:
      'Ce navigateur ne peut pas utiliser de clés d’accès. Utilisez un autre navigateur ou appareil.',
  },
  notice: {
    heading: 'À lire d’abord',
    intro: '{organisation} vous demande d’accepter ceci avant d’ouvrir ce qui vous a été envoyé.',
    kept: 'Votre acceptation est enregistrée, avec l’heure, ce texte et sa langue.',
    accept: 'Accepter et ouvrir',
  },
  nothing: {
    heading: 'Il n’y a rien ici.',
    cutOff: 'L’adresse a peut-être été coupée en chemin. Ouvrez-la de nouveau, entière.',
  },
  refusal: {
    opensAgain: 'Il s’ouvrira de nouveau <when></when>.',
    notOpened: 'Pas ouvert',
    writeTo: 'Écrire à {name}',
    mailSubject: 'À propos du document que vous m’avez envoyé',
    mailAbout: 'À propos de {title} ({reference})',
    back: 'Retour à la liste',
    proveAgain: 'Prouver à nouveau votre adresse e-mail',
  },
  reasons: {
    'identity-not-proven': {
      title: 'Votre adresse e-mail n’a pas été prouvée dans ce navigateur.',
      next: 'Prouvez-la avec un code, et vous pourrez continuer à lire.',
    },
    'not-addressed': {
      title: 'Ceci n’a pas été envoyé à cette adresse e-mail.',
      next:
        'Si vous avez une autre adresse e-mail, utilisez celle à laquelle ce fut envoyé. Sinon, demandez à la ' +
        'personne qui vous a donné le lien.',
    },
    'recipient-blocked': {
      title: 'L’accès de cette adresse e-mail a été bloqué.',
      next: 'Écrivez à l’expéditeur si vous pensez que c’est une erreur.',
    },
    'document-revoked': {
      title: 'L’expéditeur a retiré ce document.',
      next: 'Personne ne peut l’ouvrir actuellement. Écrivez à l’expéditeur si vous en avez encore besoin.',
    },
    'not-yet': {
      title: 'Ce document n’est pas encore ouvert.',
      next: 'Vous pourrez l’ouvrir plus tard, par le même lien.',
    },
    expired: {
      title: 'Votre accès à ce document a pris fin.',
      next: 'Écrivez à l’expéditeur s’il vous faut plus de temps.',
    },
    revoked: {
      title: 'L’expéditeur a mis fin à votre accès à ce document.',
      next: 'Écrivez à l’expéditeur si vous pensez que c’est une erreur.',
    },
    'key-destroyed': {
      title: 'Ce document a été détruit.',
      next: 'Personne ne peut plus l’ouvrir.',
    },
    'prove-again': {
      title: 'Votre adresse e-mail doit être prouvée à nouveau.',
      next: 'L’expéditeur le demande de temps en temps. Prouvez-la avec un code, et vous pourrez continuer à lire.',
    },
    'passkey-needed': {
      title: 'Ce document demande aussi votre clé d’accès.',
      next:
        'Votre adresse e-mail est prouvée. Utilisez votre clé d’accès, ou créez-en une maintenant si ' +
        'vous n’en avez pas, et vous pourrez lire.',
    },
    'device-not-accepted': {
      title: 'Ce document ne s’ouvre que sur un appareil retenu.',
      next:
        'Cet appareil ne vaut que pour une visite. Utilisez votre propre appareil, ou prouvez à nouveau votre ' +
        'adresse e-mail et faites retenir celui-ci.',
    },
    'too-many-devices': {
      title: 'Vous avez ouvert ceci sur autant d’appareils que permis.',
      next: 'Utilisez l’un d’eux, ou écrivez à l’expéditeur.',
    },
    'network-not-allowed': {
      title: 'Ce document ne s’ouvre pas depuis ce réseau.',
      next: 'Utilisez le réseau convenu, par exemple à votre bureau, ou écrivez à l’expéditeur.',
    },
    'place-not-allowed': {
      title: 'Ce document ne s’ouvre pas depuis l’endroit où vous semblez être.',
      next:
        'Les lieux sont estimés d’après votre adresse IP et peuvent être faux. Écrivez à l’expéditeur si celui-ci ' +
        'l’est.',
    },
    'hours-not-allowed': {
      title: 'Ce document est fermé à cette heure.',
      next: 'Ouvrez-le de nouveau aux heures convenues, par le même lien.',
    },
    'opens-used-up': {
      title: 'Vous avez ouvert ceci aussi souvent que permis.',
      next: 'Écrivez à l’expéditeur s’il vous le faut encore une fois.',
    },
    'condition-unknown': {
      title: 'Ce document ne peut pas être ouvert actuellement.',
      next: 'Il porte une condition qui n’est pas comprise ici. Écrivez à l’expéditeur.',
    },
    'read-not-allowed': {
      title: 'L’organisation de l’expéditeur ne permet pas actuellement de lire ce document.',
      next: 'Écrivez à l’expéditeur.',
    },
  },
  withheld: {
    heading: 'Pas permis',
    ask: 'Demander',
    askTo: 'Demander à {verb}',
    asked: 'demandé',
    right: {
      'not-given': '{sender} ne vous a pas permis de : {verb}.',
      'prints-used-up': 'Épuisé : {verb}. Tous les exemplaires accordés ont été faits.',
      'needs-unlimited-print': 'Impossible tant que les impressions sont limitées : {verb}.',
      'needs-keep': 'Impossible tant qu’aucune copie ne peut être gardée : {verb}.',
      'above-ceiling': 'L’organisation de l’expéditeur ne permet pas de : {verb}.',
    },
    now: {
      'not-given': 'Cela ne vous a pas été permis.',
      'prints-used-up': 'C’est épuisé : tous les exemplaires accordés ont été faits.',
      'needs-unlimited-print': 'C’est impossible tant que les impressions sont limitées.',
      'needs-keep': 'C’est impossible tant qu’aucune copie ne peut être gardée.',
      'above-ceiling': 'L’organisation de l’expéditeur ne le permet pas.',
    },
  },
  ask: {
    label: 'Ce que vous avez demandé',
    begin: 'Demander plus, ou écrire',
    until: 'Du temps jusqu’au',
    untilNone: 'Seulement s’il vous faut plus de temps',
    reason: 'Raison ou message',
    send: 'Envoyer à {sender}',
    message: 'Vous avez écrit',
    time: 'Vous avez demandé plus de temps',
    timeUntil: 'Vous avez demandé plus de temps, jusqu’au <end></end>',
    right: 'Vous avez demandé à {verb}',
    rightUntil: 'Vous avez demandé à {verb} jusqu’au <end></end>',
    asks: '{sender} demande : « {text} »',
    replied: 'Vous avez répondu : « {text} »',
    answered: '« {text} »',
    yourReply: 'Votre réponse',
    reply: 'Répondre à {sender}',
    states: {
      waiting: 'en attente d’une réponse',
      'asked-back': 'en attente de votre réponse',
      given: 'accordé',
      'given-in-part': 'accordé en partie',
      declined: 'refusé',
      answered: 'répondu',
    },
  },
  passOn: {
    heading: 'Transmettre',
    left:
      'Vous pouvez transmettre ceci à {left, plural, one {# personne} other {# personnes}}. Elles n’ont pas ' +
      'plus que ' +
      'vous, et cela finit quand le vôtre finit. {sender} peut voir à qui vous l’avez transmis.',
    leftMore:
      'Vous pouvez transmettre ceci à {left, plural, one {# personne de plus} other {# personnes de plus}}. Elles ' +
      'n’ont pas plus que vous, et cela finit quand le vôtre finit. {sender} peut voir à qui vous l’avez transmis.',
    leftAt:
      'Vous pouvez transmettre ceci à {left, plural, one {# personne} other {# personnes}} de {domains}. Elles ' +
      'n’ont ' +
      'pas plus que vous, et cela finit quand le vôtre finit. {sender} peut voir à qui vous l’avez transmis.',
    leftMoreAt:
      'Vous pouvez transmettre ceci à {left, plural, one {# personne de plus} other {# personnes de plus}} de ' +
      '{domains}. Elles n’ont pas plus que vous, et cela finit quand le vôtre finit. {sender} peut voir à qui vous ' +
      'l’avez transmis.',
    revoked: 'retiré',
    begin: 'Transmettre…',
    address: 'Son adresse e-mail',
    note: 'Message',
    send: 'Transmettre',
  },
  print: {
    heading: 'Imprimer',
    headingLeft: 'Imprimer · encore {count, plural, one {# exemplaire} other {# exemplaires}}',
    from: 'De la page',
    to: 'À la page',
    make: 'Faire un exemplaire marqué',
    saved: 'Un exemplaire marqué a été enregistré. Imprimez-le de là.',
  },
  take: {
    being: 'En préparation…',
    failedHere:
      'La copie n’a pas pu être faite sur cet appareil. La personne qui l’a envoyé peut vous rendre une impression.',
    keep: 'Garder une copie',
    keptMarked: 'Une copie avec le filigrane a été enregistrée sur cet appareil.',
    keptPlain:
      'Une copie a été enregistrée sur cet appareil telle que le fichier est venu, sans filigrane.',
  },
  reading: {
    from: 'de {sender}, {organisation} · vous êtes ici en tant que {address}',
    mayDo: 'Ce que vous pouvez faire',
    backToPages: 'Retour aux pages',
    aids: '{sender} a activé des aides à la lecture pour vous : un lecteur d’écran peut lire les pages.',
    announced:
      '{sender} a demandé que les pages soient couvertes pendant qu’une autre fenêtre est devant, et un ' +
      'instant après ' +
      'une touche qui photographie l’écran.',
    covered:
      'Couvert pendant qu’une autre fenêtre est devant. {sender} l’a demandé. Revenez à cette fenêtre pour ' +
      'continuer.',
    notForPaper:
      'Cette page n’est pas pour le papier. Choisissez « Faire un exemplaire marqué » à côté du document, et ' +
      'imprimez ' +
      'celui-là.',
    notToPrint: 'Ce document peut être lu ici, et n’a pas été donné à imprimer.',
    keys: 'Touches',
    notShown: 'Les fichiers de ce type ne peuvent pas être montrés en pages.',
    notShownKeep: 'Gardez une copie, et ouvrez-la avec le programme pour lequel elle est faite.',
    notShownAsk: '{sender} n’a pas permis de le garder. Demandez-le ici, ou écrivez.',
  },
  revise: {
    heading: 'Fichiers modifiés',
    sent: '<when></when>, {state}',
    states: {
      waiting: 'attend une réponse',
      accepted: 'accepté : c’est lui qui s’ouvre à présent',
      declined: 'non retenu',
    },
    changeText: 'Modifier le texte ici',
    file: 'Le fichier modifié',
    what: 'Ce que vous avez modifié',
    being: 'Envoi…',
    send: 'Renvoyer un fichier modifié…',
    compared:
      '{sender} le compare avec le document, et l’accepte ou le refuse. Personne d’autre ne l’ouvre avant.',
    comparedText: '{sender} le compare avec le document, et l’accepte ou le refuse.',
    tooLarge: 'Ce fichier dépasse 96 Mio, le maximum que l’on peut renvoyer ici.',
    textTooLarge: 'Ce texte dépasse 2 Mio. Gardez une copie, et renvoyez le fichier modifié.',
    text: 'Le texte',
    textChanged: 'Le texte que vous modifiez',
    sendText: 'Envoyer la modification',
    discard: 'Abandonner la modification',
    unsent: 'Le texte tel que vous l’avez modifié',
    unsentHint: 'Il n’a pas été envoyé. Copiez-le d’ici.',
  },
  pages: {
    label: 'Les pages',
    page: 'Page {page}',
    contents: 'Contenu',
    inDocument: 'Dans ce document',
    outline: 'Plan',
    found: 'Trouvé',
    smaller: 'Plus petit',
    larger: 'Plus grand',
    smallerKey: 'Plus petit (−)',
    largerKey: 'Plus grand (+)',
    oneKey: 'Une page à la fois (S)',
    one: 'Une page',
    words: 'Texte seul',
    largerText: 'Texte plus grand',
    smallerText: 'Texte plus petit',
    noText: 'Cette page n’a pas de texte.',
    turnLong: 'Tourner dans le sens horaire',
    turnKey: 'Tourner dans le sens horaire (R)',
    turn: 'Tourner',
    fullScreen: 'Plein écran',
    fullScreenKey: 'Plein écran (F)',
    before: 'Page d’avant',
    after: 'Page d’après',
    pageField: 'Page',
    ofPages: 'sur {pages}',
    zoom: 'Agrandissement, {percent} %',
    fitWidth: 'Ajuster à la largeur',
    fitPage: 'Ajuster à la page',
    findWords: 'Chercher des mots',
    at: '{at} sur {count}',
    placeBefore: 'Endroit précédent',
    placeAfter: 'Endroit suivant',
    twoLetters: 'Deux lettres au moins.',
    nothing: 'Rien trouvé',
    places: '{count, plural, one {# endroit} other {# endroits}}',
    soFar: '{found} jusqu’ici ; page {page} sur {pages}',
    whole: 'Les mots entiers sont trouvés, et montrés sur la page.',
    outlineIsText: 'Le plan est du texte du document, et vient avec la permission de copier.',
    looking: 'Recherche…',
    noOutline: 'Ce document n’a pas de plan.',
    keys: {
      zoom: 'plus grand, plus petit',
      width: 'ajuster à la largeur',
      page: 'ajuster à la page',
      turn: 'tourner dans le sens horaire',
      single: 'une page à la fois, ou toutes',
      full: 'plein écran',
      find: 'chercher des mots',
      place: 'l’endroit suivant, le précédent',
      pages: 'une page en arrière ou en avant',
    },
  },
  comments: {
    heading: 'Commentaires',
    place: 'Commenter une page',
    placing: 'Cliquez sur une page, ou tracez une zone',
    onPage: 'Commentaire sur la page {page}',
    sees: '{sender} le voit',
    save: 'Enregistrer le commentaire',
    discard: 'Abandonner',
    unsaved: 'Ce que vous écriviez à propos de la page {page}',
    unsavedHint: 'Cela n’a pas été enregistré. Copiez-le d’ici.',
    unsent: 'Ce que vous avez écrit sur la page {page} sans connexion',
    unsentHint: 'Cela n’a pas pu être joint au document. Copiez-le d’ici.',
    numbered: 'Commentaire {number}',
    numberedResolved: 'Commentaire {number}, réglé',
    new: 'Nouveau',
    resolved: 'réglé',
    reopen: 'Rouvrir',
    resolve: 'Régler',
    you: 'Vous',
    whoSent: '{name}, qui l’a envoyé',
    changed: 'modifié',
    remove: 'Supprimer',
    unreadable: 'Il ne peut plus être lu : la clé est détruite.',
    answer: 'Répondre',
    saveAnswer: 'Enregistrer la réponse',
    hideResolved: 'Masquer les réglés',
    showResolved: 'Montrer {count} réglés',
  },
  moment: {
    day: 'jour',
    month: 'mois',
    year: 'année',
    hours: 'h',
    minutes: 'min',
    set: 'Valider',
    half: 'Jour, mois, année et heure, ou rien',
  },
  problems: {
    unreachable:
      'Le serveur est injoignable. Vérifiez votre connexion ; cette page continue d’elle-même.',
    unreadable: 'La réponse du serveur n’a pas pu être lue. Réessayez.',
    broken: 'Quelque chose s’est mal passé dans cette page. Rechargez-la et réessayez.',
  },
};
