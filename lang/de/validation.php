<?php

declare(strict_types=1);

// What the framework says of a request that is not as the API describes it.
return [
    'array' => 'Das Feld :attribute muss eine Liste sein.',
    'boolean' => 'Das Feld :attribute muss true oder false sein.',
    'date' => 'Das Feld :attribute muss ein Datum sein.',
    'distinct' => 'Das Feld :attribute steht zweimal da.',
    'email' => 'Das Feld :attribute muss eine E-Mail-Adresse sein.',
    'enum' => 'Das Feld :attribute hat keinen der Werte, die es haben kann.',
    'exists' => 'Das Feld :attribute nennt etwas, das es nicht gibt.',
    'file' => 'Das Feld :attribute muss eine Datei sein.',
    'in' => 'Das Feld :attribute hat keinen der Werte, die es haben kann.',
    'integer' => 'Das Feld :attribute muss eine ganze Zahl sein.',
    'list' => 'Das Feld :attribute muss eine Liste sein.',
    'max' => [
        'array' => 'Das Feld :attribute darf höchstens :max Teile haben.',
        'file' => 'Das Feld :attribute darf höchstens :max Kilobyte groß sein.',
        'numeric' => 'Das Feld :attribute darf höchstens :max sein.',
        'string' => 'Das Feld :attribute darf höchstens :max Zeichen haben.',
    ],
    'min' => [
        'array' => 'Das Feld :attribute muss mindestens :min Teile haben.',
        'file' => 'Das Feld :attribute muss mindestens :min Kilobyte groß sein.',
        'numeric' => 'Das Feld :attribute muss mindestens :min sein.',
        'string' => 'Das Feld :attribute muss mindestens :min Zeichen haben.',
    ],
    'numeric' => 'Das Feld :attribute muss eine Zahl sein.',
    'present' => 'Das Feld :attribute muss da sein.',
    'prohibited' => 'Das Feld :attribute darf nicht da sein.',
    'regex' => 'Das Feld :attribute ist nicht in der richtigen Form.',
    'required' => 'Das Feld :attribute wird gebraucht.',
    'required_if' => 'Das Feld :attribute wird gebraucht, wenn :other :value ist.',
    'required_with' => 'Das Feld :attribute wird gebraucht, wenn :values da ist.',
    'required_without' => 'Das Feld :attribute wird gebraucht, wenn :values nicht da ist.',
    'string' => 'Das Feld :attribute muss Text sein.',
    'unique' => 'Das Feld :attribute ist schon vergeben.',
    'uploaded' => 'Das Feld :attribute konnte nicht hochgeladen werden.',
    'url' => 'Das Feld :attribute muss eine Adresse sein.',
];
