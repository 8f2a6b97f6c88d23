<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;

/** The few settings of the company, read once for each request or process. */
final class Company
{
    private ?object $row = null;

    public function __construct(private readonly Connection $db)
    {
    }

    public function name(): string
    {
        return (string) $this->row()->name;
    }

    public function zone(): \DateTimeZone
    {
        return new \DateTimeZone((string) $this->row()->time_zone);
    }

    public function fallbackPersonId(): ?int
    {
        return $this->row()->fallback_person_id === null ? null : (int) $this->row()->fallback_person_id;
    }

    /** Seconds the house clock is ahead of the system's; always read afresh, because a person may turn it. */
    public function clockOffset(): int
    {
        return (int) $this->db->scalar('SELECT clock_offset FROM company WHERE id = 1');
    }

    /** Lets the house clock show a moment, and run on from there. */
    public function setClock(\DateTimeImmutable $at): void
    {
        $this->db->update('UPDATE company SET clock_offset = ? WHERE id = 1', [$at->getTimestamp() - time()]);
    }

    public function setFallbackPerson(?int $id): void
    {
        $this->db->table('company')->where('id', 1)->update(['fallback_person_id' => $id]);
        $this->row = null;
    }

    private function row(): object
    {
        return $this->row ??= $this->db->selectOne('SELECT * FROM company WHERE id = 1')
            ?? (object) ['name' => 'New company', 'time_zone' => 'UTC', 'fallback_person_id' => null, 'clock_offset' => 0];
    }
}
