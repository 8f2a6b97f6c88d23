<?php

declare(strict_types=1);

namespace App\Work\Inbound;

/** A mail as far as we need it. */
final readonly class ReadMail
{
    /**
     * @param  list<string>  $to  addresses it came to, as far as its headers tell
     * @param  list<string>  $answers  ids of the mails that it answers, the nearest first
     * @param  list<array{name: string, type: string, content: string}>  $files
     * @param  ?array{recipient: string, status: string, of: string, why: string}  $bounce  what could not be delivered
     */
    public function __construct(
        public string $id,
        public string $from,
        public string $fromName,
        public array $to,
        public string $subject,
        public array $answers,
        public string $words,
        public bool $isAuto,
        public array $files = [],
        public ?array $bounce = null,
    ) {
    }
}
