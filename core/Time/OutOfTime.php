<?php

declare(strict_types=1);

namespace VividLedger\Time;

/** A moment that cannot be kept: before the year 1000 or behind the year 9999. */
final class OutOfTime extends \DomainException
{
    public function __construct()
    {
        parent::__construct('it would lie beyond the years 1000 to 9999');
    }

    /** @throws self */
    public static function check(\DateTimeImmutable $moment): \DateTimeImmutable
    {
        return self::keeps($moment) ? $moment : throw new self;
    }

    public static function keeps(\DateTimeImmutable $moment): bool
    {
        $at = $moment->getTimestamp();

        return $at >= -30_610_224_000 && $at <= 253_402_300_799;
    }
}
