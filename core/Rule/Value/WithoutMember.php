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

    protected static function deedsSaid(): array
    {
        return [
            '(remove|take off|drop|delete|take away|clear|strip) [the ]tag {tags}{member}[ from {}]',
            '(remove|drop|take off|delete) [the ]{tags}{member} tag[ from {}]', 'untag {tags}{member}',
            'untag {} [from |of |as ]{tags}{member}',
            '(remove|take|drop|delete|strike) {its}{member} (from|out of|off) {field}', 'take the tag {tags}{member} (off|away)',
        ];
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
