<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Message\Address;

/** Whom a slip reaches, and by which ways. */
final readonly class Reach
{
    /** @param  string  $path  how they were found, or where the way ended */
    public function __construct(public ?Address $mail, public ?Address $text, public string $path)
    {
    }

    public function isNobody(): bool
    {
        return $this->mail === null && $this->text === null;
    }

    public function name(): string
    {
        return $this->mail->name ?? $this->text->name ?? '';
    }
}
