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

    protected static function deedsSaid(): array
    {
        return [
            '(add|attach|apply|set|put on|give it|put|assign) [the |a ][new ]tag {tags}{member}[ (to|on) {}]',
            'add [the |a |an ]{tags}{member} tag[ to {}]', 'tag [{} ][with |as ]{tags}{member}', 'tag {tags}{member}',
            '(add|put|include|append) {its}{member} (to|in|into|among) {field}',
            'give {} the tag {tags}{member}',
            '(add|put) {tags}{member} as [a |the ]tag',
            'label {} [as |with ]{tags}{member}', 'tag [{} ][with |as ]the tag {tags}{member}',
        ];
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
