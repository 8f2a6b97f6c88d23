<?php

declare(strict_types=1);

// The page by which somebody outside stops reminders.
return [
    'title' => 'Letters',
    'nowhere' => 'This link leads nowhere',
    'open' => 'Open the letter again, or answer it and say that you want no more.',
    'done' => 'Done',
    'off' => ':address gets no more reminders from us. Letters about what you ask of us still come.',
    'sure' => 'No more reminders?',
    'would' => ':address would get no more reminders from us. Letters about what you ask of us would still come.',
    'stop' => 'Stop the reminders',
];
