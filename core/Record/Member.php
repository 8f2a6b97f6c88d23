<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** A member of what another system says, by its name with dots between the levels. */
final class Member
{
    /** @return array{bool, mixed} whether it is there, and what it holds */
    public static function find(mixed $of, string $name): array
    {
        foreach (explode('.', $name) as $step) {
            if (! is_array($of) || ! array_key_exists($step, $of)) {
                return [false, null];
            }
            $of = $of[$step];
        }

        return [true, $of];
    }
}
