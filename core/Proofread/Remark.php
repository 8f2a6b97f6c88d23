<?php

declare(strict_types=1);

namespace VividLedger\Proofread;

/** What proofreading found, at a word, with what to do about it. */
final readonly class Remark
{
    /**
     * @param  string  $at  the place in the rule file it is about (a JSON Pointer)
     * @param  string  $advice  what to do about it; empty where the message says it
     * @param  ?Fix  $fix  a change of the rule file that does it
     */
    public function __construct(
        public Level $level,
        public string $at,
        public string $code,
        public string $message,
        public string $advice = '',
        public ?Fix $fix = null,
    ) {
    }
}
