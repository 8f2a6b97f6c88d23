<?php

declare(strict_types=1);

// Die Seite, auf der jemand von außen Erinnerungen abbestellt.
return [
    'title' => 'Briefe',
    'nowhere' => 'Dieser Link führt nirgendwohin',
    'open' => 'Öffnen Sie den Brief noch einmal, oder antworten Sie darauf und sagen Sie, dass Sie keine mehr wollen.',
    'done' => 'Erledigt',
    'off' => ':address bekommt von uns keine Erinnerungen mehr. Briefe zu dem, worum Sie uns bitten, kommen weiterhin.',
    'sure' => 'Keine Erinnerungen mehr?',
    'would' => ':address bekäme von uns keine Erinnerungen mehr. Briefe zu dem, worum Sie uns bitten, kämen weiterhin.',
    'stop' => 'Erinnerungen abbestellen',
];
