<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** A task that is still to be done, given by a line that says what makes it lapse. */
final readonly class OpenTask
{
    /**
     * @param  int  $place  of the line in its page, from 0
     * @param  string  $key  of the line, by which others wait for it; empty for none
     * @param  ?int  $run  whose line gave it; null when its rule had nothing to come
     */
    public function __construct(
        public int $id,
        public int $rule,
        public int $page,
        public int $place,
        public string $title,
        public ?int $person,
        public string $key = '',
        public ?int $run = null,
    ) {
    }
}
