<?php

declare(strict_types=1);

// What stands on the page of a reply slip, and in the letter that brings it, around what the company itself has written.
return [
    'send' => 'Send the answer',
    'again' => 'Correct the answer',
    'optional' => 'if you like',
    'kept' => 'Kept. You can close the page and go on later.',
    'not_kept' => 'Not kept: there is no connection. Nothing here is lost as long as the page is open.',
    'nothing' => 'Nothing to answer here',
    'late' => 'The time to answer has run out.',
    'thanks' => 'Thank you. Your answer has arrived.',
    'passed_on' => 'Somebody else has been asked meanwhile. You need not answer any more.',
    'over' => [
        'waiting' => 'This is waiting. You need not answer any more.',
        'answered' => 'This is answered. You need not answer any more.',
        'run_out' => 'This is left without an answer. You need not answer any more.',
        'withdrawn' => 'This is withdrawn. You need not answer any more.',
    ],
    'hint' => [
        'percent' => 'in %', 'money' => 'in :currency', 'between' => 'from :min to :max', 'least' => 'at least :min',
        'most' => 'at most :max',
    ],
    'letter' => [
        'answer' => 'Answer here',
        'alone' => 'The link is for you alone. It needs no password.',
        'nudge' => 'Still waiting: :subject',
    ],
];
