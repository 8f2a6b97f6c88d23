<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

/** The set without a member. */
final readonly class WithoutMember extends ChangedMember
{
    public static function kind(): string
    {
        return 'remove_member';
    }

    protected static function word(): string
    {
        return 'without';
    }

    protected function changed(array $members, string $member): array
    {
        return array_values(array_diff($members, [$member]));
    }
}
