<?php

declare(strict_types=1);

namespace App\Store\Setup;

use App\Models\Setup\CompanySettings;
use App\Store\Sql\RecordSql;

/** The few settings of the company, read once for each request or process. */
final class Company
{
    private ?CompanySettings $settings = null;

    public function name(): string
    {
        return $this->settings()->name;
    }

    public function zone(): \DateTimeZone
    {
        return new \DateTimeZone($this->settings()->time_zone);
    }

    public function fallbackPersonId(): ?int
    {
        return $this->settings()->fallback_person_id;
    }

    /** The house clock, the same for every program; always read afresh, because a person may turn it. */
    public function clock(): \DateTimeImmutable
    {
        $kept = RecordSql::columns(CompanySettings::class, ['clock_offset', 'clock_held'], CompanySettings::ID);

        return new \DateTimeImmutable('@'.($kept->clock_held ?? time() + (int) ($kept->clock_offset ?? 0)));
    }

    /** Whether the house clock is being turned, so that nobody else does what falls due. */
    public function isClockHeld(): bool
    {
        return RecordSql::value(CompanySettings::class, 'clock_held', CompanySettings::ID) !== null;
    }

    /** Lets the house clock stand at a moment until it is set. */
    public function holdClock(\DateTimeImmutable $at): void
    {
        CompanySettings::query()->whereKey(CompanySettings::ID)->update(['clock_held' => $at->getTimestamp()]);
    }

    /** Lets the house clock show a moment, and run on from there. */
    public function setClock(\DateTimeImmutable $at): void
    {
        CompanySettings::query()->whereKey(CompanySettings::ID)
            ->update(['clock_offset' => $at->getTimestamp() - time(), 'clock_held' => null]);
    }

    public function setFallbackPerson(?int $id): void
    {
        CompanySettings::query()->findOrFail(CompanySettings::ID)->update(['fallback_person_id' => $id]);
        $this->settings = null;
    }

    private function settings(): CompanySettings
    {
        return $this->settings ??= CompanySettings::query()->find(CompanySettings::ID)
            ?? new CompanySettings(['name' => 'New company', 'time_zone' => 'UTC', 'clock_offset' => 0]);
    }
}
