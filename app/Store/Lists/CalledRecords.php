<?php

declare(strict_types=1);

namespace App\Store\Lists;

use App\Store\Access\AccessScope;
use VividLedger\Listing\RecordNames;
use VividLedger\Record\Fold;

/** Records by their names, of those that whoever asks may see. */
final readonly class CalledRecords implements RecordNames
{
    private const MOST = 4;

    private const LOOKED_AT = 40;

    public function __construct(private RecordSearch $finding, private AccessScope $inSight)
    {
    }

    public function called(string $type, string $name): array
    {
        $of = $this->inSight->schema()->types[$type] ?? null;
        [$found, $nearly] = $of === null || mb_strlen($name) < 3 ? [[], ''] : $this->finding->records($name, self::LOOKED_AT);
        if ($of === null || $nearly !== '') {
            return [];
        }
        $theirs = array_filter($found, static fn (array $record): bool => $record['type'] === $type);
        // One that is called just so is meant; else those that have the words in their name.
        $asked = Fold::text($name);
        $just = array_filter($theirs, static fn (array $record): bool => Fold::text($record['title']) === $asked);
        $named = $just !== [] ? $just
            : array_filter($theirs, static fn (array $record): bool => str_contains(Fold::text($record['title']), $asked));
        $few = array_slice(array_values($named), 0, self::MOST);

        return array_map(static fn (array $record): string => $of->numberOf($record['id']), $few);
    }
}
