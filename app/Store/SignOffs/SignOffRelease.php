<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\Access\HeldCode;
use App\Models\Records\HeldChange;
use App\Models\Rules\StoredRule;
use App\Models\SignOffs\StoredSignOff;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\HouseClock;
use App\Store\Records\SaveRecord;
use App\Store\Rules\StoredRuleBook;
use App\Store\Sql\Lock;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Rule\RuleStatus;
use VividLedger\SignOff\Hold;

/** Sets a record free: lines that waited for that fall due, and rules that were kept from it answer what they could not. */
final readonly class SignOffRelease
{
    public function __construct(
        private SchemaStore $schemas,
        private StoredRuleBook $rules,
        private SaveRecord $save,
        private HouseClock $clock,
    ) {
    }

    /** @param  int  $cause  number of the entry that says why */
    public function release(StoredSignOff $kept, int $cause): void
    {
        if ($kept->hold === Hold::Nothing || $kept->released) {
            return;
        }
        $kept->update(['released' => true]);
        ScheduledLine::query()->about($kept->record_type, $kept->record_id)->where('status', LineStatus::Held)
            ->where('held_code', HeldCode::Locked)->update(['status' => LineStatus::Pencilled, 'held_code' => null]);
        $seen = [];
        $held = HeldChange::query()->where('sign_off_id', $kept->id)->orderBy('id')->get();
        foreach ($held as $one) {
            // However often a rule was kept away by saves, it looks once, from what was there before the first to what is there now.
            $key = "{$one->rule_id}:".($one->event['key'] ?? 'change');
            if (! isset($seen[$key])) {
                $seen[$key] = true;
                $this->comeAgain($kept, $one, $cause);
            }
        }
        HeldChange::query()->whereKey($held->modelKeys())->delete();
    }

    private function comeAgain(StoredSignOff $kept, HeldChange $held, int $cause): void
    {
        $type = $this->schemas->schema()->type($kept->record_type);
        $changed = $this->schemas->schema()->type($held->record_type);
        $for = $type === null ? null : RecordSql::record($type, $kept->record_id, Lock::WRITE);
        $isSame = $held->record_type === $kept->record_type && $held->record_id === $kept->record_id;
        $now = $isSame ? $for : ($changed === null ? null : RecordSql::record($changed, $held->record_id, Lock::WRITE));
        $rule = $this->rules->page($held->rule_id, $held->page);
        $isInForce = StoredRule::query()->find($held->rule_id)?->status === RuleStatus::InForce;
        if ($type === null || $for === null || $now === null || $rule === null || ! $isInForce) {
            return;
        }
        $change = $this->change($held, $now)->again($now, $for, $this->clock->now());
        $this->save->answerAgain($type, $for->id, $change, $rule, $cause);
    }

    private function change(HeldChange $held, Record $now): Change
    {
        $cause = CauseKind::from($held->via);
        if ($held->event !== null) {
            $event = new Event(
                EventKind::from($held->event['kind']), $held->event['key'], $held->event['text'], $held->event['rule'],
                $held->event['from'] ?? '',
            );

            return Change::event($now, $event, $held->actor_id, $this->clock->now(), $cause);
        }
        $before = $held->before === null ? null
            : new Record($held->record_type, $held->record_id, $held->before['version'], $held->before['values']);

        return new Change($before, $now, $held->actor_id, $this->clock->now(), $cause);
    }
}
