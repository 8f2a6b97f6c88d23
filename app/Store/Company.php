<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\CompanySettings;
use App\Store\Sql\ById;

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

    /** Seconds the house clock is ahead of the system's; always read afresh, because a person may turn it. */
    public function clockOffset(): int
    {
        return (int) ById::value(CompanySettings::class, 'clock_offset', CompanySettings::ID);
    }

    /** Lets the house clock show a moment, and run on from there. */
    public function setClock(\DateTimeImmutable $at): void
    {
        CompanySettings::query()->whereKey(CompanySettings::ID)->update(['clock_offset' => $at->getTimestamp() - time()]);
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
