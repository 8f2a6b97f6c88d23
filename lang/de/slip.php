<?php

declare(strict_types=1);

// Was auf der Seite eines Antwortzettels steht, und im Brief, der ihn bringt, um das herum, was das Unternehmen selbst geschrieben hat.
return [
    'send' => 'Antwort absenden',
    'again' => 'Antwort berichtigen',
    'optional' => 'wenn Sie mögen',
    'kept' => 'Gemerkt. Sie können die Seite schließen und später weitermachen.',
    'not_kept' => 'Nicht gemerkt: Es besteht keine Verbindung. Solange die Seite offen ist, geht hier nichts verloren.',
    'nothing' => 'Hier gibt es nichts zu beantworten',
    'late' => 'Die Zeit zum Antworten ist abgelaufen.',
    'thanks' => 'Vielen Dank. Ihre Antwort ist angekommen.',
    'passed_on' => 'Inzwischen wurde jemand anderes gefragt. Sie brauchen nicht mehr zu antworten.',
    'over' => [
        'waiting' => 'Das wartet noch. Sie brauchen nicht mehr zu antworten.',
        'answered' => 'Das ist beantwortet. Sie brauchen nicht mehr zu antworten.',
        'run_out' => 'Das ist ohne Antwort geblieben. Sie brauchen nicht mehr zu antworten.',
        'withdrawn' => 'Das wurde zurückgezogen. Sie brauchen nicht mehr zu antworten.',
    ],
    'hint' => [
        'percent' => 'in %', 'money' => 'in :currency', 'between' => 'von :min bis :max', 'least' => 'mindestens :min',
        'most' => 'höchstens :max',
    ],
    'letter' => [
        'answer' => 'Hier antworten',
        'alone' => 'Der Link ist nur für Sie. Er braucht kein Passwort.',
        'nudge' => 'Wartet noch: :subject',
    ],
    // In English these are the words of whatever refuses; here they go by its code.
    'refused' => [
        'invalid_values' => 'Etwas muss anders beantwortet werden.',
        'not_found' => 'Dieser Link führt nirgendwohin. Öffnen Sie den neuesten Brief dazu, oder bitten Sie um einen neuen.',
        'ended' => 'Das ist vorbei. Sie brauchen nicht mehr zu antworten.',
        'busy' => 'Gerade ändern andere dasselbe. Versuchen Sie es gleich noch einmal.',
    ],
    'wrong' => [
        'required' => 'Das muss beantwortet werden.',
        'required_tick' => 'Das muss angekreuzt werden.',
        'too_long' => 'Höchstens :length Zeichen.',
        'not_offered' => 'Wählen Sie eine der angebotenen Antworten.',
        'out_of_bounds' => 'Geben Sie eine Zahl in den Grenzen an, die danebenstehen.',
        'out_of_range' => 'Höchstens :scale Stellen nach dem Komma, und keine Zahl ohne Ende.',
        'invalid_file' => 'Diese Datei kann nicht angenommen werden: Sie ist zu groß, oder nicht das, was ihr Name sagt.',
        'wrong_type' => [
            'text' => 'Schreiben Sie eine Zeile Text.', 'long_text' => 'Schreiben Sie Text.',
            'email' => 'Schreiben Sie eine E-Mail-Adresse, etwa marit@hotel.example.',
            'phone' => 'Schreiben Sie eine Telefonnummer, etwa +44 20 5550 0142.',
            'link' => 'Schreiben Sie eine Webadresse, die mit https:// beginnt.',
            'number' => 'Schreiben Sie eine Zahl, etwa 12,50.', 'money' => 'Schreiben Sie einen Betrag, etwa 12,50.',
            'percent' => 'Schreiben Sie eine Zahl, etwa 12,5.', 'date' => 'Wählen Sie einen Tag, den es gibt.',
            'date_time' => 'Wählen Sie Tag und Uhrzeit.', 'tick' => 'Kreuzen Sie es an, oder lassen Sie es frei.',
            'choice' => 'Wählen Sie eine der angebotenen Antworten.', 'choices' => 'Wählen Sie aus den angebotenen Antworten.',
            'tags' => 'Schreiben Sie kurze Wörter, durch Kommas getrennt.',
        ],
    ],
];
