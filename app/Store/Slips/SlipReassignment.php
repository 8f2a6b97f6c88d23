<?php

declare(strict_types=1);

namespace App\Store\Slips;

use App\Models\Slips\StoredSlip;
use App\Store\Actor;
use App\Store\Records\SaveRecord;
use App\Store\Records\StoredFacts;
use App\Store\Types\SchemaStore;
use Closure;
use VividLedger\Record\CauseKind;
use VividLedger\Rule\Line\SendsSlip;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\SignOff\PassesLock;
use VividLedger\Slip\Reach;
use VividLedger\Slip\SlipStatus;
use VividLedger\Slip\SlipWay;

/** A slip goes to the next in its list: the record is set to them, as a change that rules answer, and they are the ones reached. */
final readonly class SlipReassignment implements SlipWay
{
    /** @param  Closure(): StoredFacts  $facts  as they are then */
    public function __construct(
        private SendsSlip $line,
        private StoredSlip $kept,
        private SaveRecord $save,
        private SchemaStore $schemas,
        private Closure $facts,
        private \DateTimeZone $zone,
    ) {
    }

    public function turnTo(int $candidate): ?Reach
    {
        $field = $this->line->plan()->next?->field() ?? throw new \LogicException('There is no list to go along.');
        $type = $this->schemas->schema()->types[$this->kept->record_type];
        $actor = new Actor(null, CauseKind::Rule);
        $this->save->correct($type, $this->kept->record_id, [$field->name => $candidate], $actor, $this->kept->entry_id,
            PassesLock::PassedOn);
        if (StoredSlip::query()->whereKey($this->kept->id)->value('status') !== SlipStatus::Waiting) {
            return null;
        }
        $facts = ($this->facts)();
        $record = $facts->record($this->kept->record_type, $this->kept->record_id)
            ?? throw new \LogicException('The record was there a moment ago.');

        return $this->line->reach(ActionContext::looking($record, $facts, $this->schemas->schema(), $this->zone));
    }
}
