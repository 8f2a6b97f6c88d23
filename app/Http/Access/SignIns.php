<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Models\People\Person;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;

/** Where somebody is signed in: the sessions the framework keeps. They are known by a mark, never by what a browser sends. */
final class SignIns
{
    /** @return list<array{mark: string, agent: string, address: string, at: int, isThis: bool}> the latest used first */
    public static function of(Connection $db, Person $person, ?string $here): array
    {
        $rows = self::rows($db, $person)->orderByDesc('last_activity')->limit(50)->get();

        return array_values($rows->map(static fn (\stdClass $row): array => [
            'mark' => self::mark($row->id), 'agent' => (string) $row->user_agent, 'address' => (string) $row->ip_address,
            'at' => (int) $row->last_activity, 'isThis' => $row->id === $here,
        ])->all());
    }

    /** @return bool whether there was one */
    public static function end(Connection $db, Person $person, string $mark): bool
    {
        $ids = self::rows($db, $person)->pluck('id')->filter(static fn (string $id): bool => hash_equals(self::mark($id), $mark))->all();

        return $ids !== [] && $db->table((string) config('session.table'))->whereIn('id', $ids)->delete() > 0;
    }

    /** @param  ?string  $but  the session that stays */
    public static function endAll(Connection $db, Person $person, ?string $but): int
    {
        return self::rows($db, $person)->when($but !== null, static fn (Builder $rows): Builder => $rows->where('id', '<>', $but))
            ->delete();
    }

    private static function rows(Connection $db, Person $person): Builder
    {
        return $db->table((string) config('session.table'))->where('user_id', $person->id);
    }

    private static function mark(string $id): string
    {
        return substr(hash('sha256', "sign-in {$id}"), 0, 24);
    }
}
