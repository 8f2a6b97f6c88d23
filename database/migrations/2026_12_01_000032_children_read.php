<?php

declare(strict_types=1);

use App\Models\Rules\PublishedPage;
use App\Models\Rules\RuleWatch;
use App\Models\Rules\StoredRule;
use App\Models\Timing\RuleRun;
use App\Store\Rules\RuleWatching;
use Illuminate\Database\Migrations\Migration;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\RuleStatus;

/** Whoever alters what a rule counts holds the record it is counted for: the pages that may still count are watched for it. */
return new class extends Migration
{
    public function up(): void
    {
        $pages = [];
        foreach (StoredRule::query()->whereIn('status', [RuleStatus::InForce, RuleStatus::Paused])->whereNotNull('page')->get() as $rule) {
            $pages["{$rule->id} {$rule->page}"] = [$rule->id, (int) $rule->page];
        }
        foreach (RuleRun::query()->inPlay()->distinct()->get(['rule_id', 'page']) as $run) {
            $pages["{$run->rule_id} {$run->page}"] = [$run->rule_id, $run->page];
        }
        foreach ($pages as [$rule, $number]) {
            $page = app(RuleReader::class)->read(PublishedPage::fileOf($rule, $number), $rule, $number)->rule;
            if ($page !== null) {
                app(RuleWatching::class)->watchChildren($page);
            }
        }
    }

    public function down(): void
    {
        RuleWatch::rows()->where('watch', 'like', RuleWatch::READING.'%')->delete();
    }
};
