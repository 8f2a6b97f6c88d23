<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

/** The set with a member more. */
final readonly class WithMember extends ChangedMember
{
    public static function kind(): string
    {
        return 'add_member';
    }

    protected static function word(): string
    {
        return 'with';
    }

    protected function changed(array $members, string $member): array
    {
        return [...$members, $member];
    }
}
