<?php

declare(strict_types=1);

namespace App\Evidence\Rules;

use App\Models\Ledger\Entry;
use Illuminate\Support\Collection;

/**
 * Which entries belong to one chain: what one change set off, up to the change itself. A line whose time had come begins a chain of its
 * own.
 */
final class Chains
{
    /** @var array<int, int> what caused each entry; 0 where a chain begins */
    private array $causes = [];

    /** @param  Collection<int, \stdClass>  $rows  entries with id, kind, via and cause_id */
    public function learn(Collection $rows): void
    {
        $this->causes = [];
        $unknown = $this->keep($rows);
        while ($unknown !== []) {
            $unknown = $this->keep(Entry::rows()->whereIn('id', $unknown)->get(['id', 'kind', 'via', 'cause_id']));
        }
    }

    /** The entry with which the chain of an entry begins. */
    public function root(int $entry): int
    {
        while (($this->causes[$entry] ?? 0) !== 0) {
            $entry = $this->causes[$entry];
        }

        return $entry;
    }

    /**
     * @param  Collection<int, \stdClass>  $rows
     * @return list<int> causes of which nothing is known yet
     */
    private function keep(Collection $rows): array
    {
        $unknown = [];
        foreach ($rows as $row) {
            $this->causes[(int) $row->id] = $row->via === 'rule' && $row->kind !== 'line' ? (int) $row->cause_id : 0;
        }
        foreach ($rows as $row) {
            $cause = $this->causes[(int) $row->id];
            if ($cause !== 0 && ! isset($this->causes[$cause])) {
                $unknown[$cause] = $cause;
            }
        }
        // One that is gone has no cause.
        foreach ($unknown as $cause) {
            $this->causes[$cause] = 0;
        }

        return array_values($unknown);
    }
}
