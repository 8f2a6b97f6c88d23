<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\Record\Record;

/**
 * Totals that were asked for within one decision, kept up with each record that the decision changes. A rule that counts siblings, asked
 * for each of two thousand of them, would else count all of them two thousand times.
 */
final class RunningTotals
{
    /**
     * @var array<string, array<string, array{Total, int, ?string}>> totals, of which record, and what they come to; by type of the
     * children
     */
    private array $kept = [];

    /** @param  callable(): ?string  $ask */
    public function of(Total $total, int $parent, callable $ask): ?string
    {
        $type = $total->children->type;
        $key = spl_object_id($total).":{$parent}";
        $this->kept[$type][$key] ??= [$total, $parent, $ask()];

        return $this->kept[$type][$key][2];
    }

    public function isNeededFor(string $type): bool
    {
        return isset($this->kept[$type]);
    }

    /**
     * @param  ?Record  $before  as it was counted until now; null for one that was not there
     * @param  ?Record  $after  null for one that is no more
     */
    public function changed(string $type, ?Record $before, ?Record $after, Facts $facts): void
    {
        foreach ($this->kept[$type] ?? [] as $key => [$total, $parent, $value]) {
            $counted = static fn (?Record $record): array => $record !== null && $total->children->has($record, $parent, $facts)
                ? [$record] : [];
            [$without, $with] = [$counted($before), $counted($after)];
            if ($without === [] && $with === []) {
                continue;
            }
            $now = $without === [] ? $value : $total->less($value, $total->over($without));
            if ($now === false) {
                // The earliest is gone: which is the next, only asking tells.
                unset($this->kept[$type][$key]);
            } else {
                $this->kept[$type][$key] = [$total, $parent, $with === [] ? $now : $total->together($now, $total->over($with))];
            }
        }
    }
}
