<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\Rules\RuleWatch;
use App\Models\Rules\StoredRule;
use App\Models\Setup\CompanySettings;
use Illuminate\Support\Facades\DB;
use VividLedger\Rule\RuleStatus;

/**
 * The rules that watch for something. It is asked in each save, and to write this statement took the query builder longer than it takes
 * the database to answer it.
 */
final class RuleWatchQuery
{
    /**
     * @param  non-empty-list<string>  $watches  keys that changes touch
     * @return list<\stdClass> id, page and either_or of each rule in order, with one key for which it starts, may touch runs, or reads
     *     children
     */
    public static function by(string $type, array $watches): array
    {
        $keys = [...$watches, ...array_map(RuleWatch::touching(...), $watches), ...array_map(RuleWatch::reading(...), $watches)];
        $places = implode(', ', array_fill(0, count($keys), '?'));
        [$watched, $rules, $company] = [RuleWatch::tableName(), StoredRule::tableName(), CompanySettings::tableName()];

        $rows = array_values(DB::select(
            "SELECT r.id, r.page, r.either_or, r.position, r.status = ? AS in_force, w.watch, c.kept_version
            FROM `{$watched}` w JOIN `{$rules}` r ON r.id = w.rule_id JOIN `{$company}` c ON c.id = ?
            WHERE w.record_type = ? AND w.watch IN ({$places})",
            [RuleStatus::InForce->value, CompanySettings::ID, $type, ...$keys],
        ));
        // For a handful of rows the database would make a table first.
        usort($rows, static fn (\stdClass $one, \stdClass $other): int => [$one->position, $one->id] <=> [$other->position, $other->id]);

        return $rows;
    }
}
