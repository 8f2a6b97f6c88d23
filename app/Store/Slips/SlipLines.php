<?php

declare(strict_types=1);

namespace App\Store\Slips;

use App\Models\Slips\StoredSlip;
use App\Store\Rules\StoredRuleBook;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\House\Directory;
use VividLedger\Rule\Line\SendsSlip;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Slip\Question;
use VividLedger\Slip\QuestionsSlot;

/** The line that sent a slip, as it was then, and the questions it went out with. */
final readonly class SlipLines
{
    public function __construct(
        private StoredRuleBook $rules,
        private Directory $directory,
        private SchemaStore $schemas,
        private Company $company,
    ) {
    }

    /** Null when its page no longer reads. */
    public function line(StoredSlip $kept): ?SendsSlip
    {
        $line = $this->rules->page($kept->rule_id, $kept->page)?->line($kept->place)?->bare();

        return $line instanceof SendsSlip ? $line : null;
    }

    /** @return array<int, ?string> for the key of what line each line of its page waits, by place */
    public function waits(StoredSlip $kept): array
    {
        $waits = [];
        foreach ($this->rules->page($kept->rule_id, $kept->page)->lines ?? [] as $placed) {
            $waits[$placed->place] = $placed->timing?->waitsFor();
        }

        return $waits;
    }

    /** @return list<Question> none when they no longer read: a field is gone */
    public function questions(StoredSlip $kept): array
    {
        return $this->written($kept->record_type, $kept->asks);
    }

    /**
     * Those questions of some that are finished, for a page that is being written.
     *
     * @param  array<mixed>  $asks  questions as a file writes them
     * @return list<Question>
     */
    public function sound(string $recordType, array $asks): array
    {
        $sound = [];
        foreach ($asks as $asked) {
            $so = $this->written($recordType, [...$sound, $asked]);
            $sound = $so === [] ? $sound : [...$sound, $asked];
        }

        return $this->written($recordType, $sound);
    }

    /**
     * @param  list<mixed>  $asks  questions as a file writes them
     * @return list<Question>
     */
    public function written(string $recordType, array $asks): array
    {
        $type = $this->schemas->schema()->type($recordType);

        return $type === null ? [] : QuestionsSlot::written(
            new Context($this->schemas->schema(), $this->directory, $type, $this->company->zone()),
            new Node($asks, '/asks'),
        ) ?? [];
    }
}
