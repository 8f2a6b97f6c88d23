<?php

declare(strict_types=1);

namespace VividLedger\Message;

/** By which way a message goes. */
enum Channel: string
{
    case Email = 'email';
    case Sms = 'sms';
    case App = 'app';

    /** Inside a sentence: "an e-mail". */
    public function one(): string
    {
        return ($this === self::Email ? 'an ' : 'a ').$this->label();
    }

    public function label(): string
    {
        return match ($this) {
            self::Email => 'e-mail',
            self::Sms => 'text message',
            self::App => 'note in the application',
        };
    }
}
