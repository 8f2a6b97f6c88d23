<?php

declare(strict_types=1);

namespace App\Work\Outbound;

/** Where the back office is, and what it knows the application by. */
final class BackOfficeDoor
{
    /** The stand-in's secret is made from the key of the installation, where no other is configured. */
    public static function secret(): string
    {
        $given = (string) config('ledger.back_office.token');

        return $given !== '' ? $given : substr(hash_hmac('sha256', 'back office', (string) config('app.key')), 0, 40);
    }

    public static function url(): string
    {
        return rtrim((string) config('ledger.back_office.url'), '/');
    }

    public static function isOpen(): bool
    {
        return self::url() !== '';
    }
}
