<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Facts\PeopleFacts;
use VividLedger\Facts\SignOffSeen;

/** What a text can say of the latest sign-off of a record. */
enum SignOffWord: string
{
    case Status = 'status';
    case Why = 'why';
    case Asker = 'asker';
    case Step = 'step';
    case Agreed = 'agreed';
    case Decider = 'decider';
    case Comment = 'comment';
    case Comments = 'comments';

    public function label(): string
    {
        return match ($this) {
            self::Status => 'how the sign-off stands',
            self::Why => 'why the sign-off is asked for',
            self::Asker => 'who asked for the sign-off',
            self::Step => 'step of the sign-off',
            self::Agreed => 'who agreed',
            self::Decider => 'who decided last',
            self::Comment => 'last comment on the sign-off',
            self::Comments => 'comments on the sign-off',
        };
    }

    /** @return list<string> its lines; none where there is nothing to say */
    public function lines(SignOffSeen $seen, PeopleFacts $facts): array
    {
        $name = static fn (?int $id): string => $id === null ? '' : $facts->person($id)->name ?? '';
        $last = $seen->said[count($seen->said) - 1] ?? null;

        return array_values(array_filter(match ($this) {
            self::Status => [str_replace('_', ' ', $seen->status)],
            self::Why => [$seen->why],
            self::Asker => [$name($seen->asker)],
            self::Step => [(string) ($seen->step + 1)],
            self::Agreed => [implode(', ', array_map($name, $seen->who(true)))],
            self::Decider => [$name($seen->decider())],
            self::Comment => [$last['comment'] ?? ''],
            self::Comments => array_map(
                static fn (array $one): string => $one['comment'] === '' ? '' : "{$name($one['person'])}: {$one['comment']}",
                $seen->said,
            ),
        }, static fn (string $line): bool => $line !== ''));
    }
}
