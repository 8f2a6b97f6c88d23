<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** What keeps a record as it is: a sign-off that waits, and was asked for with the record locked meanwhile. */
final readonly class Lock
{
    /**
     * @param  int  $signOff  id
     * @param  int  $rule  id of the rule that asked for it
     * @param  ?int  $run  whose line asked for it, and whose lines go on
     * @param  bool  $catchesUp  whether rules that it keeps from the record come afterwards
     */
    public function __construct(
        public int $signOff,
        public int $rule,
        public ?int $run,
        public \DateTimeImmutable $since,
        public bool $catchesUp,
    ) {
    }
}
