<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\CompanySettings;
use App\Models\RuleWatch;
use App\Models\StoredRule;
use Illuminate\Support\Collection;
use VividLedger\Rule\RuleStatus;

/** The rules that look at a change: asked at every save, so in one statement. */
final class RulesAsked
{
    /**
     * @param  list<string>  $watches  keys that the change touches
     * @return Collection<int, \stdClass> id, page and either_or of each rule in order, whether it starts, and whether it may touch runs
     */
    public static function by(string $type, array $watches): Collection
    {
        $touches = RuleWatch::TOUCHING.'%';
        $asked = RuleWatch::rows()->where('record_type', $type)->whereIn(
            'watch',
            [...$watches, ...array_map(RuleWatch::touching(...), $watches)],
        )
            ->groupBy('rule_id')->selectRaw(
                'rule_id, MIN(watch LIKE ?) AS only_touches, MAX(watch LIKE ?) AS touches',
                [$touches, $touches],
            );

        return StoredRule::rows()->from(StoredRule::tableName(), 'r')->joinSub($asked, 'w', 'w.rule_id', '=', 'r.id')
            ->join(CompanySettings::tableName().' as c', static fn ($join) => $join->where('c.id', CompanySettings::ID))
            ->orderBy('r.position')->orderBy('r.id')
            ->selectRaw(
                'r.id, r.page, r.either_or, r.status = ? AND NOT w.only_touches AS starts, w.touches, c.kept_version',
                [RuleStatus::InForce->value],
            )
            ->get();
    }
}
