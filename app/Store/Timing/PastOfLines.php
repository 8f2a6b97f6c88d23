<?php

declare(strict_types=1);

namespace App\Store\Timing;

use App\Models\LedgerModel;
use Closure;
use Illuminate\Database\Eloquent\Builder;

/** What is past of what lines asked for: when the same line asks once more for the same record, and when its run is struck out. */
final class PastOfLines
{
    /**
     * @template T of LedgerModel
     *
     * @param  Closure(): Builder<T>  $open  those that still wait
     * @param  list<array{rule_id: int, place: int, record_type: string, record_id: int}>  $asked  by lines, just now
     * @param  list<int>  $struck  ids of runs
     * @return array<int, T> by id
     */
    public static function among(Closure $open, array $asked, array $struck): array
    {
        $past = $struck === [] ? [] : $open()->whereIn('run_id', $struck)->get()->all();
        $byType = [];
        foreach ($asked as $one) {
            $byType[$one['record_type']][] = $one;
        }
        foreach ($byType as $type => $ones) {
            $found = $open()->where('record_type', $type)->whereIn('record_id', array_unique(array_column($ones, 'record_id')))
                ->whereIn('rule_id', array_unique(array_column($ones, 'rule_id')))->orderBy('id')->get()->all();
            $asks = array_flip(array_map(self::line(...), $ones));
            $isAsked = static fn (LedgerModel $row): bool => isset($asks[self::line($row->getAttributes())]);
            array_push($past, ...array_values(array_filter($found, $isAsked)));
        }
        $byId = [];
        foreach ($past as $row) {
            $byId[(int) $row->getKey()] = $row;
        }

        return $byId;
    }

    /** @param  array<string, mixed>  $of */
    private static function line(array $of): string
    {
        return "{$of['record_id']} {$of['rule_id']} {$of['place']}";
    }
}
