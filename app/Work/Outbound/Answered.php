<?php

declare(strict_types=1);

namespace App\Work\Outbound;

/** What came of one try of a call. */
final readonly class Answered
{
    /**
     * @param  ?int  $status  as HTTP says it; null when nothing came back
     * @param  string  $trouble  in words; empty when it went well
     * @param  bool  $comesAgain  whether it can help to try once more
     * @param  bool  $isUnsure  whether the other side may have taken it without saying so
     * @param  ?int  $wait  seconds that the other side wants us to wait
     */
    public function __construct(
        public ?int $status,
        public string $body,
        public string $trouble = '',
        public bool $comesAgain = false,
        public bool $isUnsure = false,
        public ?int $wait = null,
    ) {
    }

    public function isGood(): bool
    {
        return $this->trouble === '';
    }
}
