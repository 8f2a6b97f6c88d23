<?php

declare(strict_types=1);

namespace App\Store\Outbound;

use App\Models\Ledger\Entry;
use App\Models\Outbound\CallStatus;
use App\Models\Outbound\StoredCall;
use App\Models\Records\StoredRecord;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Records\SaveRecord;
use App\Store\Rules\StoredRuleBook;
use App\Store\Sql\Batch;
use App\Store\Types\SchemaStore;
use VividLedger\Explain\CallTold;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Rule\Line\Calls;
use VividLedger\Rule\Performance\CallMade;
use VividLedger\SignOff\PassesLock;

/** Ends a call: its entry, what of the answer is kept in fields, and what rules and waiting lines make of it. */
final readonly class CallRepository
{
    public function __construct(
        private HouseClock $clock,
        private SchemaStore $schemas,
        private SaveRecord $save,
        private StoredRuleBook $rules,
    ) {
    }

    public function end(int $id, bool $isGood): void
    {
        $this->clock->freeze(function () use ($id, $isGood): void {
            $call = StoredCall::query()->find($id);
            $type = $call === null ? null : $this->schemas->schema()->type($call->record_type);
            if ($call === null || $type === null) {
                return;
            }
            // The record first, as every save does, so that the two never wait for each other.
            $isThere = StoredRecord::rowsOf($type)->where('id', $call->record_id)->lockForUpdate()->exists();
            $now = $this->clock->now();
            $call->update(['status' => $isGood ? CallStatus::Succeeded : CallStatus::Failed, 'ended_at' => $now]);
            $ended = $isGood ? CallMade::SUCCEEDED : CallMade::FAILED;
            $trouble = $call->trouble;
            $values = $isGood && $isThere ? $this->kept($call) : [];
            $told = CallTold::of($call->endpoint, $ended, $call->tries, $trouble, $call->unsure);
            $entry = $this->entry($call, $told, $call->entry_id);
            if (! $isThere) {
                return;
            }
            $actor = new Actor(null, CauseKind::Rule);
            if ($values !== []) {
                try {
                    $this->save->correct($type, $call->record_id, $values, $actor, $entry, PassesLock::CallAnswer);
                } catch (DomainError $refused) {
                    // It did happen over there; what cannot be kept of it here is told.
                    $call->update(['trouble' => mb_substr("Not kept: {$refused->getMessage()}", 0, 500)]);
                    $why = "The answer could not be kept: {$refused->getMessage()}";
                    $this->entry($call, CallTold::of($call->endpoint, $ended, $call->tries, $why), $entry);
                }
            }
            $event = static fn (): Event => new Event(EventKind::CallEnded, "call:{$call->id}", $ended);
            $this->save->recordEvent($type, $call->record_id, $event, $actor, [], null, $entry, $call->rule_id);
        });
    }

    /** @param  array<string, mixed>  $told */
    private function entry(StoredCall $call, array $told, int $cause): int
    {
        return Batch::insertForIds(Entry::class, [Entry::row('call', $this->clock->now(), $told, [
            'via' => CauseKind::Rule, 'record_type' => $call->record_type, 'record_id' => $call->record_id,
            'rule_id' => $call->rule_id, 'page' => $call->page, 'cause_id' => $cause,
        ])])[0];
    }

    /** @return array<string, string|int|float|bool> values by field, of what the answer has */
    private function kept(StoredCall $call): array
    {
        $line = $this->rules->page($call->rule_id, $call->page)?->line($call->place)?->bare();
        $answer = json_decode((string) $call->answer, true);
        $values = [];
        foreach ($line instanceof Calls ? $line->keeps() : [] as $keep) {
            $member = CallMade::member($answer, $keep->from);
            if ($member !== null) {
                $values[$keep->field->name] = is_float($member) || is_int($member) ? (string) $member : $member;
            }
        }

        return $values;
    }
}
