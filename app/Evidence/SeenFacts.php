<?php

declare(strict_types=1);

namespace App\Evidence;

use VividLedger\Condition\Total;
use VividLedger\Record\Record;
use VividLedger\Schema\Children;

/** The facts of a rehearsal that is to be kept: every record that it looks at is remembered as it was. */
final class SeenFacts extends PaperFacts
{
    private const MOST_CHILDREN = 200;

    /** @return list<Record> */
    public function seen(): array
    {
        return array_values(array_filter($this->records));
    }

    public function children(Children $children, int $parent, int $most): array
    {
        // All of them: which of them count may change with what is supposed.
        parent::children(new Children($children->type, $children->by), $parent, self::MOST_CHILDREN);

        return parent::children($children, $parent, $most);
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        parent::children(new Children($total->children->type, $total->children->by), $parent, self::MOST_CHILDREN);

        return parent::total($total, $parent, $except);
    }
}
